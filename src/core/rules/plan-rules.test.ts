import { aConversation, did, type Happening, listWrote, theyWrote } from "@tests/support/a-conversation";
import { inEnglish } from "@tests/support/english";
import { aRule } from "@tests/support/ruled-messages";
import { describe, expect, it } from "vitest";
import type { Effect, JournalEntry } from "../journal/entry";
import type { EmailAddress } from "../kernel/email-address";
import { type CategoryId, type MemberId, type MessageId, type RecordId, type RuleId, trustedId } from "../kernel/ids";
import { HOUR, instant, later } from "../kernel/instant";
import type { ConversationFacts, MessageFact } from "../standing/derive-standing";
import { actionInWords } from "./action-in-words";
import type { RuleNames } from "./condition-in-words";
import { type Givable, planRule } from "./plan-rules";
import type { RuleAction } from "./rule";

const address = (text: string) => text as EmailAddress;
const [tuning, rounds] = [trustedId<CategoryId>("tuning"), trustedId<CategoryId>("rounds")];
const [ines, tobias] = [trustedId<MemberId>("ines"), trustedId<MemberId>("tobias")];
const sorrel = trustedId<RecordId>("sorrel");

const names: RuleNames = {
  member: (id) => (id === ines ? "Ines Varga" : "Tobias Renn"),
  category: (id) => (id === tuning ? "Tuning" : "Rounds"),
  record: () => "P-26-012",
  contact: () => "Renske Vane",
  round: () => "Mass mail",
  group: () => "The workshop",
  template: () => "A reminder",
};

const arrived: MessageFact = {
  id: trustedId<MessageId>("m"),
  version: 1,
  direction: "in",
  kind: "person",
  failedRecipients: [],
  at: instant(0),
  arrivedAt: instant(0),
  from: address("a@x.example"),
  fromName: "",
  authorId: null,
};
type Did = readonly [effect: Effect, by: MemberId | null, rule?: RuleId];
const facts = (...effects: readonly Did[]): ConversationFacts => ({
  messages: [arrived],
  entries: effects.map(
    ([effect, by, ruleId], at): JournalEntry => ({
      id: trustedId(`e${at}`),
      version: at + 2,
      at: instant(at + 1),
      by,
      ...(ruleId === undefined ? {} : { rule: { id: ruleId, name: "Tin", why: "" } }),
      effect,
    }),
  ),
  replacedCategories: [],
  replacedOwners: [],
});
const noon = instant(12 * HOUR);
const everything: Givable = {
  isCategory: () => true,
  isRecord: () => true,
  isMember: () => true,
  roundName: () => "Mass mail",
  filesFirst: false,
  nextOf: () => tobias,
  hadBefore: (by) => (by === "person" ? tobias : null),
  inCharge: (id) => id,
  afterWorkingDays: (days) => ({ opens: later(noon, days * 24 * HOUR), closes: later(noon, days * 24 * HOUR + HOUR) }),
  newId: () => "new",
};
const doing = (...actions: RuleAction[]) => aRule({ actions });
const plan = (actions: RuleAction[], known = facts(), givable = everything, starts = true) =>
  planRule(doing(...actions), known, givable, { moment: "arrival", starts });

const give = (categoryId: CategoryId): RuleAction => ({ kind: "categorise", categoryId, give: true });
const everyAction: RuleAction[] = [
  give(tuning),
  give(rounds),
  { kind: "file", recordId: sorrel },
  { kind: "assign", ownerId: ines },
  { kind: "urgency", urgency: "today" },
  { kind: "settle" },
];

