import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type CategoryId, type MemberId, type RecordId, trustedId } from "../kernel/ids";
import { BANDS, calibrated, NO_RECORD, type TrackRecord, withOutcome } from "./calibration";
import { codesIn, EVERYTHING, featuresOf, readFeature } from "./features";
import { countChanges, DECIDED, type Decided, labelsOf } from "./lesson";
import { type AlreadyGiven, type Evidence, judge, propose } from "./propose";

const [INES, TUNING, HOUSE] = [trustedId<MemberId>("ines"), trustedId<CategoryId>("tu"), trustedId<RecordId>("c33")];
const ALL = [DECIDED, "c:tu", "r:c33", "o:ines"];
const nothing: AlreadyGiven = { ownerId: null, categoryIds: [], recordIds: [] };
const times = <T>(count: number, one: T): T[] => Array.from({ length: count }, () => one);

/** What is known of a tray where a hundred things were decided about, a tenth of them like these labels. */
function known(
  part: Partial<Evidence> & { readonly also?: Readonly<Record<string, Readonly<Record<string, number>>>> } = {},
): Evidence {
  const base = { [DECIDED]: 100, "c:tu": 10, "r:c33": 10, "o:ines": 20, s: 10 };
  const counts = Object.entries({ [EVERYTHING]: base, ...part.also });
  return {
    counts: new Map(counts.map(([feature, labels]) => [feature, new Map(Object.entries(labels))])),
    precedents: [],
    named: [],
    belongs: [],
    records: {},
    ...part,
  };
}

const LETTER = {
  from: "Vane@VaneHouse.example",
  listId: null,
  subject: "Re: Tuning 2026",
  ownText: "Could the reeds be tuned?",
};
const FEATURES = featuresOf(LETTER);
const kinds = (evidence: Evidence, given = nothing) => propose(FEATURES, evidence, given).map(({ kind }) => kind);

describe("the features of a letter", () => {
  it("are its domain, its list and its telling words, once each, without numbers", () => {
    expect(featuresOf({ ...LETTER, listId: "news.vanehouse.example" })).toEqual([
      "*",
      "d:vanehouse.example",
      "l:news.vanehouse.example",
      "s:tuning",
      "t:reeds",
      "t:tuned",
    ]);
    expect(readFeature("d:vanehouse.example")).toEqual({ kind: "domain", text: "vanehouse.example" });
    expect(readFeature("*")).toEqual({ kind: "everything", text: "" });
    expect(() => readFeature("q:x")).toThrow("no feature");
  });
  it("are few, whatever the letter", () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 3_000 }), fc.string(), fc.string(), (ownText, subject, from) => {
        const features = featuresOf({ from, listId: null, subject, ownText });
        expect(features.length).toBeLessThanOrEqual(19);
        expect(new Set(features).size).toBe(features.length);
      }),
    );
  });
  it("are apart from the reference codes in it", () => {
    expect(codesIn({ ...LETTER, subject: "P-26-012 again" })).toEqual(["P-26-012"]);
  });
});

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
    expect(labelsOf(decided({ standing: settled }))).toEqual([DECIDED, "s"]);
    expect(labelsOf(decided({ standing: settled, marks: [[0 as never, "w"]] }))).toEqual([DECIDED]);
  });
  it("is nothing where nobody decided, nor from what was thrown away or settled by an import", () => {
    expect(labelsOf(decided({}))).toEqual([]);
    expect(labelsOf(decided({ standing: { kind: "settled", reason: { kind: "settled", by: null } } }))).toEqual([]);
    expect(
      labelsOf(decided({ ownerId: INES, standing: { kind: "bin", reason: { kind: "binned", by: INES } } })),
    ).toEqual([]);
  });
  it("is counted anew as it is decided otherwise, and not at all when it is undone", () => {
    const labels = fc.array(fc.constantFrom(...ALL, "s"), { maxLength: 5 }).map((some) => [...new Set(some)]);
    fc.assert(
      fc.property(fc.array(labels, { minLength: 1, maxLength: 6 }), (states) => {
        const counts = new Map<string, number>();
        [[], ...states, []].reduce((before, now) => {
          for (const { feature, label, by } of countChanges(["*", "s:tuning"], before, now))
            counts.set(`${feature} ${label}`, (counts.get(`${feature} ${label}`) ?? 0) + by);
          return now;
        });
        expect([...counts.values()].every((count) => count === 0)).toBe(true);
      }),
    );
  });
});

