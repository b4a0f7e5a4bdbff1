import { exchanged, hour, PEOPLE } from "@tests/support/exchange";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { HOUR } from "../kernel/instant";
import { deriveFlow, type MessageFact } from "../standing/derive-standing";
import { answersFor, type Expectation, expectationsOf, isOverdue, stillAwaited } from "./expectations";
import { moveEffect } from "./move-effect";
import { acknowledgedIn, turnOf } from "./whose-turn";

// What the words of an exchange mean stands in tests/support/exchange.ts. The turn is whose it is and since which hour,
// with `h` where somebody decided it by hand; an expectation is its state, for "each" how many of how many have answered,
// and its hour where it has one; the standing comes last.
const EXCHANGES: readonly (readonly [
  name: string,
  line: string,
  turn: string,
  expectations: string,
  standing: string,
])[] = [
  ["they write", "V", "us 1", "", "to-sort"],
  ["they write twice: the first is the age", "V V", "us 1", "", "to-sort"],
  ["we answer", "V w", "them 2", "", "settled"],
  ["we answer twice: since the first", "V w w", "them 2", "", "settled"],
  ["they thank us", "V w V", "us 3", "", "to-sort"],
  ["a machine starts it", "V!", "nobody", "", "to-sort"],
  ["list mail starts it", "L", "nobody", "", "to-sort"],
  ["an invitation", "C", "us 1", "", "to-sort"],
  ["a machine answers them for us not", "V V!", "us 1", "", "to-sort"],
  ["their machine answers us", "V w V!", "them 2", "", "settled"],
  ["a delivery is reported", "V w R", "them 2", "", "settled"],
  ["ours bounces", "V w V#", "us 3", "", "our-move"],
  ["we write again after the bounce", "V w V# w", "them 4", "", "settled"],
  ["they write after the bounce", "V w V# T", "us 3", "", "our-move"],
  ["a late message is dated before our answer", "V w 1.5:T", "them 2", "", "to-sort"],
  ["a late message is dated first", "V w 0.5:T", "them 2", "", "to-sort"],
  ["their message overtakes the one before it", "V 0.5:V", "us 0.5", "", "to-sort"],
  ["still our move, by hand", "V w kept", "us 3 h", "", "our-move"],
  ["by hand until they write", "V w kept V", "us 3", "", "our-move"],
  ["by hand until we write", "V w kept w", "them 4", "", "settled"],
  ["no answer needed", "V done", "nobody 2 h", "", "to-sort"],
  ["no answer needed until they write again", "V done V", "us 3", "", "to-sort"],
  ["no answer needed, whatever a machine writes", "V done V!", "nobody 2 h", "", "to-sort"],
  ["no answer needed, and a late message of before it", "V done 1.5:T", "nobody 2 h", "", "to-sort"],
  ["decided twice by hand", "V done kept", "us 3 h", "", "our-move"],

  ["we ask", "V w ?V=12", "them 2", "open 12", "waiting"],
  ["they answer", "V w ?V V", "us 4", "answered", "our-move"],
  ["somebody else answers", "V w ?V T", "us 4", "open", "our-move"],
  ["anybody was meant", "V w ?* Q", "us 4", "answered", "our-move"],
  ["a machine does not answer", "V w ?V V!", "them 2", "open", "waiting"],
  ["nor does an out-of-office that names no day", "V w ?V=9 V!", "them 2", "open 9", "waiting"],
  ["out of office until later moves the date", "V w ?V=9 V!20", "them 2", "open 20", "waiting"],
  ["out of office until earlier does not", "V w ?V=9 V!8", "them 2", "open 9", "waiting"],
  ["somebody else is out of office", "V w ?V=9 T!20", "them 2", "open 9", "waiting"],
  ["out of office gives one without a date its date", "V w ?V V!20", "them 2", "open 20", "waiting"],
  ["a date by hand after the out-of-office stands", "V w ?V=9 V!20 >1=12", "them 2", "open 12", "waiting"],
  ["extended", "V w ?V=9 >1=30", "them 2", "open 30", "waiting"],
  ["list mail does not answer", "V w ?V L", "them 2", "open", "waiting"],
  ["an invitation does", "V w ?V C", "us 4", "answered", "our-move"],
  ["nobody can be reached", "V w ?V V#", "us 4", "impossible", "our-move"],
  ["one of two cannot be reached", "V w ?VT V#", "us 4", "open", "our-move"],
  ["and the other answers", "V w ?VT V# T", "us 4", "answered", "our-move"],
  ["somebody whom we did not ask bounces", "V w ?V Q#", "us 4", "open", "our-move"],
  ["withdrawn", "V w ?V -1", "them 2", "withdrawn", "our-move"],
  ["an answer after it was withdrawn", "V w ?V -1 V", "us 5", "withdrawn", "our-move"],
  ["a late answer of before it was withdrawn", "V w ?V -1 3.5:V", "us 3.5", "answered", "our-move"],
  ["what they wrote before we asked comes late", "V w ?V 1.5:V", "them 2", "open", "our-move"],
  ["and they answer then", "V w ?V 1.5:V V", "us 5", "answered", "our-move"],
  ["thanks, will do", "V w ?V V ok4", "them 2", "open", "waiting"],
  ["thanks, will do, and the answer", "V w ?V V ok4 V", "us 6", "answered", "our-move"],

  ["any of three", "V w ?VTQ T", "us 4", "answered", "our-move"],
  ["each of three: one", "V w ?V+T+Q T", "us 4", "in-part 1/3", "waiting"],
  ["each of three: two", "V w ?V+T+Q T Q", "us 4", "in-part 2/3", "waiting"],
  ["each of three: all", "V w ?V+T+Q T Q V", "us 4", "answered 3/3", "our-move"],
  ["each of three: the same one twice", "V w ?V+T+Q T T", "us 4", "in-part 1/3", "waiting"],
  ["each of two: one bounces, one answers", "V w ?V+T V# T", "us 4", "answered 1/2", "our-move"],
  ["each of two: both bounce", "V w ?V+T VT#", "us 4", "impossible 0/2", "our-move"],
  ["each of two: one is away, the date moves", "V w ?V+T=9 T V!20", "us 4", "in-part 1/2 20", "waiting"],
  ["from her other address", "V w ?V v", "us 4", "answered", "our-move"],
  ["each of two, one from her other address", "V w ?V+T v T", "us 4", "answered 2/2", "our-move"],
  ["somebody of her house, whom we did not ask", "V w ?V H", "us 4", "open", "our-move"],
  ["somebody of her house, where the house was asked", "V w ?@V H", "us 4", "answered", "our-move"],
  ["from a colleague", "V ?~ n", "us 1", "answered", "waiting"],
  ["from a colleague, and they write", "V ?~ V", "us 1", "open", "our-move"],

  ["two questions, one answered", "V w ?V ?T V", "us 5", "answered, open", "our-move"],
  ["two questions, both answered", "V w ?V ?T V T", "us 5", "answered, answered", "our-move"],
  ["we write on while one is open", "V w ?V ?T V w", "them 6", "answered, open", "waiting"],
  ["one is withdrawn, one goes on", "V w ?V ?T -1", "them 2", "withdrawn, open", "waiting"],
  ["asked anew after an answer", "V w ?V V w ?V=20", "them 5", "answered, open 20", "waiting"],
  ["settled with a question open, and then answered", "V w ?V settled V", "us 5", "answered", "to-sort"],
  ["five messages of an impatient verger", "V V V V V w", "them 6", "", "settled"],
];

