import { describe, expect, it } from "vitest";
import { type CategoryId, type MemberId, type RecordId, trustedId } from "../kernel/ids";
import { acceptable, type Deciding } from "./acceptable";
import type { Proposal } from "./propose";

const sure = { confidence: 0.9, because: { kind: "person", was: 3, of: 3 } } as const;
const assign = (id: string): Proposal => ({ kind: "assign", ownerId: trustedId<MemberId>(id), ...sure });
const file: Proposal = { kind: "file", recordId: trustedId<RecordId>("r"), ...sure };
const categorise: Proposal = { kind: "categorise", categoryId: trustedId<CategoryId>("c"), ...sure };
const settle: Proposal = { kind: "settle", ...sure };
const any: Deciding = {
  ownerId: null,
  mayOwn: () => true,
  inCharge: (id) => id,
  takes: () => true,
  isGiven: () => true,
};

describe("of what is proposed", () => {
  it("everything that can be accepted stays as it is, in its order", () => {
    const all = [settle, assign("mattis"), file, categorise];
    expect(acceptable(all, any)).toEqual(all);
  });

  it("what is closed, hidden or retired goes", () => {
    expect(acceptable([file, categorise], { ...any, takes: () => false })).toEqual([categorise]);
    expect(acceptable([file, categorise], { ...any, isGiven: () => false })).toEqual([file]);
  });

  it("an owner who is away is whoever covers for them, and says so", () => {
    const col = trustedId<MemberId>("col");
    const covered = acceptable([assign("mattis")], { ...any, inCharge: () => col });
    expect(covered).toEqual([{ ...assign("col"), coversFor: "mattis" }]);
  });

  it.each<[string, Partial<Deciding>]>([
    ["who is away without a cover", { inCharge: () => null }],
    ["who has left, or only reads", { mayOwn: () => false }],
    ["whose cover may own nothing here", { inCharge: () => trustedId("col"), mayOwn: (id) => id !== "col" }],
    ["whose cover has it already", { inCharge: () => trustedId("col"), ownerId: trustedId("col") }],
  ])("an owner %s goes", (_, deciding) => expect(acceptable([assign("mattis")], { ...any, ...deciding })).toEqual([]));
});