describe("what is proposed", () => {
  it("is what was mostly done with the same person, with how often", () => {
    const evidence = known({ precedents: times(8, ALL) });
    expect(kinds(evidence)).toEqual(expect.arrayContaining(["file", "categorise", "assign"]));
    expect(propose(FEATURES, evidence, nothing)[0]?.because).toEqual({ kind: "person", was: 8, of: 8 });
  });
  it("is what her domain, her list or her words say where she is new", () => {
    const of = { [DECIDED]: 30, "c:tu": 29 };
    const reason = (features: readonly string[], ...telling: readonly string[]) =>
      propose(features, known({ also: Object.fromEntries(telling.map((one) => [one, of])) }), nothing)[0]?.because;
    expect(reason(FEATURES, "d:vanehouse.example")).toEqual({
      kind: "domain",
      text: "vanehouse.example",
      was: 29,
      of: 30,
    });
    const listed = featuresOf({ ...LETTER, listId: "n.example" });
    expect(reason(listed, "l:n.example")).toMatchObject({ kind: "list", text: "n.example" });
    expect(reason(FEATURES, "s:tuning", "t:reeds", "t:tuned")).toMatchObject({
      kind: "words",
      words: ["reeds", "tuned"],
      was: 29,
    });
  });
  it("is the record whose code stands in the letter, even where nothing was decided yet", () => {
    const evidence = { counts: new Map(), precedents: [], named: [HOUSE], belongs: [], records: {} };
    expect(propose(FEATURES, evidence, nothing)).toMatchObject([
      { kind: "file", recordId: HOUSE, because: { kind: "code" } },
    ]);
  });
  it("is the one record that the register says its writer belongs to, and what was done before where it says several", () => {
    const other = trustedId<RecordId>("other");
    const evidence = { ...known(), counts: new Map(), belongs: [HOUSE] };
    expect(propose(FEATURES, evidence, nothing)).toMatchObject([
      { kind: "file", recordId: HOUSE, because: { kind: "belongs" } },
    ]);
    expect(propose(FEATURES, evidence, { ...nothing, recordIds: [other] })).toEqual([]);
    expect(kinds({ ...evidence, belongs: [HOUSE, other] })).toEqual([]);
    const filed = known({ precedents: times(4, [DECIDED, "r:other"]) });
    expect(propose(FEATURES, { ...filed, belongs: [HOUSE, other] }, nothing)[0]).toMatchObject({ recordId: other });
  });
  it("is nothing where little is known, or where it went now so, now so", () => {
    expect(kinds({ ...known(), counts: new Map() })).toEqual([]);
    expect(kinds(known())).toEqual([]);
    expect(kinds(known({ precedents: [...times(3, ALL), ...times(5, [DECIDED])] }))).toEqual([]);
  });
  it("is not what is so already, and no second place or owner", () => {
    const precedents = times(8, [...ALL, "r:other", "c:in"]);
    const also = { [EVERYTHING]: { [DECIDED]: 100, "c:tu": 10, "r:c33": 12, "r:other": 10, "c:in": 9, "o:ines": 20 } };
    const evidence = known({ precedents, also });
    expect(kinds(evidence).filter((kind) => kind === "file")).toHaveLength(1);
    const given = { ownerId: INES, categoryIds: [TUNING], recordIds: [] };
    const proposed = propose(FEATURES, evidence, given);
    expect(proposed.map(({ kind }) => kind).toSorted()).toEqual(["categorise", "file"]);
    expect(proposed.find(({ kind }) => kind === "categorise")).toMatchObject({ categoryId: "in" });
  });
  it("is to settle what never needed an answer, and then nobody to own it", () => {
    expect(kinds(known({ precedents: times(8, [...ALL, "s"]) }))).not.toContain("assign");
    expect(kinds(known({ precedents: times(8, [...ALL, "s"]) }))).toContain("settle");
  });
  it("is at most four, the surest first", () => {
    const many = Array.from({ length: 6 }, (_, at) => `c:${at}`);
    const base = Object.fromEntries([[DECIDED, 100], ...many.map((label) => [label, 10])]);
    const evidence = known({ precedents: times(9, [DECIDED, ...many]), also: { [EVERYTHING]: base } });
    const proposals = propose(FEATURES, evidence, nothing);
    expect(proposals).toHaveLength(4);
    const said = proposals.map(({ confidence }) => confidence);
    expect(said).toEqual(said.toSorted((a, b) => b - a));
  });
  it("falls silent where such proposals were mostly wrong", () => {
    const evidence = known({ precedents: times(8, ALL) });
    const wrong: TrackRecord = NO_RECORD.map(() => ({ said: 100, right: 20 }));
    expect(kinds({ ...evidence, records: { file: wrong, categorise: wrong, assign: wrong } })).toEqual([]);
    const raw = judge(FEATURES, evidence).map((one) => one.raw);
    expect(raw).toEqual(raw.toSorted((a, b) => b - a));
  });
});

describe("a confidence", () => {
  it("is taken at its word until there are outcomes, then as they were", () => {
    expect(calibrated(0.85, NO_RECORD)).toBeCloseTo(0.85);
    let record = NO_RECORD;
    for (let at = 0; at < 300; at += 1) record = withOutcome(record, 0.85, at % 2 === 0);
    expect(calibrated(0.85, record)).toBeGreaterThan(0.48);
    expect(calibrated(0.85, record)).toBeLessThan(0.6);
    expect(withOutcome(NO_RECORD, 1, true).at(-1)).toEqual({ said: 1, right: 1 });
  });
  it("never says less for more, and stays between 0 and 1, whatever the outcomes were", () => {
    const band = fc.record({ said: fc.nat(200), share: fc.double({ min: 0, max: 1, noNaN: true }) });
    fc.assert(
      fc.property(fc.array(band, { minLength: BANDS, maxLength: BANDS }), (bands) => {
        const record = bands.map(({ said, share }) => ({ said, right: Math.round(said * share) }));
        const said = Array.from({ length: 101 }, (_, at) => calibrated(at / 100, record));
        for (let at = 1; at < said.length; at += 1) {
          expect(said[at]).toBeGreaterThanOrEqual((said[at - 1] ?? 0) - 1e-9);
        }
        expect(Math.min(...said)).toBeGreaterThanOrEqual(0);
        expect(Math.max(...said)).toBeLessThanOrEqual(1);
      }),
    );
  });
});
