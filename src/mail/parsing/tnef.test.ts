import { onThisMachine } from "@tests/support/pace";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { rtfProperty, unicode, writeTnef } from "../../../tests/support/tnef-writer";
import { uncompressRtf } from "./compressed-rtf";
import { textOfRtf } from "./rtf-text";
import { openTnef } from "./tnef";

const drawing = Uint8Array.from({ length: 3_000 }, (_, at) => (at * 7) % 256);

describe("a container of files", () => {
  it("gives its text, its HTML and its files byte for byte", () => {
    const opened = openTnef(
      writeTnef(
        [
          unicode(0x1000, "The bellows leak."),
          { type: 0x102, id: 0x1013, value: Buffer.from("<p>The bellows leak.</p>") },
        ],
        [
          {
            name: "DRAWIN~1.PNG",
            content: drawing,
            properties: [unicode(0x3707, "drawing of the bellows.png"), unicode(0x370e, "IMAGE/PNG")],
          },
          { name: "list.txt", content: Buffer.from("one\r\ntwo\n") },
        ],
      ),
    );
    expect(opened).toMatchObject({ text: "The bellows leak.", html: "<p>The bellows leak.</p>", isWhole: true });
    expect(opened?.files.map(({ name, mimeType }) => [name, mimeType])).toEqual([
      ["drawing of the bellows.png", "image/png"],
      ["list.txt", null],
    ]);
    expect(Buffer.from(opened?.files[0]?.content ?? []).equals(drawing)).toBe(true);
    expect(Buffer.from(opened?.files[1]?.content ?? []).toString()).toBe("one\r\ntwo\n");
  });

  it("reads the text of its code page", () => {
    const codepage = { type: 3, id: 0x3fde, value: Buffer.from([0xe3, 0x04, 0, 0]) };
    const body = { type: 0x1e, id: 0x1000, value: Buffer.from([0xcf, 0xf0, 0xe8, 0xe2, 0xe5, 0xf2, 0]) };
    expect(openTnef(writeTnef([codepage, body], []))?.text).toBe("Привет");
  });

  it("reads a body that is RTF alone, and HTML that was put into RTF", () => {
    const plain =
      "{\\rtf1\\ansi\\ansicpg1252{\\fonttbl{\\f0 Swiss;}}\\f0 Gr\\'fc\\'dfe,\\par the bellows \\{leak\\} \\u8212?now.\\par}";
    expect(openTnef(writeTnef([rtfProperty(plain)], []))?.text).toBe("Grüße,\nthe bellows {leak} —now.");
    const html =
      "{\\rtf1\\ansi\\ansicpg1252\\fromhtml1{\\*\\htmltag64 <p>}\\htmlrtf {\\b\\htmlrtf0 The bellows{\\*\\htmltag84 <br>}\\htmlrtf \\line\\htmlrtf0 leak.{\\*\\htmltag72 </p>}\\htmlrtf }\\htmlrtf0 }";
    expect(openTnef(writeTnef([rtfProperty(html)], []))?.html).toBe("<p>The bellows<br>leak.</p>");
  });

  it("gives the files of a message within", () => {
    const inner = writeTnef([unicode(0x1000, "See the list.")], [{ name: "list.txt", content: Buffer.from("one") }]);
    const object = Buffer.concat([Buffer.from("0703020000000000c000000000000046", "hex"), inner]);
    const outer = writeTnef(
      [],
      [{ name: "letter", content: Buffer.alloc(0), properties: [{ type: 0x0d, id: 0x3701, value: object }] }],
    );
    expect(openTnef(outer)?.files.map(({ name, content }) => [name, Buffer.from(content).toString()])).toEqual([
      ["list.txt", "one"],
      ["letter.txt", "See the list."],
    ]);
  });

  it("is none when it does not begin like one", () => {
    expect(openTnef(Buffer.from("%PDF-1.7"))).toBeNull();
  });

  it("gives what stands before the place where it was cut off", () => {
    const whole = writeTnef(
      [unicode(0x1000, "The bellows leak.")],
      [
        { name: "a.txt", content: Buffer.from("one") },
        { name: "b.txt", content: drawing },
      ],
    );
    for (let length = 6; length < whole.length; length += 1) {
      const opened = openTnef(whole.subarray(0, length));
      expect(opened?.files.every(({ name }) => name === "a.txt" || name === "b.txt")).toBe(true);
      expect(opened?.files.length).toBeLessThanOrEqual(2);
    }
    expect(openTnef(whole.subarray(0, whole.length - 200))).toMatchObject({
      text: "The bellows leak.",
      isWhole: false,
    });
  });

  it("never throws and never takes long, whatever stands in it", () => {
    const whole = writeTnef(
      [unicode(0x1000, "The bellows leak."), rtfProperty("{\\rtf1 a}")],
      [{ name: "a.txt", content: drawing }],
    );
    const changes = fc.array(fc.tuple(fc.nat(whole.length - 1), fc.nat(255)), { minLength: 1, maxLength: 12 });
    const slowest = onThisMachine(1_000);
    fc.assert(
      fc.property(changes, (places) => {
        const changed = Buffer.from(whole);
        for (const [at, byte] of places) changed[at] = byte;
        const started = performance.now();
        openTnef(changed);
        expect(performance.now() - started).toBeLessThan(slowest);
      }),
      { numRuns: 500 },
    );
  });
});

describe("compressed RTF", () => {
  // The first example of [MS-OXRTFCP] section 4.1.1.
  const example = Buffer.from(
    "2d0000002b0000004c5a4675f1c5c7a703000a007263706731323542320af32068656c090020627705b06c647d0a800fa0",
    "hex",
  );

  it("is expanded as its definition shows", () => {
    expect(uncompressRtf(example).toString("latin1")).toBe("{\\rtf1\\ansi\\ansicpg1252\\pard hello world}\r\n");
  });

  it("gives what stands before the damage", () => {
    for (let length = 0; length < example.length; length += 1) {
      const text = uncompressRtf(example.subarray(0, length)).toString("latin1");
      expect("{\\rtf1\\ansi\\ansicpg1252\\pard hello world}\r\n".startsWith(text)).toBe(true);
    }
  });

  it("is read whatever stands in it", () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom("{", "}", "\\par ", "\\'", "\\u", "9", "\\*", "\\htmlrtf", "a", "\\")),
        (pieces) => {
          expect(typeof textOfRtf(Buffer.from(`{\\rtf1 ${pieces.join("")}`)).text).toBe("string");
        },
      ),
    );
  });
});