const turnSaid = (line: string) => {
  const { messages, entries } = exchanged(line);
  const { kind, since, rule } = turnOf(messages, entries);
  return [kind, ...(since === null ? [] : [since / HOUR]), ...(rule === "by-hand" ? ["h"] : [])].join(" ");
};
const said = ({ state, need, from, until, answers }: Expectation) => {
  const of = new Set(answers.map((answer) => answer.of)).size;
  return [state, ...(need === "each" ? [`${of}/${from.length}`] : []), ...(until === null ? [] : [until / HOUR])].join(
    " ",
  );
};

describe("an exchange", () => {
  it.each(EXCHANGES)("%s (%s): %s", (_, line, turn, expectations, standing) => {
    const { messages, entries } = exchanged(line);
    expect(turnSaid(line)).toBe(turn);
    expect(expectationsOf(messages, entries).map(said).join(", ")).toBe(expectations);
    expect(deriveFlow(exchanged(line)).standing.kind).toBe(standing);
  });

  it("is written down more than sixty times", () => expect(EXCHANGES.length).toBeGreaterThan(60));

  it("has a turn at every moment of the past", () => {
    const { messages, entries } = exchanged("V w ?V V! V kept w");
    const at = (n: number) => turnOf(messages, entries, hour(n)).kind;
    expect([0, 1, 2.5, 4, 5, 6, 7].map(at)).toEqual(["nobody", "us", "them", "them", "us", "us", "them"]);
  });

  it("has a turn for one message, or by one member", () => {
    const of = (line: string) => turnOf(exchanged(line).messages, exchanged(line).entries);
    expect(of("V V")).toMatchObject({ rule: "they-wrote", messageId: "m1", by: null });
    expect(of("V w w")).toMatchObject({ rule: "we-wrote", messageId: "m3" });
    expect(of("V w V#")).toMatchObject({ rule: "bounced", messageId: "m3" });
    expect(of("V done")).toMatchObject({ rule: "by-hand", messageId: null, by: "ines" });
  });

  it("says who is still awaited and whether it is late", () => {
    const [each] = expectationsOf(...factsOf("V w ?V+T+Q=9 T V#"));
    expect(each === undefined ? [] : stillAwaited(each)).toEqual([PEOPLE.Q]);
    expect(each === undefined ? null : [isOverdue(each, hour(9)), isOverdue(each, hour(9.1))]).toEqual([false, true]);
    const [done] = expectationsOf(...factsOf("V w ?V=9 V"));
    expect(done === undefined ? null : [stillAwaited(done), isOverdue(done, hour(99))]).toEqual([[], false]);
  });
});

