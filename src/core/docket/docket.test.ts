import {
  aConversation,
  bounced,
  did,
  type Happening,
  hour,
  INES,
  machineWrote,
  THRANE,
  TOBIAS,
  theyWrote,
  VANE,
  weWrote,
} from "@tests/support/a-conversation";
import { describe, expect, it } from "vitest";
import type { Decision } from "../deciding/decision";
import { resultingStanding } from "../deciding/decision-shown";
import { planDecision } from "../deciding/plan-decision";
import { type CategoryId, type ExpectationId, type RecordId, trustedId } from "../kernel/ids";
import { deriveDocket } from "./derive-docket";

const TUNING = trustedId<CategoryId>("tuning");
const LEATHER = trustedId<CategoryId>("leather");
const SORREL = trustedId<RecordId>("sorrel");
const X = trustedId<ExpectationId>("x");
const given = (categoryId: CategoryId) => did({ kind: "categorised", categoryId });
const filed = did({ kind: "filed", recordId: SORREL });
const expects = (until: number | null, id = X): Happening =>
  did({
    kind: "expected",
    expectationId: id,
    from: [VANE],
    until: until === null ? null : hour(until),
    messageId: null,
  });

describe("the docket", () => {
  it("has what was given and not taken off again, in that order", () => {
    const docket = deriveDocket(
      aConversation(
        theyWrote(),
        given(LEATHER),
        given(TUNING),
        did({ kind: "uncategorised", categoryId: LEATHER }),
        given(LEATHER),
        filed,
      ),
    );
    expect(docket.categoryIds).toEqual([TUNING, LEATHER]);
    expect(docket.recordIds).toEqual([SORREL]);
  });

  it("expects by the earliest date of those that are open", () => {
    const second = trustedId<ExpectationId>("y");
    const facts = [theyWrote(), weWrote(), expects(90), expects(60, second)];
    expect(deriveDocket(aConversation(...facts)).expectedAt).toBe(hour(60));
    const withdrawn = did({ kind: "withdrawn", expectationId: second });
    expect(deriveDocket(aConversation(...facts, withdrawn)).expectedAt).toBe(hour(90));
    expect(deriveDocket(aConversation(...facts, theyWrote())).expectedAt).toBeNull();
  });

  it("marks who wrote, machines, bounces and notes in order of time", () => {
    const note = did({ kind: "noted", text: "ask Col" });
    const docket = deriveDocket(aConversation(theyWrote(), weWrote(), machineWrote(), note, bounced()));
    expect(docket.marks).toEqual([
      [hour(1), "t"],
      [hour(2), "w"],
      [hour(3), "m"],
      [hour(4), "n"],
      [hour(5), "b"],
    ]);
  });
});

