import { inEnglish } from "@tests/support/english";
import { describe, expect, it } from "vitest";
import type { EmailAddress } from "../kernel/email-address";
import { readContact } from "./contact";

const draft = {
  name: "Perpetua Vane",
  organisation: "",
  phone: "",
  note: "",
  addresses: "vane@vanehouse.example",
  categoryIds: [],
};

describe("a contact", () => {
  it("is read with addresses in whatever way they are separated, each once", () => {
    const read = readContact(
      { ...draft, name: " Perpetua Vane ", addresses: "Vane@Vanehouse.example; p@x.example\nvane@vanehouse.example," },
      [],
    );
    expect(inEnglish(read)).toMatchObject({
      ok: true,
      value: { name: "Perpetua Vane", addresses: ["vane@vanehouse.example", "p@x.example"] },
    });
  });

  it.each([
    [{ name: "" }, "name", "Say what they are called."],
    [{ name: "x".repeat(121) }, "name", "At most 120 characters."],
    [{ phone: "1".repeat(41) }, "phone", "At most 40 characters."],
    [{ addresses: "" }, "addresses", "Enter at least one address."],
    [{ addresses: "vane at vanehouse" }, "addresses", "“vane” is not an address."],
    [
      { addresses: Array.from({ length: 21 }, (_, at) => `a${at}@x.example`).join(" ") },
      "addresses",
      "At most 20 addresses.",
    ],
    [{ addresses: "taken@x.example" }, "addresses", "taken@x.example is Hugo Lund’s already."],
  ])("with %j is refused beside its field", (given, field, problem) => {
    const others = [{ name: "Hugo Lund", addresses: ["taken@x.example" as EmailAddress] }];
    expect(inEnglish(readContact({ ...draft, ...given }, others))).toEqual({ ok: false, error: { [field]: problem } });
  });
});
