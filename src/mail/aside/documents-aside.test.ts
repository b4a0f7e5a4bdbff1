import { aWordDocument } from "@tests/support/a-word-document";
import { afterAll, describe, expect, it } from "vitest";
import { hasText } from "../parsing/document-kind";
import { workAside } from "./aside";

const aside = workAside();
afterAll(() => aside.close());

const pdf = () =>
  aside.pdf({
    subject: "Größe der Pfeifen",
    about: "P-26-012",
    made: new Date(0),
    parts: [{ kind: "message", head: [["From", "Vane"]], text: "Sixteen foot, in oak.", attachments: [] }],
  });
const read = (name: string, contentType: string, content: Uint8Array | string) =>
  aside.documentText({ name, contentType, content: Buffer.from(content) });

describe("the text of a file", () => {
  it("is read out of PDF, Word documents, HTML and plain text, whatever their sender called them", async () => {
    expect(await read("sizes.pdf", "application/pdf", await pdf())).toMatch(
      /Größe der Pfeifen[\s\S]*Sixteen foot, in oak/,
    );
    expect(await read("SIZES.PDF", "application/octet-stream", await pdf())).toContain("in oak");
    expect(await read("offer.docx", "application/octet-stream", await aWordDocument("Twelve hides"))).toContain(
      "Twelve hides",
    );
    expect(await read("page.html", "text/html", "<p>Two <b>ranks</b></p><script>no()</script>")).toBe("Two ranks");
    expect(await read("list.csv", "text/csv", "pipe,length\nC,8")).toContain("pipe,length");
  });

  it("is none for other kinds, nor where a file is not what it says it is", async () => {
    expect(hasText({ name: "photo.jpg", contentType: "image/jpeg" })).toBe(false);
    expect(await read("photo.jpg", "image/jpeg", "x")).toBeNull();
    expect(await read("broken.pdf", "application/pdf", "%PDF-1.7 and nothing more")).toBeNull();
    expect(await read("broken.docx", "application/octet-stream", "PK, or not")).toBeNull();
    expect(await read("next.txt", "text/plain", "still read")).toBe("still read");
  });

  it("is not waited for for ever, and the next file is read all the same", async () => {
    const file = { name: "a.pdf", contentType: "application/pdf", content: await pdf() };
    expect(await aside.documentText(file, 1)).toBeNull();
    expect(await aside.documentText(file)).toContain("in oak");
  });
});
