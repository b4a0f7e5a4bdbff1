import { expect, it } from "vitest";
import type { TrialView } from "../../server/rules/trial-view.server";
import { added } from "./use-trial";

const trial = (given: Partial<TrialView>): TrialView => ({
  of: 1_000,
  next: "1 a",
  count: 0,
  same: 0,
  otherwise: 0,
  fresh: 0,
  months: [],
  newest: [],
  against: [],
  others: [],
  ...given,
});
const tried = (id: string) => {
  return { id, conversationId: id, standing: "settled", when: "", who: "", subject: "", why: "", otherwise: null };
};
const other = { id: "r", name: "Tin", isLast: false, isBefore: false };

it("a trial that goes on to older messages adds them to what was found before", () => {
  const newer = trial({
    ...{ count: 3, same: 2, otherwise: 1 },
    months: [{ month: "2026-11", count: 3 }],
    newest: [tried("a"), tried("b")],
    others: [{ ...other, count: 2 }],
  });
  const older = trial({
    ...{ of: 40, next: null, count: 2, fresh: 2 },
    months: [
      { month: "2026-10", count: 1 },
      { month: "2026-11", count: 1 },
    ],
    newest: [tried("c")],
    others: [
      { ...other, count: 1 },
      { ...other, id: "s", count: 1 },
    ],
  });
  expect(added(newer, older)).toEqual({
    ...{ of: 1_040, next: null, count: 5, same: 2, otherwise: 1, fresh: 2 },
    months: [
      { month: "2026-10", count: 1 },
      { month: "2026-11", count: 4 },
    ],
    newest: [tried("a"), tried("b"), tried("c")],
    against: [],
    others: [
      { ...other, count: 3 },
      { ...other, id: "s", count: 1 },
    ],
  });
});