describe("a decision", () => {
  const kinds = (decision: Decision, ...happenings: Happening[]) =>
    planDecision(decision, aConversation(theyWrote(), ...happenings)).map(({ kind }) => kind);

  it.each<[string, Decision, Happening[], string[]]>([
    ["to assign assigns", { kind: "assign", ownerId: TOBIAS }, [], ["assigned"]],
    [
      "to assign to whom it is assigned does nothing",
      { kind: "assign", ownerId: TOBIAS },
      [did({ kind: "assigned", ownerId: TOBIAS })],
      [],
    ],
    ["to give a category gives it once", { kind: "categorise", categoryId: TUNING, give: true }, [given(TUNING)], []],
    ["to take one off that it has not does nothing", { kind: "categorise", categoryId: TUNING, give: false }, [], []],
    [
      "to take one off takes it off",
      { kind: "categorise", categoryId: TUNING, give: false },
      [given(TUNING)],
      ["uncategorised"],
    ],
    ["to file and keep files", { kind: "file", recordId: SORREL, settle: false }, [], ["filed"]],
    ["to file and settle does both", { kind: "file", recordId: SORREL, settle: true }, [], ["filed", "settled"]],
    [
      "to file and settle what is filed settles",
      { kind: "file", recordId: SORREL, settle: true },
      [filed],
      ["settled"],
    ],
    [
      "other particulars are set where it is filed",
      { kind: "particulars", recordId: SORREL, fields: { kind: "offer" } },
      [filed],
      ["particulars-set"],
    ],
    [
      "the particulars that it has are not set again",
      { kind: "particulars", recordId: SORREL, fields: { kind: "offer", amount: "" } },
      [filed, did({ kind: "particulars-set", recordId: SORREL, fields: { kind: "offer" } })],
      [],
    ],
    [
      "what it was given before it was filed anew counts no more",
      { kind: "particulars", recordId: SORREL, fields: { kind: "offer" } },
      [filed, did({ kind: "particulars-set", recordId: SORREL, fields: { kind: "offer" } }), filed],
      ["particulars-set"],
    ],
    [
      "particulars are nothing where it is not filed",
      { kind: "particulars", recordId: SORREL, fields: { kind: "offer" } },
      [filed, did({ kind: "unfiled", recordId: SORREL })],
      [],
    ],
    ["to unfile what is not filed does nothing", { kind: "unfile", recordId: SORREL }, [], []],
    ["to settle what is settled does nothing", { kind: "settle" }, [did({ kind: "settled" })], []],
    ["to bin bins", { kind: "bin" }, [], ["binned"]],
    ["to bring back what is not away does nothing", { kind: "restore" }, [], []],
    ["to bring back brings back", { kind: "restore" }, [did({ kind: "binned" })], ["restored"]],
    ["to keep what is ours does nothing", { kind: "keep" }, [did({ kind: "kept" })], []],
    ["to rest rests", { kind: "rest", until: hour(99) }, [], ["rested"]],
    [
      "to expect by another day replaces the old one",
      { kind: "expect", until: hour(99), expectationId: X },
      [expects(50)],
      ["withdrawn", "expected"],
    ],
    ["to stop waiting withdraws", { kind: "stop-expecting" }, [expects(50)], ["withdrawn"]],
    ["to note notes", { kind: "note", text: "ask Col" }, [], ["noted"]],
  ])("%s", (_, decision, happenings, effects) => expect(kinds(decision, ...happenings)).toEqual(effects));

  it("to expect later waits for everybody outside who wrote, after our newest message", () => {
    const facts = aConversation(theyWrote(VANE), theyWrote(THRANE), machineWrote(), weWrote(INES));
    expect(planDecision({ kind: "expect", until: null, expectationId: X }, facts)).toEqual([
      { kind: "expected", expectationId: X, from: [VANE, THRANE], until: null, messageId: "m4" },
    ]);
  });

  it.each<[Exclude<Decision, { kind: "edit-note" | "hold" }>, Happening[]]>([
    [{ kind: "assign", ownerId: TOBIAS }, []],
    [{ kind: "assign", ownerId: null }, []],
    [{ kind: "settle" }, []],
    [{ kind: "bin" }, []],
    [{ kind: "rest", until: hour(99) }, []],
    [{ kind: "expect", until: null, expectationId: X }, []],
    [{ kind: "stop-expecting" }, [expects(50)]],
    [{ kind: "file", recordId: SORREL, settle: true }, []],
    [{ kind: "file", recordId: SORREL, settle: false }, []],
    [{ kind: "restore" }, [did({ kind: "binned" })]],
    [{ kind: "assign", ownerId: TOBIAS }, [did({ kind: "held", roundId: trustedId("r1"), round: "Mass mail" }, null)]],
    [{ kind: "let-in" }, [did({ kind: "held", roundId: trustedId("r1"), round: "Mass mail" }, null)]],
  ])("%j leads where the interface shows at once", (decision, happenings) => {
    const facts = aConversation(theyWrote(), ...happenings);
    const before = deriveDocket(facts).standing.kind;
    const effects = planDecision(decision, facts);
    const after = deriveDocket(aConversation(theyWrote(), ...happenings, ...effects.map((effect) => did(effect))));
    expect(resultingStanding(decision, before) ?? before).toBe(after.standing.kind);
  });
});
