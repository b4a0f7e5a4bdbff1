import { describe, expect, it } from "vitest";
import { type StreamEvent, StreamedTray, type StreamLetter } from "./stream";

const DAY = 86_400_000;
const NOBODYS = { owner: null, categories: [], record: null, settledUnanswered: false };

/** A tray of three colleagues with two records, in which so many other things were decided. */
class Told {
  readonly tray = new StreamedTray();
  day = 0;
  constructor(others = 30) {
    for (const id of ["ines", "col", "mattis"]) this.happens({ event: "member", at: 0, id, name: id });
    for (const [id, code] of [
      ["mill", "P-26-001"],
      ["abbey", "P-26-002"],
    ] as const)
      this.happens({ event: "record", at: 0, id, code, title: `${id} organ`, parent: null });
    for (let at = 0; at < others; at += 1)
      this.writes({
        from: { address: `p${at}@o${at}.example`, name: "" },
        text: `Something else number ${at} about windows and doors`,
        decided: { ...NOBODYS, owner: ["ines", "col", "mattis"][at % 3] ?? null, categories: [`other-${at % 5}`] },
      });
  }
  happens(event: StreamEvent) {
    return this.tray.take(event);
  }
  writes(letter: Partial<StreamLetter>) {
    this.day += 0.1;
    return this.tray.take({
      event: "conversation",
      at: Math.round(this.day * DAY),
      id: String(this.day),
      from: { address: "ada@vane.example", name: "Ada" },
      to: [],
      listId: null,
      kind: "person",
      subject: "The reeds",
      text: "Could the reeds be tuned before the recital",
      decided: NOBODYS,
      ...letter,
    });
  }
  /** What is proposed for a letter, by kind. */
  proposed(letter: Partial<StreamLetter> = {}) {
    const proposals = this.writes(letter)?.proposals ?? [];
    return Object.fromEntries(proposals.map(({ kind, value, why }) => [kind, { value, why: why.kind }]));
  }
  often(count: number, letter: Partial<StreamLetter>) {
    for (let at = 0; at < count; at += 1) this.writes(letter);
  }
}

const MILL = { owner: "col", categories: ["tuning"], record: "mill", settledUnanswered: false };

