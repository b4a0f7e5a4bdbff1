import { expect, it } from "vitest";
import { MARKS } from "./marks";
import { precision, recall, sentTexts, textScores } from "./text-scores";

it("every text that the demo sends is marked by hand", () => {
  expect(Object.keys(MARKS).toSorted()).toEqual(sentTexts().toSorted());
});

it("asks, promises and dates are found in them, and little else is taken for one", () => {
  for (const score of Object.values(textScores())) {
    expect(precision(score)).toBeGreaterThanOrEqual(0.9);
    expect(recall(score)).toBeGreaterThanOrEqual(0.8);
  }
});
