import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cutBase64Segments, joinBase64Segments } from "./base64-segments";

const wrapped = (content: Uint8Array, length: number, end: string) =>
  Buffer.from(content)
    .toString("base64")
    .replace(new RegExp(`.{${length}}(?=.)`, "g"), `$&${end}`);
const plan = Buffer.from(Array.from({ length: 40_000 }, (_, at) => (at * 31) % 251));

describe("cutting runs of base64", () => {
  it.each([
    ["76 characters a line", 76, "\r\n"],
    ["60 characters and line feeds", 60, "\n"],
  ])("cuts an attachment of %s", (_, length, end) => {
    const raw = Buffer.from(`Subject: x${end}${end}--b${end}${end}${wrapped(plan, length, end)}${end}--b--${end}`);
    const { rest, runs } = cutBase64Segments(raw);
    expect(runs.map(({ content }) => Buffer.from(content).equals(plan))).toEqual([true]);
    expect(rest.byteLength).toBeLessThan(100);
    expect(Buffer.from(joinBase64Segments(rest, runs)).equals(raw)).toBe(true);
  });

  it("gives the same content the same name in different messages", () => {
    const one = cutBase64Segments(Buffer.from(`a\r\n${wrapped(plan, 76, "\r\n")}\r\n`));
    const other = cutBase64Segments(Buffer.from(`another message\n${wrapped(plan, 72, "\n")}`));
    expect(one.runs[0]?.sha256).toEqual(other.runs[0]?.sha256);
  });

  it("leaves alone what would not come back the same", () => {
    const ragged = Buffer.from(`${wrapped(plan, 76, "\r\n")}`.replace(/A/g, "=")).toString();
    expect(cutBase64Segments(Buffer.from(ragged)).runs).toEqual([]);
    expect(cutBase64Segments(Buffer.from("word ".repeat(10_000))).runs).toEqual([]);
  });

  it("joins back to the same bytes, whatever they were", () => {
    const piece = fc.oneof(
      fc.uint8Array({ maxLength: 40 }),
      fc.constantFrom("\r\n", "\n", "--b\r\n", "text with spaces\r\n").map((text) => Buffer.from(text)),
      fc
        .tuple(fc.integer({ min: 12_000, max: 30_000 }), fc.constantFrom(60, 64, 76), fc.constantFrom("\r\n", "\n"))
        .map(([size, length, end]) => Buffer.from(wrapped(plan.subarray(0, size), length, end))),
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 8 }), (pieces) => {
        const raw = Buffer.concat(pieces);
        const { rest, runs } = cutBase64Segments(raw);
        expect(Buffer.from(joinBase64Segments(rest, runs)).equals(raw)).toBe(true);
      }),
      { numRuns: 60 },
    );
  });
});
