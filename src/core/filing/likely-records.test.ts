import { describe, expect, it } from "vitest";
import { type RecordId, trustedId } from "../kernel/ids";
import type { Asked, Evidence } from "./evidence";
import { likelyRecords, RECORD_WEIGHTS } from "./likely-records";

const [mill, abbey] = [trustedId<RecordId>("mill"), trustedId<RecordId>("abbey")];
const WORDS = ["w:fennick", "w:pump", "w:organ"];
const ASKED: Asked = {
  person: "p:ada@vane.example",
  domain: "d:vane.example",
  list: "",
  words: WORDS,
  rarest: WORDS,
  unusual: new Set(["w:fennick", "w:organ"]),
};
const TOLD = {
  "*": { "*": 1_000, "r:mill": 20, "r:abbey": 20, "r:-": 960 },
  "w:fennick": { "*": 4, "r:mill": 4 },
  "w:pump": { "*": 100, "r:mill": 4, "r:abbey": 4, "r:-": 92 },
  "w:organ": { "*": 40, "r:-": 40 },
};

const saysOf = (titles: readonly (readonly [RecordId, string])[]) => {
  const counts = new Map(Object.entries(TOLD).map(([feature, labels]) => [feature, new Map(Object.entries(labels))]));
  const evidence = { counts, last: [], named: [], belongs: [], open: new Map(titles) } as unknown as Evidence;
  const likely = likelyRecords(ASKED, evidence, [], RECORD_WEIGHTS);
  return (label: string) => {
    const found = likely.find((one) => one.label === label);
    if (found === undefined) throw new Error(`${label} was not judged`);
    return found;
  };
};

describe("a record", () => {
  const said = saysOf([
    [mill, "The Fennick mill"],
    [abbey, "Abbey organ"],
  ]);
  it("has a word for itself that hardly stands in anything else, and not one that stands everywhere", () => {
    expect(said("r:mill").says.ownWords).toBeGreaterThan(0.3);
    expect(said("r:abbey").says.ownWords).toBe(0);
    expect(said("r:-").says.ownWords).toBe(0);
    expect(said("r:mill").likelihood).toBeGreaterThan(said("r:abbey").likelihood);
  });
  it("is named by its title the more, the fewer letters have the word", () => {
    expect(said("r:mill").says.title).toBeGreaterThan(said("r:abbey").says.title);
    expect(said("r:abbey").says.title).toBeGreaterThan(0.5);
    expect(said("r:-").says.title).toBe(0);
  });
});
