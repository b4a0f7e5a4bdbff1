import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { trustedId } from "../../../core/kernel/ids";
import { ORDERS } from "../../../core/lists/sheet-view";
import type { commonTexts } from "../../../texts/en/common";
import type { decidingTexts } from "../../../texts/en/deciding";
import type { frameTexts } from "../../../texts/en/frame";
import "../../../texts/en/index";
import { type Say, sayIn } from "../../../texts/say";
import { forgetLocalDraft, localDraft, saveLocalDraft } from "../drafts/local-draft";
import { notePick, recentFirst, recentPicks } from "../frame/recent-picks";
import { nameOfGrouping, nameOfOrder } from "../frame/view-names";
import { saidOf } from "./foreseen";
import type { DecisionTarget, PostedDecision } from "./posted-decision";

const names = {
  members: [{ id: "tobias", name: "Tobias Lund" }],
  categories: [{ id: "tuning", name: "Tuning" }],
};
const target = (...subjects: string[]) =>
  ({ rows: subjects.map((subject) => ({ subject })), everything: null }) as unknown as DecisionTarget;

const say = sayIn("en") as Say<typeof decidingTexts & typeof commonTexts> & Say<typeof frameTexts>;

describe("what is said of a decision", () => {
  it.each<[PostedDecision, string]>([
    [{ kind: "assign", ownerId: trustedId("tobias") }, "Assigned to Tobias Lund"],
    [{ kind: "assign", ownerId: null }, "No owner"],
    [{ kind: "categorise", categoryId: trustedId("tuning"), give: true }, "Tuning added"],
    [{ kind: "categorise", categoryId: trustedId("tuning"), give: false }, "Tuning removed"],
    [{ kind: "file", recordId: trustedId("r"), called: "P-26-012", settle: false }, "Filed to P-26-012"],
    [{ kind: "file", recordId: trustedId("r"), called: "P-26-012", settle: true }, "Filed to P-26-012 and settled"],
    [{ kind: "unfile", recordId: trustedId("r"), called: "P-26-012" }, "Removed from P-26-012"],
    [{ kind: "keep" }, "Our move"],
    [{ kind: "settle" }, "Settled"],
    [{ kind: "bin" }, "Moved to bin"],
    [{ kind: "junk" }, "Junk"],
    [{ kind: "restore" }, "Brought back"],
    [{ kind: "rest", until: null }, "Resting"],
    [{ kind: "expect", until: null }, "Waiting for reply"],
    [{ kind: "stop-expecting" }, "No longer waiting"],
    [{ kind: "urgency", urgency: "today" }, "Today"],
    [{ kind: "follow-up", dueAt: null, forMember: trustedId("tobias"), text: "" }, "Follow-up set"],
    [{ kind: "follow-up-done", followUpId: trustedId("f") }, "Follow-up done"],
    [{ kind: "follow-up-clear", followUpId: trustedId("f") }, "Follow-up cleared"],
    [{ kind: "note", text: "x" }, "Note added"],
    [{ kind: "unread" }, "Unread"],
  ])("%j", (decision, words) => expect(saidOf(say, decision, names, target("Middle C"))).toBe(`${words}: Middle C`));

  it("names one, and counts several", () => {
    expect(saidOf(say, { kind: "settle" }, names, target(""))).toBe("Settled: no subject");
    expect(saidOf(say, { kind: "settle" }, names, target("a", "b"))).toBe("Settled: 2 conversations");
    const everything = { scope: "to-sort", query: "", lane: null, count: 1_284 } as const;
    expect(saidOf(say, { kind: "bin" }, names, { rows: [], everything })).toBe("Moved to bin: 1,284 conversations");
  });
});

describe("the words for a view", () => {
  it("are another for every order and its reverse", () => {
    const words = ORDERS.flatMap((order) => [
      nameOfOrder(say, { order, reversed: false }),
      nameOfOrder(say, { order, reversed: true }),
    ]);
    expect(new Set(words).size).toBe(ORDERS.length * 2);
    expect(nameOfOrder(say, { order: "date", reversed: false })).toBe("Newest first");
    expect(nameOfOrder(say, { order: "person", reversed: false })).toBe("By person");
  });
  it("say what it is grouped by", () => {
    expect(nameOfGrouping(say, "due")).toBe("Grouped by due date");
    expect(nameOfGrouping(say, null)).toBe("Not grouped");
  });
});

describe("what a browser keeps", () => {
  const kept = new Map<string, string>();
  beforeEach(() => {
    kept.clear();
    vi.stubGlobal("localStorage", {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => void kept.set(key, value),
      removeItem: (key: string) => void kept.delete(key),
      key: (at: number) => [...kept.keys()][at] ?? null,
      get length() {
        return kept.size;
      },
    });
  });
  afterEach(() => vi.unstubAllGlobals());

  it("is what was picked last, each once, and not too many", () => {
    for (const id of ["a", "b", "a"]) notePick("category", id);
    expect(recentPicks("category")).toEqual(["a", "b"]);
    expect(recentPicks("record")).toEqual([]);
    for (let at = 0; at < 20; at += 1) notePick("category", `n${at}`);
    expect(recentPicks("category")).toHaveLength(8);
    expect(recentPicks("category")[0]).toBe("n19");
  });
  it("puts what was picked last on top, and leaves the rest in its order", () => {
    for (const id of ["c", "b"]) notePick("category", id);
    const choices = ["a", "b", "c", "d"].map((id) => ({ id }));
    expect(recentFirst("category", choices).map(({ id }) => id)).toEqual(["b", "c", "a", "d"]);
  });
  it.each(["{", "null", '"a"', "7"])("is nothing where something else stands there: %s", (text) => {
    kept.set("recent category", text);
    expect(recentPicks("category")).toEqual([]);
  });

  const DRAFT = { to: "vane@x.example", cc: "", subject: "Re", html: "<p>Yes</p>", after: "expect", day: "" } as const;
  const KEPT = { id: "d1", version: 2, draft: DRAFT, isSaved: false };
  it("is the draft of a conversation until it is sent", () => {
    saveLocalDraft("c1", KEPT);
    expect(localDraft("c1")).toEqual(KEPT);
    expect(localDraft("c2")).toBeNull();
    forgetLocalDraft("c1");
    expect(localDraft("c1")).toBeNull();
  });
  it.each(["{", "null", '{"html":7}', '{"html":""}'])("is no draft where it is broken: %s", (text) => {
    kept.set("common-tray-draft-c1", text);
    expect(localDraft("c1")).toBeNull();
  });
  it("is nothing where nothing may be kept, and nobody is disturbed", () => {
    vi.stubGlobal("localStorage", {
      getItem: () => {
        throw new Error("forbidden");
      },
      setItem: () => {
        throw new Error("full");
      },
      removeItem: () => {
        throw new Error("forbidden");
      },
    });
    saveLocalDraft("c1", KEPT);
    expect(localDraft("c1")).toBeNull();
    forgetLocalDraft("c1");
    expect(recentPicks("category")).toEqual([]);
  });
});
