import { inEnglish } from "@tests/support/english";
import { describe, expect, it } from "vitest";
import { type GroupId, type MemberId, type RecordId, type RecordTypeId, trustedId } from "../kernel/ids";
import { codeOf, numberIn, readCodePattern, seriesOn } from "./code-pattern";
import { beginningOf, type FilingField, fieldProblems, readFieldValues } from "./filing-field";
import { type RecordType, typeProblems } from "./record-type";
import { type EntryDraft, readEntry, withAllAbove } from "./register-entry";
import { accessInWords, readLine } from "./register-table";
import { inRegisterOrder } from "./register-tree";

const pattern = (text: string) => {
  const read = readCodePattern(text);
  if (!read.ok) throw new Error(inEnglish(read.error));
  return read.value;
};

describe("a pattern of codes", () => {
  it.each([
    ["P-{yy}-{nnn}", 7, "P-26-007", "P-26-#"],
    ["C-{nnn}", 33, "C-033", "C-#"],
    ["C-{nnn}", 12_345, "C-12345", "C-#"],
    ["AB-{yyyy}{mm}-{n}", 4, "AB-202611-4", "AB-202611-#"],
    ["R-{nnnn}-{yy}", 9, "R-0009-26", "R-#-26"],
  ])("%s gives number %i as %s", (text, number, code, series) => {
    expect(codeOf(pattern(text), "2026-11-24", number)).toBe(code);
    expect(seriesOn(pattern(text), "2026-11-24")).toBe(series);
    expect(numberIn(series, code)).toBe(number);
  });

  it("knows the codes that are not of a series", () => {
    expect(["P-25-007", "P-26-", "P-26-x", "C-007"].map((code) => numberIn("P-26-#", code))).toEqual([
      null,
      null,
      null,
      null,
    ]);
    expect(numberIn("R-#-26", "R-0009-25")).toBeNull();
  });

  it.each([
    ["P-{yy}", /same code.*running number/],
    ["", /running number/],
    ["P-{nn}-{nn}", /leave the other/],
    ["P-{year}-{nnn}", /Write the parts/],
    ["P-{nnn", /Write the parts/],
    ["{nnn}", /capital letters/],
    ["Project {nnn}", /capital letters/],
    ["p-{nnn}", /capital letters/],
    ["P-{nnn} §", /capital letters/],
  ])("is refused when it is %j", (text, words) => {
    const read = readCodePattern(text);
    expect(inEnglish(read.ok ? "" : read.error)).toMatch(words);
  });
});

const field = (given: Partial<FilingField>): FilingField => ({
  key: "k",
  label: "Field",
  kind: "text",
  required: false,
  choices: [],
  start: "",
  remembers: false,
  ...given,
});

describe("filing fields", () => {
  it.each<[Partial<FilingField>, string, string | RegExp]>([
    [{}, "  as written ", "as written"],
    [{ required: true }, "  ", /needed/],
    [{ kind: "number" }, "12,5", "12.5"],
    [{ kind: "number" }, "twelve", /number/],
    [{ kind: "date" }, "2026-02-28", "2026-02-28"],
    [{ kind: "date" }, "2026-02-30", /day/],
    [{ kind: "choice", choices: ["in", "out"] }, "out", "out"],
    [{ kind: "choice", choices: ["in", "out"] }, "over", /none of the choices/],
    [{ kind: "yes-no" }, "no", "no"],
    [{ kind: "yes-no" }, "perhaps", /yes or no/],
    [{ kind: "person" }, "Leocadia Thrane", "Leocadia Thrane"],
    [{}, "x".repeat(501), /500/],
  ])("%j take %j", (given, typed, wanted) => {
    const read = readFieldValues([field(given)], { k: typed });
    if (typeof wanted === "string") expect(inEnglish(read)).toEqual({ ok: true, value: { k: wanted } });
    else expect(inEnglish(read.ok ? "" : read.error.k)).toMatch(wanted);
  });

  it("begin with what was given last where that is remembered and still right", () => {
    const kind = field({ kind: "choice", choices: ["in", "out"], start: "in", remembers: true });
    expect(beginningOf(kind, {})).toBe("in");
    expect(beginningOf(kind, { k: "out" })).toBe("out");
    expect(beginningOf(kind, { k: "gone" })).toBe("in");
    expect(beginningOf({ ...kind, remembers: false }, { k: "out" })).toBe("in");
    expect(beginningOf({ ...kind, choices: ["out"] }, {})).toBe("");
  });

  it.each<[string, Partial<FilingField>[], RegExp]>([
    ["without a name", [{ label: " " }], /needs a name/],
    ["with one name", [{ label: "Kind" }, { label: "kind " }], /Two fields/],
    ["with nothing to choose", [{ kind: "choice" }], /choose from/],
    [
      "with a start that is no choice any more",
      [{ kind: "choice", choices: ["a"], start: "b" }],
      /cannot begin with “b”/,
    ],
    ["with an endless name", [{ label: "x".repeat(61) }], /too long/],
    ["by the dozen", Array.from({ length: 21 }, (_, at) => ({ label: `F${at}` })), /At most 20/],
  ])("are wrong %s", (_, given, words) => expect(inEnglish(fieldProblems(given.map(field))[0])).toMatch(words));

  it("are right otherwise", () => {
    expect(
      inEnglish(fieldProblems([field({}), field({ label: "Kind", kind: "choice", choices: ["a"], start: "a" })])),
    ).toEqual([]);
  });
});

