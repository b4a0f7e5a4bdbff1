import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { readMbox } from "./mbox";

async function read(text: string, cuts: readonly number[] = []): Promise<string[]> {
  const bytes = new TextEncoder().encode(text);
  const edges = [0, ...cuts.filter((cut) => cut < bytes.length).toSorted((a, b) => a - b), bytes.length];
  async function* chunks() {
    for (let at = 1; at < edges.length; at += 1) yield bytes.subarray(edges[at - 1], edges[at]);
  }
  const messages: string[] = [];
  for await (const message of readMbox(chunks())) messages.push(new TextDecoder().decode(message));
  return messages;
}

const BOX =
  "From a@x Tue Nov 24\nSubject: one\n\nHello\n>From the hall\n\nFrom b@x Tue Nov 24\nSubject: two\n\n>>From deep\nFrom here it goes on\n";

describe("an mbox", () => {
  it("gives its messages with the quoting taken off", async () => {
    expect(await read(BOX)).toEqual([
      "Subject: one\n\nHello\nFrom the hall\n",
      "Subject: two\n\n>From deep\nFrom here it goes on\n",
    ]);
  });
  it("knows a separator without its blank line by its date and the header below it", async () => {
    const box =
      "From a@x Tue Nov 24 10:00:00 2026\nSubject: one\n\nHello\nFrom b@x Tue Nov 24 11:00:00 2026\nSubject: two\n\nFrom c@x Tue Nov 24 12:00:00 2026\nis what stands in the box.\n";
    expect(await read(box)).toEqual(["Subject: one\n\nHello\n", "Subject: two\n", "is what stands in the box.\n"]);
    const prose =
      "From a@x Tue Nov 24 10:00:00 2026\nSubject: one\n\nHello\nFrom b@x Tue Nov 24 11:00:00 2026\nis how it began.\n";
    expect(await read(prose)).toEqual(["Subject: one\n\nHello\nFrom b@x Tue Nov 24 11:00:00 2026\nis how it began.\n"]);
  });
  it("gives the same however it is cut into chunks", async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(fc.nat(BOX.length), { maxLength: 8 }), async (cuts) => {
        expect(await read(BOX, cuts)).toEqual(await read(BOX));
      }),
    );
  });
  it("knows lines that end as on Windows", async () => {
    expect(await read("From a\r\nSubject: x\r\n\r\nbody\r\n\r\nFrom b\r\n\r\n")).toEqual([
      "Subject: x\r\n\r\nbody\r\n",
      "",
    ]);
  });
  it("passes over what comes before the first separator", async () =>
    expect(await read("nothing\nhere\n")).toEqual([]));
});
