import { aRuledMessage, leftAs } from "@tests/support/ruled-messages";
import { describe, expect, it } from "vitest";
import type { EmailAddress } from "../kernel/email-address";
import { type CategoryId, type MemberId, type RecordId, trustedId } from "../kernel/ids";
import { examineCondition } from "../rules/examine-condition";
import { testedMessage } from "../rules/test-message";
import type { LearnedMessage } from "./candidate-tests";
import { learnActions } from "./learn-actions";
import { learnConditions } from "./learn-condition";
import { both, countOf, countOfBoth, either, placeSet, placesOf, without } from "./place-set";

const message = (from: string, subject: string, more: Partial<LearnedMessage> = {}): LearnedMessage => ({
  from: from as EmailAddress,
  to: ["office@ottermoor.example" as EmailAddress],
  cc: [],
  list: null,
  subject,
  ownText: "",
  fileNames: [],
  ...more,
});
const TOPICS = ["bellows", "a swell box", "the choir", "reeds", "the keys", "a visit", "pipes of tin", "the stool"];
const topic = (at: number) => `${TOPICS[at % TOPICS.length]} ${at % 3 === 0 ? "again" : "soon"}`;
const many = (count: number, make: (at: number) => LearnedMessage) =>
  Array.from({ length: count }, (_, at) => make(at));
/** Letters of fifty people about all sorts of things. */
const ordinary = many(400, (at) => message(`p${at % 50}@house${at % 20}.example`, `About ${topic(at)}`));

const first = (examples: readonly LearnedMessage[], others: readonly LearnedMessage[], alike: number[] | null = null) =>
  learnConditions({ examples, others, treatedAlike: alike })[0];

describe("what some letters have in common", () => {
  const corvin = "corvin@spelter.example";
  const notes = (count: number) => many(count, (at) => message(corvin, `Delivery note ${4_400 + at}`));
  const letters = many(40, (at) => message(corvin, `About ${topic(at)}`));

  it("is from whom they are, and what is always in their subjects", () => {
    expect(first(notes(6), [...ordinary, ...letters, ...notes(40)])?.condition).toEqual({
      kind: "text",
      where: "subject",
      match: { how: "phrase", values: ["delivery note"] },
    });
    const others = many(40, (at) => message(`q${at}@y.example`, `Delivery note ${at}`));
    expect(first(notes(8), [...ordinary, ...letters, ...notes(40), ...others])?.condition).toMatchObject({
      kind: "all",
      of: expect.arrayContaining([
        { kind: "address", where: "from", of: [{ kind: "address", address: corvin }] },
        { kind: "text", where: "subject", match: { how: "phrase", values: ["delivery note"] } },
      ]),
    });
  });

  it("is not what somebody pointed at as not meant, as long as anything sets that apart", () => {
    const strangers = many(2, (at) => message(`q${at}@y.example`, `Delivery note ${at}`));
    const others = [...strangers, ...ordinary, ...letters, ...notes(40)];
    const learned = (notMeant: number[]) =>
      learnConditions({ examples: notes(6), others, treatedAlike: null, notMeant });
    expect(learned([])[0]?.others.slice(0, 2)).toEqual([0, 1]);
    expect(learned([0]).map(({ takes, others: found }) => [takes, found.includes(0)])).not.toContainEqual([6, true]);
    expect(learned([0])[0]).toMatchObject({ takes: 6, others: expect.not.arrayContaining([0]) });
    // Nothing tells these from the examples.
    const [same] = learnConditions({ examples: notes(6), others: notes(8), treatedAlike: null, notMeant: [0] });
    expect(same).toMatchObject({ takes: 6, others: expect.arrayContaining([0]) });
  });

  it.each<[string, (at: number) => LearnedMessage, object]>([
    [
      "a list",
      (at) => message(`p${at % 50}@house${at % 20}.example`, topic(at), { list: "players.example" }),
      { kind: "list", of: ["players.example"] },
    ],
    [
      "a sender",
      (at) => message("r@reeds.example", topic(at)),
      { kind: "address", where: "from", of: [{ kind: "address", address: "r@reeds.example" }] },
    ],
    [
      "a house",
      (at) => message(`n${at}@reeds.example`, topic(at)),
      { kind: "address", where: "from", of: [{ kind: "domain", domain: "reeds.example" }] },
    ],
    [
      "what stands in brackets",
      (at) => message(`p${at % 50}@house${at % 20}.example`, `[Alarm] ${topic(at)}`),
      { kind: "text", where: "subject", match: { how: "contains", values: ["[Alarm]"] } },
    ],
    [
      "an address of ours with a word behind a plus",
      (at) =>
        message(`p${at % 50}@house${at % 20}.example`, topic(at), {
          to: ["office+tin@ottermoor.example" as EmailAddress],
        }),
      { kind: "address", where: "recipient", of: [{ kind: "address", address: "office+tin@ottermoor.example" }] },
    ],
    [
      "the names of files",
      (at) => message(`p${at % 50}@house${at % 20}.example`, topic(at), { fileNames: [`DN-${1_000 + at}.pdf`] }),
      { kind: "text", where: "file", match: { how: "like", values: ["DN-*.pdf"] } },
    ],
    [
      "a word of the text",
      (at) => message(`p${at % 50}@house${at % 20}.example`, topic(at), { ownText: `windchest ${topic(at)}` }),
      { kind: "text", where: "text", match: { how: "words", values: ["windchest"] } },
    ],
  ])("can be %s", (_, make, condition) => {
    const all = many(60, make);
    const learned = first(all.slice(0, 8), [...all.slice(8), ...ordinary]);
    expect(learned?.condition).toEqual(condition);
    expect(learned?.takes).toBe(8);
    expect(learned?.others).toEqual(all.slice(8).map((_one, at) => at));
  });

  it("can be one thing for some and another for the others", () => {
    const listed = many(30, (at) =>
      message(`p${at % 50}@house${at % 20}.example`, topic(at), { list: "players.example" }),
    );
    const personal = many(30, (at) => message("r@reeds.example", topic(at)));
    const learned = first(
      [...listed.slice(0, 8), ...personal.slice(0, 8)],
      [...listed.slice(8), ...personal.slice(8), ...ordinary],
    );
    expect(learned?.condition).toMatchObject({ kind: "any" });
    expect(learned?.others).toEqual(Array.from({ length: 44 }, (_, at) => at));
  });

  it("is learned from what people did with the rest as well", () => {
    // Three of a sender who writes of several things: too few to say whether all of them are meant.
    const others = [...many(12, (at) => message(corvin, `Delivery note ${at}`)), ...letters, ...ordinary];
    const settled = [...Array.from({ length: 12 }, (_, at) => at)];
    expect(first(notes(3), others, settled)?.others).toEqual(settled);
    const all = [...settled, ...letters.map((_, at) => 12 + at)];
    expect(
      first(
        many(3, (at) => message(corvin, `About ${topic(at)}`)),
        others,
        all,
      )?.others,
    ).toEqual(all);
  });

  it("offers what leaves out an example that was chosen by mistake", () => {
    const examples = [...notes(9), message("a@x.example", "Lunch")];
    const all = learnConditions({ examples, others: [...notes(30), ...ordinary], treatedAlike: null });
    expect(all.map(({ takes, others }) => [takes, others.length])).toContainEqual([9, 30]);
  });

  it("offers alternatives that take something else, and says nothing of nothing", () => {
    const all = learnConditions({
      examples: notes(5),
      others: [...letters, ...notes(9), ...ordinary],
      treatedAlike: null,
    });
    expect(all.length).toBeGreaterThan(1);
    expect(new Set(all.map(({ others }) => others.join())).size).toBe(all.length);
    expect(learnConditions({ examples: [], others: ordinary, treatedAlike: null })).toEqual([]);
  });

  it("finds again what it says that it takes", () => {
    const others = [...letters, ...notes(9), ...ordinary];
    for (const { condition, others: taken } of learnConditions({ examples: notes(5), others, treatedAlike: null })) {
      const held = others.flatMap((one, at) => {
        const { fileNames, ...rest } = one;
        const attachments = fileNames.map((fileName) => ({ fileName, contentType: "application/pdf", size: 1 }));
        return examineCondition(condition, testedMessage(aRuledMessage({ ...rest, attachments }))).holds ? [at] : [];
      });
      expect(held).toEqual(taken);
    }
  });
});