const type = (given: Partial<RecordType>): RecordType => ({
  id: trustedId<RecordTypeId>("t1"),
  name: "Client",
  codePattern: "C-{nnn}",
  fields: [],
  ...given,
});

describe("a type of records", () => {
  it("is right when its codes cannot meet those of another", () => {
    expect(inEnglish(typeProblems(type({}), [type({})]))).toEqual({});
    const other = type({ id: trustedId("t2"), name: "Case", codePattern: "C-{yy}-{nn}" });
    expect(inEnglish(typeProblems(other, [type({})]).codePattern)).toMatch(/“Client” begin with C/);
    expect(inEnglish(typeProblems({ ...other, name: " client", codePattern: "K-{nn}" }, [type({})]).name)).toMatch(
      /already/,
    );
    expect(inEnglish(typeProblems(type({ name: "", fields: [field({ label: "" })] }), []))).toMatchObject({
      name: "Give it a name.",
      fields: "Field 1 needs a name.",
    });
  });
});

describe("an entry of the register", () => {
  const id = (text: string) => trustedId<RecordId>(text);
  const draft: EntryDraft = {
    typeId: trustedId<RecordTypeId>("t1"),
    title: " Sorrel case ",
    parentId: null,
    responsibleId: null,
    note: "",
    addresses: "Casework@Calder.example, casework@calder.example",
    access: null,
  };
  const above = [
    { id: id("b"), parentId: id("a") },
    { id: id("a"), parentId: null },
  ];

  it("is read with its addresses, each once", () => {
    expect(inEnglish(readEntry(draft, null, above))).toMatchObject({
      ok: true,
      value: { title: "Sorrel case", addresses: ["casework@calder.example"] },
    });
  });

  it.each<[string, Partial<EntryDraft>, string, RegExp]>([
    ["without a title", { title: " " }, "title", /called/],
    ["with an endless title", { title: "x".repeat(201) }, "title", /200/],
    ["with an address that is none", { addresses: "nobody" }, "addresses", /“nobody”/],
    ["that nobody would know of", { access: { memberIds: [], groupIds: [] } }, "access", /Nobody/],
    ["with an endless note", { note: "x".repeat(5_001) }, "note", /5,000/],
  ])("is refused %s", (_, given, at, words) => {
    const read = readEntry({ ...draft, ...given }, null, []);
    expect(inEnglish(read.ok ? {} : read.error)).toMatchObject({ [at]: expect.stringMatching(words) });
  });

  it("stands under no record that stands under it", () => {
    const read = readEntry({ ...draft, parentId: id("b") }, id("a"), above);
    expect(inEnglish(read.ok ? {} : read.error)).toMatchObject({ parentId: expect.stringMatching(/under itself/) });
    expect(readEntry({ ...draft, parentId: id("b") }, id("c"), above).ok).toBe(true);
  });

  it("has above it what it stands under, once, even where that comes round", () => {
    const known = new Map(above.map((one) => [one.id, one]));
    expect(withAllAbove(id("b"), known).map((one) => one.id)).toEqual(["b", "a"]);
    expect(withAllAbove(null, known)).toEqual([]);
    const round = new Map([[id("a"), { id: id("a"), parentId: id("b") }] as const, [id("b"), above[0]] as never]);
    expect(withAllAbove(id("a"), round)).toHaveLength(2);
  });

  it("has an access list of its own or none", () => {
    const access = { memberIds: [trustedId<MemberId>("m")], groupIds: [] };
    expect(inEnglish(readEntry({ ...draft, access }, null, []))).toMatchObject({ ok: true, value: { access } });
  });
});

