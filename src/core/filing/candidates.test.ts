import { expect, it } from "vitest";
import { candidateRecords, MOST_TITLED, titledRecords } from "./candidates";
import type { Asked } from "./evidence";

const ASKED: Asked = {
  person: "p:hester@stbrannoc.example",
  domain: "d:stbrannoc.example",
  list: "",
  words: [],
  rarest: ["w:humidity", "w:bellows"],
  unusual: new Set(),
};
const counts = (told: Readonly<Record<string, Readonly<Record<string, number>>>>) =>
  new Map(Object.entries(told).map(([feature, labels]) => [feature, new Map(Object.entries(labels))]));

it("are those that the sender or their domain had often enough, and no record at all is none", () => {
  const known = counts({
    "p:hester@stbrannoc.example": { "*": 100, "r:often": 2, "r:once": 1, "r:-": 90, "c:tu": 100 },
    "d:stbrannoc.example": { "*": 10, "r:house": 1, "r:undone": 0 },
  });
  expect(candidateRecords(ASKED, known)).toEqual(["often", "house"]);
});

it("are those that a rare word names: there three times as frequent as on the whole", () => {
  const known = counts({
    "*": { "*": 100, "r:named": 10, "r:usual": 30 },
    "w:humidity": { "*": 10, "r:named": 3, "r:usual": 3 },
    "w:bellows": { "*": 10, "r:usual": 8 },
  });
  expect(candidateRecords(ASKED, known)).toEqual(["named"]);
});

it("are none of a letter about which nothing is known", () => {
  expect(candidateRecords(ASKED, new Map())).toEqual([]);
});

it("are the open ones with the most of a letter's unusual words in their titles, and only so many", () => {
  const unusual = new Set(["w:organ", "w:sorrel", "w:bellows"]);
  const titles = [
    ["b", "Organ of the mill"],
    ["c", "Bellows, Sorrel organ"],
    ["a", "ORGAN"],
    ["d", "Roof of the mill"],
  ] as const;
  expect(titledRecords(titles, { unusual })).toEqual(["c", "a", "b"]);
  const many = Array.from({ length: MOST_TITLED + 1 }, (_, at) => [String(at), "Organ"] as const);
  expect(titledRecords(many, { unusual })).toHaveLength(MOST_TITLED);
});
