import type { StreamEvent, StreamLetter } from "~/core/filing/stream";
import { pick, seededRandom } from "~/demo/random";

// An office that changes: colleagues leave and come, matters pass from one to another, clients have several projects at a
// time that open and close, some letters belong to none on purpose, people write who never wrote before, and what they write
// says little of what they want. None of it is told to whoever proposes.
const DAYS = 540;
const DAY_MS = 86_400_000;
const FIRST_DAY = Date.UTC(2025, 0, 6, 8);
const COLLEAGUES = 12;
const JOINING = 3;
const LEAVING = 3;
const MATTERS = 25;
const CLIENTS = 110;
const RECORDS = 150;
const NEWSLETTERS = 8;
const MISTAKEN = 0.05;
const UNFILED = 0.25;
const FROM_LISTS = 0.07;
const BY_STRANGERS = 0.08;
const NAMES_CODE = 0.14;
// So that whoever knows everything but chance is right about six letters of seven.
const BY_RECORD = 0.85;
const EXTRA = 0.06;
/** What made-up words are made of. */
export const SYLLABLES = [
  "bal",
  "cor",
  "den",
  "fal",
  "gri",
  "hol",
  "jun",
  "kes",
  "lim",
  "mor",
  "nag",
  "pel",
  "rit",
  "sto",
  "vu",
];
const GREETINGS = ["dear colleagues", "good morning", "hello all", "dear sirs", "to the office"];
const FAREWELLS = ["kind regards", "yours faithfully", "many thanks", "with best wishes"];

type Matter = { readonly id: string; readonly words: readonly string[]; owner: string; readonly beside: string | null };
type Project = {
  readonly id: string;
  readonly code: string;
  readonly client: number;
  readonly opens: number;
  readonly closes: number;
  readonly matters: readonly number[];
  readonly words: readonly string[];
  owner: string;
};
type Client = { readonly domain: string; readonly people: string[]; readonly matters: readonly number[] };

type Decided = StreamLetter["decided"];

export type DriftingTray = {
  /** In the order of time. */
  readonly events: readonly StreamEvent[];
  /** What whoever knows the office would decide about each letter: all but chance and mistakes. */
  readonly knowable: ReadonlyMap<string, Decided>;
};

/** Eighteen months of an office with so many letters, the same for the same seed. */
export function driftingTray(letters: number, seed: number): DriftingTray {
  const office = new Office(seed);
  return { events: office.events(letters), knowable: office.knowable };
}

class Office {
  private readonly random: () => number;
  private readonly common: readonly string[];
  private readonly matters: readonly Matter[];
  private readonly clients: readonly Client[];
  private readonly projects: readonly Project[];
  private readonly here: string[];
  private readonly told: StreamEvent[] = [];
  readonly knowable = new Map<string, Decided>();

  constructor(seed: number) {
    this.random = seededRandom(seed);
    this.common = Array.from({ length: 900 }, () => this.word());
    this.here = Array.from({ length: COLLEAGUES }, (_, at) => `member-${at}`);
    this.matters = Array.from({ length: MATTERS }, (_, at) => ({
      id: `category-${at}`,
      words: Array.from({ length: 24 }, () => this.word()),
      owner: this.someone(),
      beside: at % 4 === 0 ? `category-${(at + 9) % MATTERS}` : null,
    }));
    this.clients = Array.from({ length: CLIENTS }, () => ({
      domain: `${this.word()}-${this.word()}.example`,
      people: Array.from({ length: 1 + this.below(4) }, () => this.word()),
      matters: Array.from({ length: 1 + this.below(3) }, () => this.below(MATTERS)),
    }));
    this.projects = Array.from({ length: RECORDS }, (_, at) => this.project(at));
  }

