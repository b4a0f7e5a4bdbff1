import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, expect, it } from "vitest";
import { readMailFiles } from "./mail-files";

const folder = mkdtempSync(join(tmpdir(), "common-tray-files-"));
afterAll(() => rmSync(folder, { recursive: true }));
mkdirSync(join(folder, "b"));
writeFileSync(join(folder, "a.eml"), "Subject: one\n\n1\n");
writeFileSync(join(folder, "b", "box"), "From x\nSubject: two\n\n2\n\nFrom y\nSubject: three\n\n3\n");
writeFileSync(join(folder, ".hidden"), "Subject: never\n\n");
writeFileSync(join(folder, "c.eml"), "");

async function subjects(path: string): Promise<(string | undefined)[]> {
  const found: (string | undefined)[] = [];
  for await (const raw of readMailFiles(path)) found.push(/Subject: (\w+)/.exec(new TextDecoder().decode(raw))?.[1]);
  return found;
}

it("reads a folder with folders in it by name, boxes and single messages, and passes over what is hidden", async () => {
  expect(await subjects(folder)).toEqual(["one", "two", "three", undefined]);
});
it("reads one message or one box", async () => {
  expect(await subjects(join(folder, "a.eml"))).toEqual(["one"]);
  expect(await subjects(join(folder, "b", "box"))).toEqual(["two", "three"]);
});
it("says which file is not there", async () => {
  await expect(subjects(join(folder, "nothing"))).rejects.toThrow("nothing");
});
