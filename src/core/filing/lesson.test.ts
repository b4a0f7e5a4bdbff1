import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type CategoryId, type MemberId, type RecordId, trustedId } from "../kernel/ids";
import { DAY, instant } from "../kernel/instant";
import { countChanges, DECIDED, type Decided, type Label, labelsOf, UNFILED, UNOWNED } from "./lesson";
import { TrayLessons } from "./tray-lessons";

const [INES, TUNING, HOUSE] = [trustedId<MemberId>("ines"), trustedId<CategoryId>("tu"), trustedId<RecordId>("c33")];
const ALL = [DECIDED, "c:tu", "r:c33", "o:ines"];

describe("what is learned from a conversation", () => {
  const decided = (part: Partial<Decided>): Decided => ({
    ownerId: null,
    categoryIds: [],
    recordIds: [],
    marks: [],
    standing: { kind: "our-move", reason: { kind: "arrived", who: "" } },
    ...part,
  });
  const settled = { kind: "settled", reason: { kind: "settled", by: INES } } as const;
  it("is what was given, and that it was settled without an answer", () => {
    expect(labelsOf(decided({ ownerId: INES, categoryIds: [TUNING], recordIds: [HOUSE] }))).toEqual(ALL);
    expect(labelsOf(decided({ standing: settled }))).toEqual([DECIDED, UNFILED, UNOWNED, "s"]);
    expect(labelsOf(decided({ standing: settled, marks: [[0 as never, "w"]] }))).toEqual([DECIDED, UNFILED, UNOWNED]);
    expect(labelsOf(decided({ standing: settled, ownerId: INES, recordIds: [HOUSE] }))).not.toContain(UNFILED);
  });
  it("is nothing where nobody decided, nor from what was thrown away or settled by an import", () => {
    expect(labelsOf(decided({}))).toEqual([]);
    expect(labelsOf(decided({ standing: { kind: "settled", reason: { kind: "settled", by: null } } }))).toEqual([]);
    expect(
      labelsOf(decided({ ownerId: INES, standing: { kind: "bin", reason: { kind: "binned", by: INES } } })),
    ).toEqual([]);
  });
  it("counts with what it shows and with what else it was given, owners with who answers alone", () => {
    const { counts, owners } = countChanges(["*", "p:ada", "d:a.example", "w:reeds"], [], ALL);
    expect(counts).toContainEqual({ feature: "w:reeds", label: "r:c33", by: 1 });
    expect(counts).toContainEqual({ feature: "r:c33", label: "c:tu", by: 1 });
    expect(counts.some(({ label }) => label.startsWith("o:"))).toBe(false);
    expect(owners.map(({ feature }) => feature).toSorted()).toEqual(["*", "c:tu", "p:ada", "r:c33"]);
  });
});

describe("what a tray has learned", () => {
  const labels = fc
    .array(fc.constantFrom("c:tu", "c:qu", "r:c33", "r:p12", "o:ines", "o:col", "s"), { maxLength: 4 })
    .map((some): Label[] => (some.length === 0 ? [] : [DECIDED, ...new Set(some)]));
  const step = fc.record({ letter: fc.nat(4), labels });
  const features = (letter: number) => ["*", `p:${letter % 2}`, `w:${letter}`, "w:reeds"];
  const began = (letter: number) => instant(letter * 15 * DAY);

  it("is what stands, in whatever order it was decided, undone, done again and merged", () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 40 }), (steps) => {
        const [lived, anew] = [new TrayLessons(), new TrayLessons()];
        const stands = new Map<number, Label[]>();
        for (const { letter, labels: next } of steps) {
          lived.learn(features(letter), stands.get(letter) ?? [], next, began(letter));
          stands.set(letter, next);
        }
        for (const [letter, last] of stands) anew.learn(features(letter), [], last, began(letter));
        expect(lived.everything()).toEqual(anew.everything());
      }),
    );
  });

  it("knows who owns what is about a matter and on no record, until it is on one", () => {
    const lessons = new TrayLessons();
    const [open, filed] = [
      [DECIDED, "c:tu", "o:ines"],
      [DECIDED, "c:tu", "r:c33", "o:ines"],
    ];
    const owned = () =>
      Object.fromEntries(
        [...lessons.ownersOf(["c:tu", "u:tu", "r:c33"], instant(0)).faded].map(([feature, owners]) => [
          feature,
          owners.get("o:ines") ?? 0,
        ]),
      );
    lessons.learn(["*", "w:reeds"], [], open, instant(0));
    expect(owned()).toEqual({ "c:tu": 1, "u:tu": 1, "r:c33": 0 });
    lessons.learn(["*", "w:reeds"], open, filed, instant(0));
    expect(owned()).toEqual({ "c:tu": 1, "u:tu": 0, "r:c33": 1 });
  });

  it("counts an owner less the longer ago it was: half after thirty days", () => {
    const lessons = new TrayLessons();
    lessons.learn(["*"], [], [DECIDED, "o:ines"], instant(0));
    const share = (days: number) =>
      lessons
        .ownersOf(["*"], instant(days * DAY))
        .faded.get("*")
        ?.get("o:ines");
    expect([share(0), share(60), share(120)]).toEqual([1, 0.25, 0.0625]);
    expect(share(600)).toBe(0);
  });
});