  events(letters: number): StreamEvent[] {
    for (const id of this.here) this.told.push({ event: "member", at: FIRST_DAY - 1, id, name: id });
    const openings = this.projects.map((project) => ({ at: project.opens, tell: () => this.opens(project) }));
    const closings = this.projects.map((project) => ({ at: project.closes, tell: () => this.closes(project) }));
    const leavings = Array.from({ length: LEAVING }, (_, at) => ({
      at: this.dayOf(0.2 + 0.22 * at + 0.1 * this.random()),
      tell: (when: number) => this.leaves(when),
    }));
    const comings = Array.from({ length: JOINING }, (_, at) => ({
      at: this.dayOf(0.15 + 0.22 * at + 0.1 * this.random()),
      tell: (when: number) => this.comes(when, COLLEAGUES + at),
    }));
    const absences = Array.from({ length: 14 }, (_, at) => ({
      at: this.dayOf((at + this.random()) / 14),
      tell: (when: number) => this.isAway(when),
    }));
    const movings = Array.from({ length: 22 }, () => ({ at: this.dayOf(this.random()), tell: () => this.moves() }));
    const posts = Array.from({ length: letters }, (_, at) => ({
      at: this.dayOf((at + this.random()) / letters),
      tell: (when: number) => this.post(when, at),
    }));
    const all = [...openings, ...closings, ...leavings, ...comings, ...absences, ...movings, ...posts];
    for (const { at, tell } of all.toSorted((a, b) => a.at - b.at)) tell(at);
    return this.told;
  }

  private below(most: number): number {
    return Math.floor(this.random() * most);
  }
  private word(): string {
    return Array.from({ length: 2 + this.below(2) }, () => pick(this.random, SYLLABLES)).join("");
  }
  private someone(): string {
    return pick(this.random, this.here);
  }
  private dayOf(share: number): number {
    return FIRST_DAY + Math.floor(share * DAYS * DAY_MS);
  }

  private project(at: number): Project {
    const client = this.below(CLIENTS);
    // A third is there from the beginning, and some never end.
    const opens = this.random() < 0.33 ? FIRST_DAY - 1 : this.dayOf(this.random() * 0.9);
    const lasts = (90 + this.below(400)) * DAY_MS;
    return {
      id: `record-${at}`,
      code: `P-25-${String(at + 100)}`,
      client,
      opens,
      closes: opens + lasts,
      matters: [pick(this.random, this.clients[client]?.matters ?? [0]), this.below(MATTERS)],
      words: Array.from({ length: 5 }, () => this.word()),
      owner: this.someone(),
    };
  }

  private opens({ id, code, words, opens }: Project): void {
    this.told.push({ event: "record", at: opens, id, code, title: words.slice(0, 3).join(" "), parent: null });
  }
  private closes({ id, closes }: Project): void {
    if (closes < this.dayOf(1)) this.told.push({ event: "record-closed", at: closes, id });
  }
  private leaves(at: number): void {
    const [id] = this.here.splice(this.below(this.here.length), 1);
    if (id === undefined) return;
    this.told.push({ event: "member-left", at, id });
    for (const one of [...this.matters, ...this.projects]) if (one.owner === id) one.owner = this.someone();
  }
  private comes(at: number, number: number): void {
    const id = `member-${number}`;
    this.here.push(id);
    this.told.push({ event: "member", at, id, name: id });
    for (const matter of this.matters) if (this.random() < 0.1) matter.owner = id;
  }
  private moves(): void {
    pick(this.random, this.matters).owner = this.someone();
    pick(this.random, this.projects).owner = this.someone();
  }
  private readonly away = new Map<string, { readonly until: number; readonly cover: string }>();
  private isAway(at: number): void {
    const [id, cover] = [this.someone(), this.someone()];
    if (id === cover) return;
    const until = at + (5 + this.below(12)) * DAY_MS;
    this.away.set(id, { until, cover });
    this.told.push({ event: "away", at, id, until, cover });
  }
  private inCharge(owner: string, at: number): string {
    const away = this.away.get(owner);
    return away !== undefined && away.until > at && this.here.includes(away.cover) ? away.cover : owner;
  }

  private post(at: number, number: number): void {
    if (this.random() < FROM_LISTS) this.newsletter(at, number);
    else this.letter(at, number);
  }

