import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type EmailAddress, printMailboxes, readEmailAddress, readMailboxes } from "./email-address";

describe("an address", () => {
  it.each([
    [" Office@Ottermoor.Example ", "office@ottermoor.example"],
    ["a.b+c@x.example", "a.b+c@x.example"],
    ["grüße@köln.example", "grüße@köln.example"],
    ["office", null],
    ["@x.example", null],
    ["a@b", null],
    ["a b@x.example", null],
    ["a@x..example", null],
    [".a@x.example", null],
    ["a..b@x.example", null],
    ["a@-x.example", null],
    [`${"a".repeat(65)}@x.example`, null],
  ])("is read from %j", (text, address) => expect(readEmailAddress(text)).toBe(address));
});

describe("recipients", () => {
  it("are read with their names, and what is no address is told apart", () => {
    expect(readMailboxes('"Vane, P." <p@x.example>; nobody, q@x.example\nP@X.example')).toEqual({
      mailboxes: [
        { name: "Vane, P.", address: "p@x.example" },
        { name: "", address: "q@x.example" },
      ],
      malformed: ["nobody"],
    });
  });

  it("are read back as they were printed", () => {
    const name = fc.stringMatching(/^[\w ,;"\\<>.-]{0,20}$/).map((text) => text.trim());
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.tuple(name, fc.integer({ min: 0, max: 999 })), { selector: ([, at]) => at }),
        (people) => {
          const mailboxes = people.map(([called, at]) => ({
            name: called,
            address: `p${at}@x.example` as EmailAddress,
          }));
          expect(readMailboxes(printMailboxes(mailboxes))).toEqual({ mailboxes, malformed: [] });
        },
      ),
    );
  });
});
