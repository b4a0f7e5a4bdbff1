import { describe, expect, it } from "vitest";
import { trustedId } from "../../../core/kernel/ids";
import { instant } from "../../../core/kernel/instant";
import type { commonTexts } from "../../../texts/en/common";
import type { decidingTexts } from "../../../texts/en/deciding";
import "../../../texts/en/index";
import { type Say, sayIn } from "../../../texts/say";
import type { RowView } from "../../server/base/row-view.server";
import { postedResultingStanding, saidOf, withPending } from "./foreseen";
import type { PostedDecision } from "./posted-decision";

const row = {
  id: "c1",
  version: 3,
  subject: "Swell box",
  standing: "to-sort",
  ownerId: null,
  categoryIds: ["tuning"],
  recordCodes: ["P-26-012"],
} as unknown as RowView;
const pending = (...decisions: PostedDecision[]) =>
  decisions.map((decision, key) => ({
    key,
    decision,
    rows: [row],
    target: { rows: [row], everything: null },
    said: "",
    command: "",
    attempt: 1,
    isPassed: false,
  }));
const shown = (...decisions: PostedDecision[]) => withPending(row, pending(...decisions));

const say = sayIn("en") as Say<typeof decidingTexts & typeof commonTexts>;

describe("what is shown before the server has answered", () => {
  it.each<[PostedDecision, Partial<RowView>]>([
    [
      { kind: "categorise", categoryId: trustedId("leather"), give: true },
      { categoryIds: ["tuning", "leather"] as never },
    ],
    [{ kind: "categorise", categoryId: trustedId("tuning"), give: true }, { categoryIds: ["tuning"] as never }],
    [{ kind: "categorise", categoryId: trustedId("tuning"), give: false }, { categoryIds: [] }],
    [
      { kind: "file", recordId: trustedId("r"), called: "C-001", settle: false },
      { recordCodes: ["P-26-012", "C-001"] },
    ],
    [{ kind: "unfile", recordId: trustedId("r"), called: "P-26-012" }, { recordCodes: [] }],
    [{ kind: "assign", ownerId: null }, { ownerId: null }],
    [{ kind: "urgency", urgency: "today" }, { urgency: "today" }],
    [{ kind: "unread" }, { unread: true }],
    [{ kind: "follow-up-done", followUpId: trustedId("f") }, {}],
    [{ kind: "note", text: "x" }, {}],
  ])("%j changes the row", (decision, part) => expect(shown(decision)).toEqual({ ...row, ...part }));

  it.each<PostedDecision>([
    { kind: "settle" },
    { kind: "bin" },
    { kind: "assign", ownerId: trustedId("tobias") },
    { kind: "rest", until: instant(Date.UTC(2026, 11, 1, 8)) },
    { kind: "expect", until: null },
    { kind: "junk" },
    { kind: "file", recordId: trustedId("r"), called: "C-001", settle: true },
  ])("%j takes the row to another standing", (decision) => expect(shown(decision).standing).not.toBe("to-sort"));

  it("adds up over several decisions, and leaves other rows alone", () => {
    const both = shown(
      { kind: "categorise", categoryId: trustedId("a"), give: true },
      { kind: "categorise", categoryId: trustedId("b"), give: true },
    );
    expect(both.categoryIds).toEqual(["tuning", "a", "b"]);
    expect(withPending({ ...row, id: "c2" } as RowView, pending({ kind: "settle" }))).toMatchObject({ id: "c2" });
  });

  it("knows where a decision leads", () => {
    expect(postedResultingStanding({ kind: "assign", ownerId: trustedId("tobias") }, "to-sort")).toBe("our-move");
    expect(postedResultingStanding({ kind: "assign", ownerId: null }, "to-sort")).toBeNull();
    expect(postedResultingStanding({ kind: "assign", ownerId: trustedId("tobias") }, "waiting")).toBeNull();
    expect(postedResultingStanding({ kind: "stop-expecting" }, "waiting")).toBe("our-move");
  });
});

describe("the message with the Undo button", () => {
  const names = {
    members: [{ id: "t", name: "Tobias" }],
    categories: [{ id: "tu", name: "Tuning" }],
  };
  const about = { rows: [row], everything: null };
  it.each<[PostedDecision, string]>([
    [{ kind: "assign", ownerId: trustedId("t") }, "Assigned to Tobias: Swell box"],
    [{ kind: "assign", ownerId: null }, "No owner: Swell box"],
    [{ kind: "categorise", categoryId: trustedId("tu"), give: true }, "Tuning added: Swell box"],
    [
      { kind: "file", recordId: trustedId("r"), called: "C-001", settle: true },
      "Filed to C-001 and settled: Swell box",
    ],
    [{ kind: "unfile", recordId: trustedId("r"), called: "C-001" }, "Removed from C-001: Swell box"],
    [{ kind: "rest", until: null }, "Resting: Swell box"],
    [{ kind: "urgency", urgency: "days" }, "Within days: Swell box"],
    [{ kind: "follow-up", dueAt: null, forMember: trustedId("t"), text: "" }, "Follow-up set: Swell box"],
    [{ kind: "junk" }, "Junk: Swell box"],
  ])("%j", (decision, words) => expect(saidOf(say, decision, names, about)).toBe(words));
  it("names a conversation without a subject", () => {
    const nameless = { rows: [{ ...row, subject: "" }], everything: null };
    expect(saidOf(say, { kind: "settle" }, names, nameless)).toBe("Settled: no subject");
  });
  it("counts several, loaded or not", () => {
    expect(saidOf(say, { kind: "settle" }, names, { rows: [row, row], everything: null })).toBe(
      "Settled: 2 conversations",
    );
    const everything = { scope: "settled", query: "", lane: null, count: 12_840 } as const;
    expect(saidOf(say, { kind: "bin" }, names, { rows: [row], everything })).toBe("Moved to bin: 12,840 conversations");
  });
});
