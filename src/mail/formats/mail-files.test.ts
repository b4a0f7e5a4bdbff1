import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Readable } from "node:stream";
import { gzipSync } from "node:zlib";
import { aMessage } from "@tests/support/mail";
import { afterAll, describe, expect, it } from "vitest";
import { instant } from "../../core/kernel/instant";
import { mboxOf } from "./export-mail";
import { readMailFiles } from "./mail-files";
import { MAX_MESSAGE_BYTES, readMbox } from "./mbox";
import { spoolMbox } from "./mbox-spool";
import { openZip, zipOf } from "./zip";

const folder = mkdtempSync(join(tmpdir(), "common-tray-files-"));
afterAll(() => rmSync(folder, { recursive: true }));
mkdirSync(join(folder, "b"));
writeFileSync(join(folder, "a.eml"), "Subject: one\n\n1\n");
writeFileSync(join(folder, "b", "box"), "From x\nSubject: two\n\n2\n\nFrom y\nSubject: three\n\n3\n");
writeFileSync(join(folder, ".hidden"), "Subject: never\n\n");
writeFileSync(join(folder, "c.eml"), "");
writeFileSync(join(folder, "d.ics"), "BEGIN:VCALENDAR\nVERSION:2.0\nEND:VCALENDAR\n");
writeFileSync(join(folder, "e.gz"), gzipSync("Subject: packed\n\n"));

async function subjects(path: string, passesOver?: (name: string) => void): Promise<(string | undefined)[]> {
  const found: (string | undefined)[] = [];
  for await (const raw of readMailFiles(path, passesOver === undefined ? {} : { passesOver }))
    found.push(/Subject: (\w+)/.exec(new TextDecoder().decode(raw))?.[1]);
  return found;
}

it("reads a folder with folders in it by name, boxes and single messages, and names what is no mail", async () => {
  const passed: string[] = [];
  expect(await subjects(folder, (name) => passed.push(name))).toEqual(["one", "two", "three"]);
  expect(passed).toEqual(["c.eml", "d.ics", "e.gz"]);
});
it("names what is no mail in a zip", async () => {
  const path = join(folder, "b", "mixed.zip");
  writeFileSync(
    path,
    await zipOf([
      { name: "a.eml", content: Buffer.from("Subject: one\n\n") },
      { name: "holidays.ics", content: Buffer.from("BEGIN:VCALENDAR\n") },
    ]),
  );
  const passed: string[] = [];
  expect(await subjects(path, (name) => passed.push(name))).toEqual(["one"]);
  expect(passed).toEqual(["holidays.ics"]);
  rmSync(path);
});
it.each(["d.ics", "e.gz", "c.eml"])("refuses one file that is no mail: %s", async (name) => {
  await expect(subjects(join(folder, name))).rejects.toThrow("it is no mail");
});
it("reads one message or one box", async () => {
  expect(await subjects(join(folder, "a.eml"))).toEqual(["one"]);
  expect(await subjects(join(folder, "b", "box"))).toEqual(["two", "three"]);
});
it("says which file is not there", async () => {
  await expect(subjects(join(folder, "nothing"))).rejects.toThrow("nothing");
});

describe("a zip that is a bomb", () => {
  const bomb = (name: string) =>
    zipOf([{ name, content: Buffer.concat([Buffer.from("From a\n\n"), Buffer.alloc(20 * 1024 * 1024)]) }]);

  it.each(["all.mbox", "one.eml"])("is refused before it is unpacked: %s", async (name) => {
    const path = join(folder, "bomb.zip");
    writeFileSync(path, await bomb(name));
    await expect(subjects(path)).rejects.toThrow("unpacks to more than 200 times its size");
    expect(await openZip(path)).toBeNull();
  });
});

describe("an mbox", () => {
  it("keeps of a message, and of a line, no more than there can be", async () => {
    const piece = Buffer.alloc(1024 * 1024, "a");
    const chunks = async function* () {
      yield Buffer.from("From a\nSubject: one\n\n");
      for (let count = 0; count < 100; count += 1) yield piece;
      yield Buffer.from("\n\nFrom b\nSubject: two\n\nshort\n");
    };
    const read: number[] = [];
    for await (const raw of readMbox(chunks())) read.push(raw.byteLength);
    expect(read).toHaveLength(2);
    expect(read[0]).toBeLessThanOrEqual(MAX_MESSAGE_BYTES + piece.byteLength);
    expect(read[1]).toBe("Subject: two\n\nshort\n".length);
  });

  it("lies on the disk while its messages are read in any order", async () => {
    const raws = ["one", "two"].map((subject) => aMessage({ subject }));
    const box = mboxOf(raws.map((raw) => ({ raw, sentAt: instant(0) })));
    const spooled = await spoolMbox(Readable.from([box], { objectMode: false }));
    expect(spooled.count).toBe(2);
    for (const at of [1, 0]) expect(Buffer.compare(await spooled.read(at), raws[at] ?? Buffer.alloc(0))).toBe(0);
    await expect(spooled.read(2)).rejects.toThrow(RangeError);
    await spooled.close();
  });
});