describe("what a rule could do", () => {
  const [ines, tobias] = [trustedId<MemberId>("ines"), trustedId<MemberId>("tobias")];
  const tin = trustedId<CategoryId>("tin");

  it("is what was done to most of the examples", () => {
    const done = leftAs({ categoryIds: [tin], ownerId: ines, standing: "settled" });
    const examples = [
      done,
      done,
      leftAs({ categoryIds: [tin], ownerId: tobias, urgency: "today", recordIds: [trustedId<RecordId>("r")] }),
    ];
    expect(learnActions(examples, [done, done, leftAs()])).toEqual([
      { action: { kind: "categorise", categoryId: tin, give: true }, byHand: 2 },
      { action: { kind: "assign", ownerId: ines }, byHand: 2 },
      { action: { kind: "settle" }, byHand: 2 },
    ]);
  });

  it("is nothing for what was answered or not touched", () => {
    expect(learnActions([leftAs({ standing: "settled", isAnswered: true }), leftAs()], [])).toEqual([]);
    expect(learnActions([], [])).toEqual([]);
    expect(learnActions([leftAs({ standing: "bin", urgency: "reading" })], [])).toEqual([
      { action: { kind: "urgency", urgency: "reading" }, byHand: 0 },
      { action: { kind: "bin" }, byHand: 0 },
    ]);
  });
});

describe("a set of places", () => {
  it("is counted, joined and cut as sets are", () => {
    const [low, high] = [placeSet(70, [0, 1, 31, 32, 69]), placeSet(70, [1, 32, 33, 64])];
    expect(placesOf(low)).toEqual([0, 1, 31, 32, 69]);
    expect([countOf(low), countOf(high), countOfBoth(low, high)]).toEqual([5, 4, 2]);
    expect(placesOf(both(low, high))).toEqual([1, 32]);
    expect(placesOf(either(low, high))).toEqual([0, 1, 31, 32, 33, 64, 69]);
    expect(placesOf(without(low, high))).toEqual([0, 31, 69]);
  });
});