function factsOf(line: string) {
  const { messages, entries } = exchanged(line);
  return [messages, entries] as const;
}

const WORDS =
  "V T Q v H w w V! T!40 VT# Q# L C R n ?V ?V+T ?V+T+Q=9 ?* ?@V=30 ?~ -1 -2 >1=50 ok2 ok4 kept done settled 1.5:V 2.5:w 3.5:T!60";
const line = fc
  .array(fc.constantFrom(...WORDS.split(" ")), { minLength: 1, maxLength: 24 })
  .map((words) => ["V", ...words].join(" "));

function couldAnswer(expectation: Expectation, { at, direction, kind, from }: MessageFact): boolean {
  const isReal = direction === "in" && (kind === "person" || kind === "calendar");
  return isReal && at > expectation.madeAt && answersFor(expectation, from) !== null;
}

describe("any exchange", () => {
  it("comes to the same turn and expectations in whatever order its mail arrives", () => {
    fc.assert(
      fc.property(line, fc.infiniteStream(fc.nat()), (words, numbers) => {
        const { messages, entries } = exchanged(words);
        const places = messages.map(({ version }) => version);
        const order = messages
          .map((message) => ({ message, by: numbers.next().value }))
          .toSorted((a, b) => a.by - b.by);
        const shuffled = order.map(({ message }, at): MessageFact => ({ ...message, version: places[at] ?? 0 }));
        expect(turnOf(shuffled, entries)).toEqual(turnOf(messages, entries));
        expect(expectationsOf(shuffled, entries)).toEqual(expectationsOf(messages, entries));
      }),
    );
  });

  // The same, told the other way round: from the last that counts backwards.
  it("has the turn of its last step that counts, since the first of the same kind", () => {
    fc.assert(
      fc.property(line, (words) => {
        const { messages, entries } = exchanged(words);
        const called = acknowledgedIn(entries);
        const counting = [
          ...messages.flatMap((message) => {
            const effect = moveEffect(message);
            if (effect === "none" || called.has(message.id)) return [];
            return [{ at: message.at, order: 0, kind: effect === "we-wrote" ? "them" : "us" }];
          }),
          ...entries.flatMap(({ at, effect }) => {
            if (effect.kind !== "kept" && effect.kind !== "turn-set") return [];
            return [{ at, order: 1, kind: effect.kind === "kept" ? "us" : effect.turn }];
          }),
        ].toSorted((a, b) => b.at - a.at || b.order - a.order);
        const [last] = counting;
        fc.pre(new Set(counting.map(({ at }) => at)).size === counting.length);
        const other = counting.findIndex(({ kind }) => kind !== last?.kind);
        const first = counting[other === -1 ? counting.length - 1 : other - 1];
        const turn = turnOf(messages, entries);
        expect([turn.kind, turn.since]).toEqual([last?.kind, first?.at]);
      }),
    );
  });

  it("answers what was awaited of any by the first who wrote in time, and nothing otherwise", () => {
    fc.assert(
      fc.property(line, (words) => {
        const { messages, entries } = exchanged(words);
        const called = acknowledgedIn(entries);
        const anyOf = expectationsOf(messages, entries).filter(
          ({ need, colleagueId }) => need === "any" && colleagueId === null,
        );
        for (const expectation of anyOf) {
          const possible = messages
            .filter((message) => couldAnswer(expectation, message) && !called.has(message.id))
            .toSorted((a, b) => a.at - b.at);
          const [answer] = expectation.answers;
          expect(answer?.messageId).toBe(expectation.state === "answered" ? possible[0]?.id : undefined);
          expect(expectation.state === "open" && possible.length > 0).toBe(false);
        }
      }),
    );
  });

  it("derives its standing from facts read in any order, and waits only for something", () => {
    fc.assert(
      fc.property(line, (words) => {
        const facts = exchanged(words);
        const flow = deriveFlow(facts);
        expect(
          deriveFlow({ ...facts, messages: facts.messages.toReversed(), entries: facts.entries.toReversed() }),
        ).toEqual(flow);
        expect(flow.expectations).toEqual(expectationsOf(facts.messages, facts.entries));
      }),
    );
  });
});
