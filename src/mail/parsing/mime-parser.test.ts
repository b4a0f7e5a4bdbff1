import { randomFrom } from "@tests/support/random";
import { describe, expect, it } from "vitest";
import { bytesOf } from "./message-parts";
import { parseMime } from "./mime-parser";

const latin1 = (text: string) => Buffer.from(text, "latin1");
const base64 = (content: Buffer) => content.toString("base64").replace(/.{76}(?=.)/g, "$&\r\n");

// As RFC 2045 6.7 asks for binary content: every byte but plain letters is written as its number.
function quotedPrintable(content: Buffer): string {
  const written = [...content].map((byte) =>
    (byte > 32 && byte < 127 && byte !== 0x3d) || byte === 32
      ? String.fromCharCode(byte)
      : `=${byte.toString(16).toUpperCase().padStart(2, "0")}`,
  );
  let [line, out] = ["", ""];
  for (const one of written) {
    if (line.length + one.length > 72) {
      out += `${line}=\r\n`;
      line = "";
    }
    line += one;
  }
  return `${out}${line.replace(/ $/, "=20")}`;
}

const message = (parts: readonly { readonly head: string; readonly body: Buffer }[]) =>
  Buffer.concat([
    latin1("From: a@x.example\r\nMIME-Version: 1.0\r\nContent-Type: multipart/mixed; boundary=cut\r\n\r\nPreamble\r\n"),
    ...parts.flatMap(({ head, body }) => [latin1(`--cut\r\n${head}\r\n\r\n`), body, latin1("\r\n")]),
    latin1("--cut--\r\nEpilogue\r\n"),
  ]);
const attached = (encoding: string, type = "application/octet-stream") =>
  `Content-Type: ${type}\r\nContent-Disposition: attachment; filename=a\r\nContent-Transfer-Encoding: ${encoding}`;

describe("an attachment", () => {
  it("is byte for byte what was sent, however it ends its lines and whatever it was sent as", async () => {
    const random = randomFrom(2_026n);
    const pieces = [
      "\r\n",
      "\n",
      "\r",
      "\n\n",
      "\r\r\n",
      "-- ",
      "--cut",
      "a",
      " ",
      "\t",
      "=",
      "é",
      "\x00",
      "\xff",
      ".\r\n",
    ];
    for (let round = 0; round < 300; round += 1) {
      const text = Array.from({ length: random(40) }, () => pieces[random(pieces.length)]).join("");
      const content = latin1(text);
      // A line that is the boundary itself ends the part by definition.
      const plain = latin1(text.replace(/--cut/g, "--put"));
      const type = ["application/octet-stream", "text/calendar", "text/csv", "message/rfc822", "text/plain"][random(5)];
      const { email } = await parseMime(
        message([
          { head: attached("8bit", type), body: plain },
          { head: attached("base64", type), body: latin1(base64(content)) },
          { head: attached("quoted-printable", type), body: latin1(quotedPrintable(content)) },
        ]),
      );
      expect(email.attachments.map((part) => Buffer.from(bytesOf(part)).toString("latin1"))).toEqual([
        plain.toString("latin1"),
        content.toString("latin1"),
        content.toString("latin1"),
      ]);
    }
  });

  it("of many megabytes is byte for byte what was sent as well", async () => {
    const random = randomFrom(7n);
    const content = Buffer.from(Array.from({ length: 700_000 }, () => random(256)));
    const { email } = await parseMime(message([{ head: attached("base64"), body: latin1(base64(content)) }]));
    expect(Buffer.compare(Buffer.from(bytesOf(email.attachments[0] as never)), content)).toBe(0);
  });

  it("as the whole of a message is what follows its header", async () => {
    const raw = latin1("From: a@x.example\r\nContent-Type: application/pdf\r\n\r\n%PDF\r\n\n%%EOF\r\n");
    const { email } = await parseMime(raw);
    expect(Buffer.from(bytesOf(email.attachments[0] as never)).toString()).toBe("%PDF\r\n\n%%EOF\r\n");
  });

  it.each([
    ["in several pieces of base64", "base64", "YQ==\r\nYg==", "ab"],
    ["with what base64 has not", "base64", "YW!Jj\r\n ZA", "abcd".slice(0, 4)],
    ["with soft breaks that got spaces behind them", "quoted-printable", "a= \t\r\nb=\r\nc", "abc"],
    ["with signs that are no codes", "quoted-printable", "a=zz=4", "a=zz=4"],
    ["in uuencode", "x-uuencode", "begin 644 a.txt\r\n#86)C\r\n`\r\nend", "abc"],
    ["that says uuencode and is not", "x-uuencode", "abc", "abc"],
    ["in an encoding that nobody knows", "x-none", "abc", "abc"],
  ])("%s is decoded", async (_, encoding, sent, content) => {
    const { email } = await parseMime(message([{ head: attached(encoding), body: latin1(sent) }]));
    expect(Buffer.from(bytesOf(email.attachments[0] as never)).toString("latin1")).toBe(content);
  });
});

describe("text", () => {
  const texts = async (head: string, body: string) => {
    const raw = latin1(`From: a@x.example\r\n${head}\r\n\r\n${body}`);
    const { email, lacksParts } = await parseMime(raw);
    return { text: email.text, lacksParts };
  };

  it("that flows is joined without the marks of what is quoted", async () => {
    const { text } = await texts(
      "Content-Type: text/plain; format=flowed; delsp=no",
      "Yes, \r\ngladly.\r\n\r\n> Could you \r\n> come?\r\n>> Or \r\n>> not?",
    );
    expect(text).toBe("Yes, gladly.\n\n> Could you come?\n>> Or not?");
  });

  it("whose label lies is read all the same", async () => {
    const head = "Content-Type: text/plain; charset=us-ascii";
    expect((await texts(head, "Gr\xc3\xbc\xc3\x9fe")).text).toBe("Grüße");
    expect((await texts(head, "Gr\xfc\xdfe \x84so\x93")).text).toBe("Grüße „so“");
  });

  it("in several alternatives is the last of them that says something", async () => {
    const parts = (...some: readonly string[]) => some.map((part) => `--cut\r\n${part}\r\n`).join("");
    const [plain, html] = ["Content-Type: text/plain\r\n\r\n", "Content-Type: text/html\r\n\r\n"];
    const head = "Content-Type: multipart/alternative; boundary=cut";
    expect((await texts(head, `${parts(`${plain}Poor`, `${plain}Rich`, `${html}<p>Rich`)}--cut--`)).text).toBe("Rich");
    expect((await texts(head, `${parts(`${plain}All`, plain)}--cut--`)).text?.trim()).toBe("All");
    const calendar = "Content-Type: text/calendar\r\n\r\nBEGIN:VCALENDAR";
    expect((await texts(head, `${parts(`${plain}Come`, calendar)}--cut--`)).text).toBe("Come");
    const mixed = `Content-Type: multipart/mixed; boundary=in\r\n\r\n--in\r\n${plain}One\r\n--in\r\n${plain}Two\r\n--in--`;
    expect((await texts(head, `${parts(mixed)}--cut--`)).text).toBe("One\nTwo");
  });

  it.each([
    ["Content-Type: multipart/mixed", "What I wrote."],
    ["Content-Type: multipart/mixed; boundary=nowhere", "What I wrote."],
  ])("of parts that are not there is kept, and it is said: %s", async (head, body) =>
    expect(await texts(head, body)).toEqual({ text: body, lacksParts: true }),
  );
});
