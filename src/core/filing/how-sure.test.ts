import { describe, expect, it } from "vitest";
import { NO_RECORD, type TrackRecord } from "./calibration";
import { howOften } from "./how-sure";

const record = (...bands: readonly (readonly [at: number, said: number, right: number])[]): TrackRecord =>
  bands.reduce((all, [at, said, right]) => all.with(at, { said, right }), NO_RECORD);

describe("what a choice of how sure proposals have to be comes to", () => {
  const records = { file: record([9, 100, 98], [6, 100, 60], [1, 100, 10]) };

  it("is more and less rightly with the lower threshold, fewer and more rightly with the higher", () => {
    expect(howOften(records, "sure")).toEqual({ proposed: 98 / 168, right: 98 / 100 });
    expect(howOften(records, "often")).toEqual({ proposed: 158 / 168, right: 158 / 200 });
  });

  it("sums up all kinds of decision, each with its own threshold", () => {
    const both = { ...records, assign: record([4, 100, 50]) };
    expect(howOften(both, "often")).toEqual({ proposed: 208 / 218, right: 208 / 300 });
    expect(howOften(both, "sure")).toEqual({ proposed: 98 / 218, right: 98 / 100 });
  });

  it("is not said of a few outcomes, nor where nothing was sure enough", () => {
    expect(howOften({ file: record([9, 20, 20]) }, "sure")).toBeNull();
    expect(howOften({ file: record([1, 100, 10]) }, "sure")).toBeNull();
    expect(howOften({}, "often")).toBeNull();
  });
});
