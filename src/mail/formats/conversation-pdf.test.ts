import { buffer } from "node:stream/consumers";
import { filesInZip } from "@tests/support/zips";
import { describe, expect, it } from "vitest";
import { conversationPdf, type PrintedConversation } from "./conversation-pdf";
import { zipStream } from "./zip";

const made = new Date("2026-11-24T09:00:00Z");
const printed = (given: Partial<PrintedConversation> = {}): PrintedConversation => ({
  subject: "Größe Ωμέγα Ключ",
  about: "P-26-012 Sorrel case",
  made,
  parts: [{ kind: "message", head: [["From", "Vane <vane@x.example>"]], text: "May we?", attachments: ["a.pdf"] }],
  ...given,
});
const pagesOf = (pdf: Uint8Array) =>
  Buffer.from(pdf)
    .toString("latin1")
    .match(/\/Type \/Page\b/g)?.length ?? 0;

describe("a printed conversation", () => {
  it("is a PDF that says when its newest part was, the same each time", async () => {
    const pdf = await conversationPdf(printed());
    const text = Buffer.from(pdf).toString("latin1");
    expect(text.slice(0, 5)).toBe("%PDF-");
    expect(text).toContain("(D:20261124090000Z)");
    expect(pagesOf(pdf)).toBe(1);
    expect(Buffer.compare(Buffer.from(pdf), Buffer.from(await conversationPdf(printed())))).toBe(0);
  });

  it("goes on over as many pages as it takes, and numbers none too many", async () => {
    const text = Array.from({ length: 200 }, (_, at) => `Line ${at}`).join("\n");
    const part = { kind: "note" as const, head: [], text, attachments: [] };
    const pages = pagesOf(await conversationPdf(printed({ parts: [part, part] })));
    expect(pages).toBeGreaterThan(4);
    expect(pages).toBeLessThan(12);
  });

  it.each(["x".repeat(60_000), "W".repeat(400_000), "\u{1f600}".repeat(30_000)])(
    "breaks a word that has no end before it lays it out",
    { timeout: 20_000 },
    async (word) => {
      const part = { kind: "message" as const, head: [["To", word]] as const, text: word, attachments: [word] };
      expect(pagesOf(await conversationPdf(printed({ subject: word, about: word, parts: [part] })))).toBeGreaterThan(4);
    },
  );

  it("takes whatever a message may hold", async () => {
    const text = `tab\there\r\nbell\u0007 NUL\0 ${"x".repeat(3_000)} \u202Ertl 漢字 😀`;
    const part = { kind: "message" as const, head: [["Subject", "\u0001"]] as const, text, attachments: [] };
    expect(pagesOf(await conversationPdf(printed({ subject: "", parts: [part] })))).toBeGreaterThan(0);
  });
});

describe("a zip that is written as it is read", () => {
  const entry = (name: string, load: () => Promise<Uint8Array | AsyncIterable<Uint8Array>>) => ({
    folder: "",
    name,
    load,
  });

  it("makes each file when its turn comes, whole or in pieces", async () => {
    const order: string[] = [];
    const whole = entry("a.txt", async () => {
      order.push("a");
      return Buffer.from("whole");
    });
    const inPieces = { ...entry("b.txt", async () => pieces()), folder: "in/" };
    async function* pieces() {
      order.push("b");
      yield Buffer.from("in ");
      yield Buffer.from("pieces");
    }
    const last = entry("c.txt", async () => Buffer.from(order.join()));
    const files = await filesInZip(await buffer(zipStream([whole, inPieces, last], made)));
    expect([...files].map(([name, content]) => [name, content.toString()])).toEqual([
      ["a.txt", "whole"],
      ["in/b.txt", "in pieces"],
      ["c.txt", "a,b"],
    ]);
  });

  it("breaks off where a file cannot be made", async () => {
    const gone = entry("a.txt", () => Promise.reject(new Error("it went away")));
    await expect(buffer(zipStream([gone], made))).rejects.toThrow("it went away");
  });
});
