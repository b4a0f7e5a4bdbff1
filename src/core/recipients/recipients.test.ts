import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { EmailAddress, Mailbox } from "../kernel/email-address";
import { DAY, type Instant, instant, later } from "../kernel/instant";
import { completeRecipients, type KnownRecipient, type Looking, recipientIndex } from "./complete-recipients";
import { type KnownOfRecipients, recipientWarnings } from "./recipient-warnings";
import { typingDistance } from "./typing-distance";

const now = instant(Date.UTC(2026, 11, 2));
const at = (text: string) => text as EmailAddress;
const known = (
  name: string,
  address: string,
  times = 0,
  daysAgo = 0,
  more: Partial<KnownRecipient> = {},
): KnownRecipient => ({
  ...{ name, address: at(address), organisation: "", kind: "correspondent", times },
  lastAt: times === 0 ? null : later(now, -daysAgo * DAY),
  ...more,
});
const PEOPLE = [
  known("Leocadia Thrane", "casework@calder.example", 14, 3, { organisation: "Heritage Office", kind: "contact" }),
  known("Perpetua Vane", "perpetua.vane@vanehouse.example", 9, 100),
  known("Petra Rask", "petra@ottermoor.example", 0, 0, { kind: "colleague" }),
  known("Étienne Perle", "e.perle@perle.example", 2, 1),
  known("", "counter@halloranvalves.example", 5, 10),
];
const index = recipientIndex(PEOPLE, now);
const looks = (typed: string, more: Partial<Looking> = {}) =>
  completeRecipients(index, { typed, taken: [], together: new Map(), ...more }, 5).map(({ address }) => address);

describe("recipients", () => {
  it.each([
    ["leo", ["casework@calder.example"]],
    ["thrane leo", ["casework@calder.example"]],
    ["heritage", ["casework@calder.example"]],
    ["casework@cal", ["casework@calder.example"]],
    ["etienne", ["e.perle@perle.example"]],
    ["halloran", ["counter@halloranvalves.example"]],
    ["dia", []],
    ["leo vane", []],
    ["", []],
  ])("are found by the beginnings of their words: %s", (typed, addresses) => {
    expect(looks(typed)).toEqual(addresses);
  });

  it("come in the order of how often and how lately they were written with, and of who is there already", () => {
    expect(looks("pe")).toEqual([
      "perpetua.vane@vanehouse.example",
      "petra@ottermoor.example",
      "e.perle@perle.example",
    ]);
    const together = new Map([[at("e.perle@perle.example"), 3]]);
    expect(looks("pe", { together })[0]).toBe("e.perle@perle.example");
    expect(looks("", { together })).toEqual(["e.perle@perle.example"]);
    expect(looks("pe", { together, taken: [at("e.perle@perle.example")] })).not.toContain("e.perle@perle.example");
  });
});

it("recipients are the same as when each is looked at by itself", () => {
  const word = fc.constantFrom("anna", "anton", "ante", "berta", "bell", "carl");
  const person = fc.record({ name: fc.tuple(word, word), times: fc.nat(20), daysAgo: fc.nat(400), n: fc.nat(30) });
  fc.assert(
    fc.property(
      fc.array(person, { maxLength: 30 }),
      fc.constantFrom("an", "b", "anna be", "x"),
      fc.nat(30),
      (some, typed, n) => {
        const people = some.map(({ name, times, daysAgo, n: at }) =>
          known(name.join(" "), `p${at}@p.example`, times, daysAgo),
        );
        const together = new Map([[at(`p${n}@p.example`), 2]]);
        const found = completeRecipients(recipientIndex(people, now), { typed, taken: [], together }, 3);
        const all = completeRecipients(recipientIndex(people, now), { typed, taken: [], together }, 1_000);
        const fitting = new Set(
          people
            .filter((one, place) => people.findIndex(({ address }) => address === one.address) === place)
            .filter(({ name }) => typed.split(" ").every((part) => ` ${name}`.includes(` ${part}`)))
            .map(({ address }) => address),
        );
        expect(new Set(all.map(({ address }) => address))).toEqual(fitting);
        expect(found).toEqual(all.slice(0, 3));
      },
    ),
  );
});

