import { addressParser } from "postal-mime";
import { describe, expect, it } from "vitest";
import { fromOf, mailboxesOf } from "./mailboxes";

const read = (field: string) => mailboxesOf(addressParser(field)).map(({ name, address }) => `${name} <${address}>`);

describe("the mailboxes of a field", () => {
  it.each([
    ["Doe, John <john@x.example>", ["Doe, John <john@x.example>"]],
    ["Vane, Perpetua, Mrs <p@x.example>, q@x.example", ["Vane, Perpetua, Mrs <p@x.example>", " <q@x.example>"]],
    [
      'Doe, John (Sales) <john@x.example>, "Roe, Jane" <j@x.example>',
      ["Doe, John <john@x.example>", "Roe, Jane <j@x.example>"],
    ],
    ["<@a.example,@b.example:john@x.example>", [" <john@x.example>"]],
    ["John <@a.example:john@x.example>", ["John <john@x.example>"]],
    ["john@x.example (John Doe)", ["John Doe <john@x.example>"]],
    ["Friends: a@x.example, B <b@x.example>;, c@x.example", [" <a@x.example>", "B <b@x.example>", " <c@x.example>"]],
    ["undisclosed-recipients:;", []],
    ["Somebody", ["Somebody <>"]],
    ["Somebody, a@x.example", ["Somebody <>", " <a@x.example>"]],
    ["", []],
  ])("%s", (field, mailboxes) => expect(read(field)).toEqual(mailboxes));

  it("are a thousand at the most", () =>
    expect(read(Array.from({ length: 1_200 }, (_, at) => `a${at}@x.example`).join(","))).toHaveLength(1_000));
});

describe("whom a message is from", () => {
  it("is of several who wrote it the one who sent it", () => {
    const both = "Ann <ann@x.example>, Bea <bea@x.example>";
    expect(fromOf(both, "bea@x.example")?.name).toBe("Bea");
    expect(fromOf(both, "list@y.example")?.name).toBe("Ann");
    expect(fromOf(both, null)?.name).toBe("Ann");
  });
  it("is nobody where nobody is named, and a name alone where there is no address", () => {
    expect(fromOf(null, "a@x.example")).toBeNull();
    expect(fromOf("Ann", null)).toEqual({ name: "Ann", address: "" });
  });
});
