import { inEnglish } from "@tests/support/english";
import { leftAs } from "@tests/support/ruled-messages";
import { describe, expect, it } from "vitest";
import { type CategoryId, type MemberId, type RecordId, trustedId } from "../kernel/ids";
import { compareRule, type LeftAs } from "./compare-rule";
import type { RuleAction } from "./rule";

const [ines, tobias] = [trustedId<MemberId>("ines"), trustedId<MemberId>("tobias")];
const [tuning, rounds] = [trustedId<CategoryId>("tuning"), trustedId<CategoryId>("rounds")];
const [sorrel, vane] = [trustedId<RecordId>("sorrel"), trustedId<RecordId>("vane")];
const called = (id: string) => `the ${id}`;
const names = {
  member: called,
  category: called,
  record: called,
  contact: called,
  round: called,
  group: called,
  template: called,
};

const give: RuleAction = { kind: "categorise", categoryId: tuning, give: true };
const take: RuleAction = { kind: "categorise", categoryId: tuning, give: false };
const file: RuleAction = { kind: "file", recordId: sorrel };
const assign: RuleAction = { kind: "assign", ownerId: ines };
const urgent: RuleAction = { kind: "urgency", urgency: "today" };

describe("a rule beside what people did", () => {
  it.each<[string, RuleAction[], Partial<LeftAs>, string]>([
    ["gives what nobody gave", [give], {}, "new"],
    ["gives what they gave", [give], { categoryIds: [rounds, tuning] }, "same"],
    ["gives another one", [give], { categoryIds: [rounds] }, "has the rounds"],
    ["takes off what is not there", [take], {}, "same"],
    ["takes off what they gave", [take], { categoryIds: [tuning] }, "has the tuning"],
    ["files it as they did", [file], { recordIds: [sorrel] }, "same"],
    ["files it elsewhere", [file], { recordIds: [vane] }, "filed to the vane"],
    ["assigns it as they did", [assign], { ownerId: ines }, "same"],
    ["assigns what nobody owns", [assign], {}, "new"],
    ["assigns what somebody owns", [assign], { ownerId: tobias }, "the tobias owns it"],
    ["sets an urgency that nobody set", [urgent], {}, "new"],
    ["sets another urgency", [urgent], { urgency: "reading" }, "has the urgency Reading"],
    ["settles what they settled", [{ kind: "settle" }], { standing: "settled" }, "same"],
    ["settles what is to be sorted", [{ kind: "settle" }], {}, "new"],
    ["settles what they answered", [{ kind: "settle" }], { standing: "settled", isAnswered: true }, "answered"],
    ["settles what they kept", [{ kind: "settle" }], { standing: "our-move" }, "in Our move"],
    ["bins what they settled", [{ kind: "bin" }], { standing: "settled" }, "in Settled"],
    ["puts in Junk what they did", [{ kind: "junk" }], { standing: "junk" }, "same"],
    ["does one thing as they did and one more", [give, assign], { categoryIds: [tuning] }, "new"],
    [
      "does one thing as they did and one otherwise",
      [give, assign],
      { categoryIds: [tuning], ownerId: tobias },
      "the tobias owns it",
    ],
    ["only adds a note", [{ kind: "note", text: "a" }], { standing: "settled" }, "new"],
    ["gives what they gave and adds a note", [give, { kind: "note", text: "a" }], { categoryIds: [tuning] }, "same"],
  ])("%s", (_, actions, left, is) => {
    const compared = compareRule(actions, leftAs(left), names);
    expect(compared.is === "otherwise" ? inEnglish(compared.how) : compared.is).toBe(is);
  });
});