describe("what is proposed", () => {
  it("is what was mostly done with the same person, the surest first, each with its reason", () => {
    const told = new Told();
    told.often(12, { decided: MILL });
    const proposals = told.writes({ decided: MILL })?.proposals ?? [];
    expect(proposals.map(({ kind, value }) => `${kind} ${value}`).toSorted()).toEqual([
      "assign col",
      "categorise tuning",
      "file mill",
    ]);
    const said = proposals.map(({ confidence }) => confidence);
    expect(said).toEqual(said.toSorted((a, b) => b - a));
    expect(proposals.find(({ kind }) => kind === "file")?.why).toMatchObject({ was: 12, of: 12 });
  });

  it("is what the domain and the words say where the person is new", () => {
    const told = new Told();
    for (let at = 0; at < 14; at += 1)
      told.writes({ from: { address: `p${at}@vane.example`, name: "" }, decided: MILL });
    const news = told.proposed({ from: { address: "new@vane.example", name: "" } });
    expect(news).toMatchObject({ categorise: { value: "tuning" }, file: { value: "mill" } });
    const elsewhere = told.proposed({ from: { address: "new@elsewhere.example", name: "" } });
    expect(elsewhere).toMatchObject({ categorise: { value: "tuning", why: "words" } });
  });

  it("is the record whose code stands in the letter, whatever habit says, and even where nothing was decided yet", () => {
    expect(new Told(0).proposed({ subject: "About P-26-002" })).toEqual({ file: { value: "abbey", why: "code" } });
    const titled = { subject: "About P-26-002", text: "the abbey organ" };
    expect(new Told(0).proposed(titled)).toEqual({ file: { value: "abbey", why: "code" } });
    const told = new Told();
    told.often(10, { decided: MILL });
    expect(told.proposed({ subject: "About P-26-002" })).toMatchObject({ file: { value: "abbey", why: "code" } });
  });

  it("is a record opened just now, by the words of its title that hardly any letter has", () => {
    const told = new Told();
    for (let at = 0; at < 40; at += 1) {
      told.happens({
        event: "record",
        at: 0,
        id: `n${at}`,
        code: `P-27-${at}`,
        title: `chantry${at} vault${at}`,
        parent: null,
      });
      const text = `The chantry${at} and its vault${at} about windows`;
      told.writes({
        from: { address: `n${at}@n${at}.example`, name: "" },
        text,
        decided: { ...NOBODYS, record: `n${at}` },
      });
    }
    told.happens({ event: "record", at: 0, id: "new", code: "P-28-001", title: "Belfry of Marlstone", parent: null });
    const asked = {
      from: { address: "who@knows.example", name: "" },
      text: "The belfry at Marlstone leans",
      subject: "",
    };
    expect(told.proposed(asked)).toMatchObject({ file: { value: "new", why: "title" } });
  });

  it("is no record that is closed, nobody who has left, and whoever covers for who is away", () => {
    const told = new Told();
    told.often(14, { decided: MILL });
    const at = Math.round(told.day * DAY);
    told.happens({ event: "away", at, id: "col", until: at + DAY, cover: "ines" });
    expect(told.proposed({ decided: { ...MILL, owner: "ines" } })).toMatchObject({ assign: { value: "ines" } });
    told.happens({ event: "record-closed", at, id: "mill" });
    told.happens({ event: "member-left", at, id: "col" });
    const now = told.proposed({ decided: NOBODYS });
    expect(now.file).toBeUndefined();
    expect(now.assign?.value).not.toBe("col");
    expect(now.categorise).toMatchObject({ value: "tuning" });
  });

  it("is no record where letters are left without one on purpose", () => {
    const told = new Told();
    for (let at = 0; at < 24; at += 1) told.writes({ decided: { ...MILL, record: at % 6 === 0 ? "mill" : null } });
    expect(told.proposed().file).toBeUndefined();
  });

  it("is to settle what never needed an answer, and then nobody to own it", () => {
    const told = new Told();
    const news = { listId: "news.example", from: { address: "news@news.example", name: "" } };
    told.often(15, { ...news, decided: { ...NOBODYS, settledUnanswered: true } });
    const proposed = told.proposed(news);
    expect(proposed.settle).toBeDefined();
    expect(proposed.assign).toBeUndefined();
  });

  it("is nothing before twenty decisions, and nothing of which nothing speaks", () => {
    const early = new Told(0);
    early.often(12, { decided: MILL });
    expect(early.proposed()).toEqual({});
    const other = { from: { address: "x@y.example", name: "" }, subject: "", text: "" };
    expect(new Told().proposed(other).file).toBeUndefined();
  });

  it("follows who answers now, and forgets who did long ago", () => {
    const told = new Told();
    told.often(20, { decided: MILL });
    told.day += 90;
    told.often(4, { decided: { ...MILL, owner: "mattis" } });
    expect(told.proposed({ decided: MILL })).toMatchObject({ assign: { value: "mattis" } });
  });

  it("stands whatever a letter is: of one word, of a megabyte, from nobody, in a tray without colleagues or records", () => {
    const told = new Told();
    expect(told.proposed({ text: "Yes", subject: "" })).toBeDefined();
    expect(told.proposed({ text: "reeds and pipes ".repeat(70_000) })).toBeDefined();
    expect(told.proposed({ from: { address: "", name: "" } })).toBeDefined();
    const empty = new StreamedTray();
    const letter = {
      event: "conversation",
      at: 0,
      id: "1",
      from: { address: "a@b.example", name: "" },
      to: [],
    } as const;
    for (let at = 0; at < 30; at += 1)
      empty.take({ ...letter, at, listId: null, kind: "person", subject: "x", text: "y", decided: NOBODYS });
    const asked = { ...letter, at: 31, listId: null, kind: "person", subject: "x", text: "y", decided: NOBODYS };
    expect(empty.take(asked)?.proposals).toEqual([]);
  });

  it("says all that it chose from, by kind", () => {
    const told = new Told();
    told.often(10, { decided: MILL });
    const candidates = told.writes({})?.candidates;
    expect(candidates?.file[0]?.[0]).toBe("mill");
    expect(candidates?.assign).toHaveLength(3);
    expect(candidates?.categorise.length).toBe(6);
  });
});