  private letter(at: number, number: number): void {
    const which = Math.floor(CLIENTS * this.random() ** 2);
    const client = this.clients[which];
    if (client === undefined) return;
    const isStranger = this.random() < BY_STRANGERS;
    const open = this.projects.filter((one) => one.client === which && one.opens <= at && one.closes > at);
    const project = isStranger || open.length === 0 || this.random() < UNFILED ? null : pick(this.random, open);
    const matter =
      this.matters[pick(this.random, project?.matters ?? client.matters)] ?? pick(this.random, this.matters);
    const person = isStranger ? this.word() : this.personOf(client);
    const domain = isStranger && this.random() < 0.7 ? "letterbox.example" : client.domain;
    const code = project !== null && this.random() < NAMES_CODE ? ` ${project.code}` : "";
    const id = `letter-${number}`;
    const known = this.known(at, matter, project);
    this.knowable.set(id, known);
    this.told.push({
      event: "conversation",
      at,
      id,
      from: { address: `${person}@${domain}`, name: person },
      to: ["office@ottermoor.example"],
      listId: null,
      kind: "person",
      subject: `${this.says(2 + this.below(4), 0.35, matter, project)}${code}`,
      text: this.body(matter, project, person),
      decided: this.decided(at, matter, known),
    });
  }

  private known(at: number, { id, beside, owner }: Matter, project: Project | null): Decided {
    return {
      owner: this.inCharge(project?.owner ?? owner, at),
      categories: beside === null ? [id] : [id, beside],
      record: project?.id ?? null,
      settledUnanswered: false,
    };
  }

  // Who has the matter has it on a record as well by chance, another category is given, and one of the three is wrong.
  private decided(at: number, matter: Matter, known: Decided): Decided {
    const open = this.projects.filter((one) => one.opens <= at && one.closes > at);
    const isByMatter = this.random() >= BY_RECORD;
    const extra = this.random() < EXTRA ? [pick(this.random, this.matters).id] : [];
    const wrong = this.mistaken() ? this.below(3) : null;
    const owner = isByMatter ? this.inCharge(matter.owner, at) : known.owner;
    return {
      owner: wrong === 0 ? this.someone() : owner,
      categories: wrong === 1 ? [pick(this.random, this.matters).id] : [...new Set([...known.categories, ...extra])],
      record: wrong === 2 ? pick(this.random, open).id : known.record,
      settledUnanswered: false,
    };
  }

  // Now and then somebody writes for a client who has not done so before.
  private personOf({ people }: Client): string {
    if (this.random() < 0.01) people.push(this.word());
    return people[Math.floor(people.length * this.random() ** 1.6)] ?? "office";
  }
  private mistaken(): boolean {
    return this.random() < MISTAKEN;
  }
  private says(length: number, own: number, matter: Matter, project: Project | null): string {
    const one = () => {
      const chance = this.random();
      if (chance < own) return matter.words[Math.floor(matter.words.length * this.random() ** 1.5)] ?? "";
      if (chance < own + 0.06 && project !== null) return pick(this.random, project.words);
      return this.common[Math.floor(this.common.length * this.random() ** 2)] ?? "";
    };
    return Array.from({ length }, one).join(" ");
  }
  private body(matter: Matter, project: Project | null, person: string): string {
    const sentences = Array.from(
      { length: 3 + this.below(6) },
      () => `${this.says(6 + this.below(9), 0.09, matter, project)}.`,
    );
    return `${pick(this.random, GREETINGS)},\n\n${sentences.join(" ")}\n\n${pick(this.random, FAREWELLS)}\n${person}`;
  }
  private newsletter(at: number, number: number): void {
    const which = this.below(NEWSLETTERS);
    const matter = this.matters[which * 3] ?? pick(this.random, this.matters);
    const id = `letter-${number}`;
    const usual = { owner: null, categories: [matter.id], record: null };
    this.knowable.set(id, { ...usual, settledUnanswered: true });
    this.told.push({
      event: "conversation",
      at,
      id,
      from: { address: `news@list-${which}.example`, name: `List ${which}` },
      to: ["office@ottermoor.example"],
      listId: `news.list-${which}.example`,
      kind: "list",
      subject: this.says(4, 0.3, matter, null),
      text: this.body(matter, null, "the editors"),
      decided: {
        ...usual,
        ...(this.random() < 0.9 ? {} : { categories: [] }),
        settledUnanswered: !this.mistaken(),
      },
    });
  }
}