describe("what a rule does", () => {
  it("is everything that it says, once", () => {
    const kinds = (known: ConversationFacts) => plan(everyAction, known).map(({ kind }) => kind);
    expect(kinds(facts())).toEqual(["categorised", "categorised", "filed", "assigned", "urgency-set", "settled"]);
    expect(kinds(facts([{ kind: "categorised", categoryId: tuning }, null]))).toHaveLength(5);
  });

  it("is never against what somebody decided, and puts away only what begins", () => {
    const known = facts(
      [{ kind: "uncategorised", categoryId: tuning }, tobias],
      [{ kind: "assigned", ownerId: tobias }, tobias],
    );
    expect(plan(everyAction, known, everything, false)).toEqual([
      { kind: "categorised", categoryId: rounds },
      { kind: "filed", recordId: sorrel },
      { kind: "urgency-set", urgency: "today" },
    ]);
  });

  it("leaves out what there is no more, and goes to whoever is in charge", () => {
    const some: Givable = {
      ...everything,
      isCategory: (id) => id === rounds,
      isRecord: () => false,
      isMember: () => false,
      inCharge: () => tobias,
    };
    const gone: RuleAction[] = [
      { kind: "follow", memberId: ines },
      { kind: "follow-up", workingDays: 1, text: "ask", forMember: ines },
    ];
    expect(plan([...everyAction.slice(0, 4), ...gone], facts(), some)).toEqual([
      { kind: "categorised", categoryId: rounds },
      { kind: "assigned", ownerId: tobias },
    ]);
    expect(plan([{ kind: "assign", ownerId: ines }], facts(), { ...everything, inCharge: () => null })).toEqual([]);
  });

  it("counts working days from now, and none for an office that never opens", () => {
    const timed: RuleAction[] = [
      { kind: "rest", workingDays: 2 },
      { kind: "expire", workingDays: 3 },
    ];
    expect(plan(timed)).toEqual([
      { kind: "rested", until: later(noon, 48 * HOUR) },
      { kind: "expiry-set", at: later(noon, 73 * HOUR) },
    ]);
    expect(plan(timed, facts(), { ...everything, afterWorkingDays: () => null })).toEqual([]);
    expect(plan([{ kind: "expect", workingDays: 1 }])).toMatchObject([
      { kind: "expected", expectationId: "new", until: later(noon, 25 * HOUR) },
    ]);
  });

  it("assigns in turn, or to whom such matters were before, and to the first that leads to somebody", () => {
    const inTurn: RuleAction = { kind: "assign-in-turn", groupId: trustedId("workshop") };
    const asBefore = (by: "person" | "record"): RuleAction => ({ kind: "assign-as-before", by });
    const owners = (...actions: RuleAction[]) => plan(actions).map((effect) => "ownerId" in effect && effect.ownerId);
    expect(owners(inTurn)).toEqual([tobias]);
    expect(owners(asBefore("person"))).toEqual([tobias]);
    expect(owners(asBefore("record"))).toEqual([]);
    expect(owners(asBefore("record"), { kind: "assign", ownerId: ines })).toContain(ines);
    const due: RuleAction = { kind: "follow-up", workingDays: 1, text: "ask", forMember: null };
    expect(plan([inTurn, due])).toMatchObject([{ ownerId: tobias }, { forMember: tobias }]);
    // Whoever is away is covered for.
    const covered: Givable = { ...everything, inCharge: () => ines };
    expect(plan([inTurn], facts(), covered)).toEqual([{ kind: "assigned", ownerId: ines }]);
  });

  it("tells somebody of each message, and leaves to others what is sent", () => {
    const tell: RuleAction = { kind: "tell", memberId: ines };
    const told: Did = [{ kind: "told", memberId: ines }, null, trustedId<RuleId>("r")];
    expect(plan([tell], facts(told), everything, false)).toEqual([{ kind: "told", memberId: ines }]);
    expect(plan([tell], facts(), { ...everything, isMember: () => false })).toEqual([]);
    const sending: RuleAction[] = [
      { kind: "answer", text: "We have it.", days: 7 },
      { kind: "forward", to: address("a@x.example") },
      { kind: "redirect", to: address("a@x.example") },
    ];
    expect(plan(sending)).toEqual([]);
  });

  it("sets a follow-up for whom it assigned to, and adds nothing twice", () => {
    const actions: RuleAction[] = [
      { kind: "assign", ownerId: ines },
      { kind: "follow-up", workingDays: 1, text: "ask", forMember: null },
      { kind: "note", text: "by the book" },
    ];
    expect(plan(actions)).toMatchObject([
      { kind: "assigned" },
      { kind: "follow-up-set", forMember: ines, text: "ask", dueAt: later(noon, 25 * HOUR) },
      { kind: "noted", text: "by the book" },
    ]);
    const noted: Did = [{ kind: "noted", text: "by the book" }, null, trustedId<RuleId>("r")];
    const other: Did = [{ kind: "noted", text: "by another" }, null, trustedId<RuleId>("s")];
    expect(plan([{ kind: "note", text: "by the book" }], facts(noted))).toEqual([]);
    expect(plan([{ kind: "note", text: "by the book" }], facts(other))).toHaveLength(1);
    // Nobody owns it.
    expect(plan([{ kind: "follow-up", workingDays: 1, text: "ask", forMember: null }])).toEqual([]);
  });

  it("holds back what came in by this message, and nothing that was in sight before it or somebody decided about", () => {
    const hold: RuleAction[] = [{ kind: "hold", roundId: trustedId("r1") }];
    const heldBy = (...happenings: Happening[]) =>
      plan(hold, aConversation(...happenings), everything, false).map(({ kind }) => kind);
    const isHeld = did({ kind: "held", roundId: trustedId("r1"), round: "Mass mail" }, null);
    expect(plan(hold)).toEqual([{ kind: "held", roundId: "r1", round: "Mass mail" }]);
    expect(heldBy(listWrote(), isHeld, listWrote())).toEqual(["held"]);
    expect(heldBy(listWrote(), did({ kind: "settled" }), listWrote())).toEqual(["held"]);
    expect(heldBy(listWrote(), did({ kind: "assigned", ownerId: tobias }, null))).toEqual(["held"]);
    expect(heldBy(listWrote(), listWrote())).toEqual([]);
    expect(heldBy(theyWrote(), did({ kind: "kept" }), theyWrote())).toEqual([]);
    expect(heldBy(listWrote(), isHeld, did({ kind: "let-in" }))).toEqual([]);
    expect(heldBy(listWrote(), isHeld)).toEqual([]);
    expect(plan(hold, facts(), { ...everything, roundName: () => null })).toEqual([]);
  });

  it("is said as it is", () => {
    const said = [
      ...everyAction,
      { kind: "rest", workingDays: 1 } as const,
      { kind: "follow-up", workingDays: 2, text: "ask", forMember: null } as const,
      { kind: "follow-up", workingDays: 2, text: "ask", forMember: ines } as const,
      { kind: "categorise", categoryId: rounds, give: false } as const,
    ].map((action) => inEnglish(actionInWords(action, names)));
    expect(said).toEqual([
      "adds Tuning",
      "adds Rounds",
      "files it to P-26-012",
      "assigns it to Ines Varga",
      "sets the urgency to Today",
      "settles it",
      "lets it rest for 1 working day",
      "sets a follow-up “ask” for the owner in 2 working days",
      "sets a follow-up “ask” for Ines Varga in 2 working days",
      "takes Rounds off",
    ]);
  });
});