describe("the register as a tree", () => {
  const at = (id: string, parentId: string | null) => ({
    id: trustedId<RecordId>(id),
    parentId: parentId === null ? null : trustedId<RecordId>(parentId),
  });
  const shown = (...records: ReturnType<typeof at>[]) =>
    inRegisterOrder(records).map(({ id, depth }) => `${"-".repeat(depth)}${id}`);

  it("has what stands under a record right after it", () => {
    expect(shown(at("a", null), at("b", null), at("a2", "a"), at("b1", "b"), at("a1", "a"), at("a21", "a2"))).toEqual([
      "a",
      "-a2",
      "--a21",
      "-a1",
      "b",
      "-b1",
    ]);
  });

  it("loses nothing whose parent is not there, or that comes round", () => {
    expect(shown(at("x", "gone"), at("y", "x"))).toEqual(["x", "-y"]);
    expect(shown(at("p", "q"), at("q", "p"))).toEqual(["p", "-q"]);
  });
});

describe("a line of a table of records", () => {
  const client = type({ id: trustedId("t1") });
  const context = {
    byCode: new Map([["C-001", { id: trustedId<RecordId>("c1") }]]),
    taken: new Set(["C-001", "C-666"]),
    types: [client],
    members: [{ id: trustedId<MemberId>("m1"), name: "Ines Varga" }],
    groups: [
      { id: trustedId<GroupId>("g1"), name: "Tuners", memberIds: [trustedId<MemberId>("m1")] },
      { id: trustedId<GroupId>("g2"), name: "Casework", memberIds: [] },
    ],
    readerId: trustedId<MemberId>("m1"),
  };
  const before = {
    typeId: client.id,
    title: "Old",
    parentId: trustedId<RecordId>("c0"),
    responsibleId: null,
    note: "kept",
    addresses: [],
    access: null,
    isClosed: true,
  };

  it("opens a record of its type", () => {
    const cells = {
      title: "Sorrel",
      type: "client",
      under: "c-001",
      responsible: "ines varga",
      addresses: "a@x.example",
    };
    expect(inEnglish(readLine(cells, null, context))).toEqual({
      ok: true,
      value: {
        code: null,
        isClosed: false,
        draft: {
          typeId: "t1",
          parentId: "c1",
          responsibleId: "m1",
          title: "Sorrel",
          addresses: "a@x.example",
          note: "",
          access: null,
        },
      },
    });
    expect(
      inEnglish(readLine({ title: "S", type: "Client", code: "c-002", status: "Closed" }, null, context)),
    ).toMatchObject({
      value: { code: "C-002", isClosed: true },
    });
  });

  it("says who may know of it, in the words in which it is written", () => {
    const access = { memberIds: [trustedId<MemberId>("m1")], groupIds: [trustedId<GroupId>("g2")] };
    const words = accessInWords(access, context);
    expect(words).toBe("Ines Varga; Casework");
    for (const [cell, known] of [
      [words, access],
      ["everybody", null],
      ["", before.access],
    ] as const) {
      const read = readLine({ code: "C-001", access: cell }, before, context);
      expect(read.ok && read.value.draft.access).toEqual(known);
    }
  });

  it("leaves a record as it is where a column is not there", () => {
    expect(inEnglish(readLine({ code: "C-001", title: "New" }, before, context))).toMatchObject({
      value: { isClosed: true, draft: { title: "New", parentId: "c0", note: "kept" } },
    });
    expect(inEnglish(readLine({ code: "C-001", under: "", status: "open" }, before, context))).toMatchObject({
      value: { isClosed: false, draft: { title: "Old", parentId: null } },
    });
  });

  it.each([
    [{ title: "x", type: "Planet" }, /no type “Planet”/],
    [{ title: "x", type: "Client", under: "C-9" }, /no record C-9/],
    [{ title: "x", type: "Client", responsible: "Nobody" }, /“Nobody” is no colleague/],
    [{ title: "x", type: "Client", status: "ajar" }, /“ajar” is neither/],
    [{ title: "x", type: "Client", code: "Client 7" }, /is no code/],
    [{ title: "x", type: "Client", code: "C-666" }, /taken already/],
    [{ title: "x", type: "Client", access: "Ines Varga; Nobody" }, /“nobody” is no colleague or group/],
    [{ title: "x", type: "Client", access: "Casework" }, /name yourself/],
  ])("is reported when it is %j", (cells, words) => {
    const read = readLine(cells, null, context);
    expect(inEnglish(read.ok ? "" : read.error)).toMatch(words);
  });
});