describe("the distance of two texts as they are typed", () => {
  it.each([
    ["calder.example", "calder.exemple", 1],
    ["vane", "vnae", 1],
    ["vane", "vanne", 1],
    ["thrane", "trhanne", 2],
    ["vane", "quill", 3],
  ])("of %s and %s", (one, other, distance) => {
    expect(typingDistance(one, other, 2)).toBe(distance);
    expect(typingDistance(other, one, 2)).toBe(distance);
  });

  it("is none for the same, and at most one for each letter that was touched", () => {
    const word = fc.stringMatching(/^[a-c]{1,12}$/);
    fc.assert(
      fc.property(word, fc.nat(), fc.constantFrom("a", "x"), (text, place, letter) => {
        const cut = place % text.length;
        expect(typingDistance(text, text, 2)).toBe(0);
        expect(typingDistance(text, text.slice(0, cut) + letter + text.slice(cut), 2)).toBe(1);
        expect(typingDistance(text, text.slice(0, cut) + text.slice(cut + 1), 2)).toBe(1);
      }),
    );
  });
});

describe("before a message goes", () => {
  const box = (address: string, name = ""): Mailbox => ({ name, address: at(address) });
  const plain: KnownOfRecipients = {
    index,
    ours: new Set([at("office@ottermoor.example"), at("petra@ottermoor.example"), at("col@ottermoor.example")]),
    away: new Map([[at("petra@ottermoor.example"), { name: "Petra Rask", until: later(now, DAY) as Instant }]]),
    before: [],
    foreignCodes: [],
  };
  const warned = (
    to: readonly Mailbox[],
    text = "",
    more: Partial<KnownOfRecipients> = {},
    cc: readonly Mailbox[] = [],
  ) => recipientWarnings({ to, cc, bcc: [], text }, { ...plain, ...more });

  it("an address that looks like one that was written to is told", () => {
    expect(warned([box("casework@calder.exemple")])).toEqual([
      { kind: "looks-like", address: "casework@calder.exemple", like: "casework@calder.example", times: 14 },
    ]);
    expect(warned([box("casework@calder.example"), box("new@elsewhere.example")])).toEqual([]);
  });

  it("one from outside among colleagues is told, and a colleague who is away", () => {
    const us = [box("petra@ottermoor.example"), box("col@ottermoor.example")];
    expect(warned([...us, box("casework@calder.example")]).map(({ kind }) => kind)).toEqual(["outside", "away"]);
    expect(warned(us).map(({ kind }) => kind)).toEqual(["away"]);
    expect(warned([box("casework@calder.example"), box("e.perle@perle.example"), us[1] as Mailbox])).toEqual([]);
  });

  it("forty in To are told, and who was in copy before and is not any more", () => {
    const many = Array.from({ length: 40 }, (_, n) => box(`somebody-${n}@choir-${n}.example`));
    expect(warned(many)).toEqual([{ kind: "many", count: 40 }]);
    expect(warned(many.slice(1))).toEqual([]);
    const before = [box("a@one.example"), box("b@two.example"), box("c@three.example")];
    expect(warned(before.slice(0, 2), "", { before })).toEqual([{ kind: "left-out", mailboxes: [before[2]] }]);
    expect(warned(before.slice(0, 1), "", { before: before.slice(0, 2) })).toEqual([]);
  });

  it.each([
    ["Dear Perpetua,\nwe come.", ["greets-another"]],
    ["Dear Ms Vane,\nwe come.", ["greets-another"]],
    ["Dear Ms Thrane,\nwe come.", []],
    ["Dear all,\nwe come.", []],
    ["We come, dear friends, on Monday.", []],
  ])("a greeting of somebody else is told: %j", (text, kinds) => {
    expect(warned([box("casework@calder.example")], text).map(({ kind }) => kind)).toEqual(kinds);
  });

  it("a greeting of somebody whose name nobody knows is not; a code that does not belong there is", () => {
    expect(warned([box("counter@halloranvalves.example")], "Dear Hugh,\n")).toEqual([]);
    expect(warned([box("casework@calder.example")], "", { foreignCodes: ["P-26-031"] })).toEqual([
      { kind: "foreign-code", code: "P-26-031" },
    ]);
  });
});
