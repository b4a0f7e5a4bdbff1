import iconv from "iconv-lite";
import { describe, expect, it } from "vitest";
import { decodeText, readableHeaderLine } from "./decode-text";

const utf8 = (text: string) => Buffer.from(text, "utf8");
const bytes = (...values: readonly number[]) => Uint8Array.from(values);

describe("text of a part", () => {
  it.each([
    "",
    "us-ascii",
    "unknown-8bit",
    "x-unknown",
    "iso-8859-1",
    "windows-1252",
    "utf-8",
    "no-such-charset",
    "8bit",
  ])("that is valid UTF-8 is UTF-8, though it says %j", (label) =>
    expect(decodeText(utf8("Grüße – “Orgel” 日本 🎹"), label)).toBe("Grüße – “Orgel” 日本 🎹"),
  );

  it.each(["", "us-ascii", "unknown-8bit", "no-such-charset", "utf-8", "iso-8859-1"])(
    "that is not is windows-1252 where it says %j",
    (label) => expect(decodeText(bytes(0x93, 0x4d, 0xf6, 0x62, 0x94, 0x20, 0x80), label)).toBe("“Möb” €"),
  );

  it.each([
    ["iso-8859-2", "Žluťoučký kůň"],
    ["koi8-r", "Орган"],
    ["shift_jis", "オルガン"],
    ["euc-kr", "오르간"],
    ["big5", "風琴"],
    ["gb2312", "风琴"],
    ["cp437", "Möbel ░"],
    ["ibm850", "Größe"],
    ["utf-7", "Größe – 1"],
    ["windows-1251", "Орган"],
    ["macintosh", "Größe"],
  ])("in %s is read as that", (label, text) =>
    expect(decodeText(iconv.encode(text, label.replace("ibm", "cp")), label)).toBe(text),
  );

  it("in ISO-2022-JP is read by its escapes, though every byte is ASCII", () => {
    const sent = Buffer.from("1b2442255e25431b2842", "hex");
    expect(decodeText(sent, "ISO-2022-JP")).toBe("マッ".normalize("NFC"));
  });

  it.each(["ISO-2022-KR", "csISO2022KR"])("in %s is read between its shifts", (label) => {
    const korean = Buffer.from([...iconv.encode("오르간", "euc-kr")].map((byte) => byte & 0x7f));
    const sent = Buffer.concat([Buffer.from("\x1b$)C\r\nBells: \x0e"), korean, Buffer.from("\x0f, 14:00\r\n")]);
    expect(decodeText(sent, label)).toBe("\r\nBells: 오르간, 14:00\r\n");
  });

  it("put together of several kinds is read byte by byte, without a character that stands for none", () => {
    const mixed = Buffer.concat([
      utf8("Grüße, "),
      bytes(0x4d, 0xf6, 0x62, 0x65, 0x6c),
      utf8(" – 🎹"),
      bytes(0xe2, 0x80),
    ]);
    expect(decodeText(mixed, "utf-8")).toBe("Grüße, Möbel – 🎹â€");
    expect(decodeText(mixed, "")).not.toContain("\ufffd");
  });

  it("that was cut off in a Chinese label stays Chinese", () => {
    expect(decodeText(iconv.encode("联通", "gb2312"), "gb2312")).toBe("联通");
  });
});

describe("a line of a header", () => {
  const read = (line: Uint8Array | string) => Buffer.from(readableHeaderLine(Buffer.from(line))).toString();
  it("with bytes that are no UTF-8 is read as windows-1252, with those that are as they are", () => {
    expect(read(Buffer.from("Subject: M\xf6bel", "latin1"))).toBe("Subject: Möbel");
    expect(read("Subject: Möbel")).toBe("Subject: Möbel");
  });
  it("has words of unknown or old charsets written anew, others as they are", () => {
    expect(read("Subject: =?unknown-8bit?Q?M=C3=B6bel?=")).toBe(
      `Subject: =?utf-8?B?${utf8("Möbel").toString("base64")}?=`,
    );
    expect(read("Subject: =?cp850?B?R3KU4WU=?=")).toBe(`Subject: =?utf-8?B?${utf8("Größe").toString("base64")}?=`);
    expect(read("Subject: =?us-ascii?Q?a_b?=")).toBe(`Subject: =?utf-8?B?${utf8("a b").toString("base64")}?=`);
    for (const word of ["=?utf-8?Q?M=C3=B6?=", "=?iso-8859-15?Q?=A4?=", "=?nobody-knows?Q?=A4?="])
      expect(read(`Subject: ${word}`)).toBe(`Subject: ${word}`);
  });
});
