import { expect, it } from "vitest";
import { instant } from "../kernel/instant";
import { timesByNeighbours } from "./times-by-neighbours";

const [one, two] = [instant(1), instant(2)];

it("a message without a date has the time of its neighbour", () => {
  expect(timesByNeighbours([null, null, one, null, two, null], null)).toEqual([one, one, one, one, two, two]);
  expect(timesByNeighbours([null, two], one)).toEqual([one, two]);
  expect(timesByNeighbours([null, null], null)).toEqual([null, null]);
});
