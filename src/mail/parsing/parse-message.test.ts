import { aBounce, aMessage } from "@tests/support/mail";
import { describe, expect, it } from "vitest";
import { parseMessage } from "./parse-message";
import { safeFileName } from "./safe-file-name";

const bytes = (...lines: string[]) => new TextEncoder().encode(lines.join("\r\n"));
const parsed = async (raw: Uint8Array, sender: string | null = "a@x.example") =>
  (await parseMessage(raw, sender)).message;

describe("a message", () => {
  it("is understood field by field", async () => {
    const message = await parsed(
      aMessage({
        references: "<a@x> <b@x>",
        inReplyTo: "b@x",
        headers: { Cc: "Col <col@x.example>", "Reply-To": "choir@x.example" },
      }),
    );
    expect(message).toMatchObject({
      messageId: "m1@vanehouse.example",
      date: Date.UTC(2026, 10, 24, 8, 30),
      from: { name: "Perpetua Vane", address: "perpetua.vane@vanehouse.example" },
      to: [{ name: "", address: "office@ottermoor.example" }],
      cc: [{ name: "Col", address: "col@x.example" }],
      replyTo: [{ name: "", address: "choir@x.example" }],
      subject: "Middle C sticks",
      inReplyTo: ["b@x"],
      references: ["a@x", "b@x"],
      warnings: [],
    });
    expect(message.text.trim()).toBe("Would a Tuesday be possible?");
  });

  it("is read in the charset and encoding it is written in", async () => {
    const message = await parsed(
      bytes(
        "From: =?utf-8?Q?In=C3=A9s?= <i@x.example>",
        "Subject: =?utf-8?B?R3LDvMOfZQ==?=",
        "Content-Type: text/plain; charset=iso-8859-1",
        "Content-Transfer-Encoding: quoted-printable",
        "",
        "M=F6bel",
      ),
    );
    expect([message.from?.name, message.subject, message.text.trim()]).toEqual(["Inés", "Grüße", "Möbel"]);
  });

  it("in HTML alone has its text from there", async () => {
    const message = await parsed(
      bytes(
        "From: a@x.example",
        "Content-Type: text/html",
        "",
        "<p>One</p><blockquote>old</blockquote><img src='x.png'>",
      ),
    );
    expect(message.text).toContain("One");
    expect(message.ownText).toBe("One");
    expect(message.html).toContain("<p>One</p>");
  });

  it("lists what it carries, with safe names and the same bytes", async () => {
    const raw = bytes(
      "From: a@x.example",
      "Content-Type: multipart/mixed; boundary=b",
      "",
      "--b",
      "",
      "text",
      "--b",
      'Content-Type: application/pdf; name="../../etc/plan.pdf"',
      'Content-Disposition: attachment; filename="../../etc/plan.pdf"',
      "Content-Transfer-Encoding: base64",
      "",
      "UERG",
      "--b--",
      "",
    );
    const { message, contents } = await parseMessage(raw);
    expect(message.attachments).toMatchObject([
      { index: 0, fileName: "plan.pdf", contentType: "application/pdf", size: 3, inline: false },
    ]);
    expect(new TextDecoder().decode(contents[0])).toBe("PDF");
  });

  it("that bounced names who could not be reached", async () => {
    const message = await parsed(aBounce({ of: "m@x", recipient: "sexton@oldwyke.example" }), "");
    expect(message.classification.kind).toBe("bounce");
    expect(message.failedRecipients.map(({ address }) => address)).toEqual(["sexton@oldwyke.example"]);
  });

  it("that forwards another is not taken for the other", async () => {
    const raw = bytes(
      "From: a@x.example",
      "Subject: outer",
      "Content-Type: multipart/mixed; boundary=b",
      "",
      "--b",
      "",
      "See below.",
      "--b",
      "Content-Type: message/rfc822",
      "",
      "From: c@x.example",
      "Subject: inner",
      "",
      "Inner text",
      "--b--",
      "",
    );
    const message = await parsed(raw);
    expect([message.subject, message.ownText, message.attachments[0]?.contentType]).toEqual([
      "outer",
      "See below.",
      "message/rfc822",
    ]);
  });
});

describe("odd mail is kept and flagged", () => {
  it.each<[string, Uint8Array, string]>([
    ["nothing at all", new Uint8Array(), "no From"],
    ["no date", bytes("From: a@x.example", "Message-ID: <a@x>", "", "x"), "no Date"],
    ["a date that is none", bytes("From: a@x.example", "Date: yesterday", "", "x"), "Date is unreadable"],
    ["no id", aMessage({ id: "" }), "no usable Message-ID"],
    [
      "headers without end",
      bytes(...Array.from({ length: 40_000 }, (_, at) => `X-${at}: ${"x".repeat(40)}`), "", "x"),
      "read in part",
    ],
    [
      "nesting without end",
      bytes(
        "From: a@x.example",
        ...Array.from({ length: 200 }, (_, at) => `Content-Type: multipart/mixed; boundary=b${at}\r\n\r\n--b${at}`),
      ),
      "shown raw",
    ],
  ])("%s", async (_, raw, warning) => {
    const message = await parsed(raw);
    expect(message.warnings.join("; ")).toContain(warning);
  });

  it("bytes of any kind never throw", async () => {
    const noise = Uint8Array.from({ length: 5_000 }, (_, at) => (at * 7_919) % 256);
    await expect(parsed(noise)).resolves.toMatchObject({ classification: { kind: "person" } });
  });
});

it.each([
  ["plan.pdf", "plan.pdf"],
  ["..\\..\\plan.pdf", "plan.pdf"],
  ["/etc/passwd", "passwd"],
  ["invoice\u202Efdp.exe", "invoicefdp.exe"],
  ["a\u0000b\n.txt", "ab .txt"],
  ["...", "unnamed"],
  ['a<b>:"|?*.txt', "ab.txt"],
  [`${"x".repeat(300)}.pdf`, `${"x".repeat(196)}.pdf`],
])("the file name %j is safe as %j", (name, safe) => expect(safeFileName(name)).toBe(safe));
