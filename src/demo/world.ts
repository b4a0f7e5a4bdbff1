import { type EmailAddress, type Mailbox, readEmailAddress } from "../core/kernel/email-address";
import type { NewCategory, NewMember, NewRecord, NewTray } from "../operations/index.server";

// The made-up world: Ottermoor Organ Works. Every name is invented, every address ends in .example.

export const DEMO_PASSWORD = "ottermoor";
export const ZONE = "Europe/London";

function address(text: string): EmailAddress {
  const read = readEmailAddress(text);
  if (read === null) throw new Error(`${text} is no address`);
  return read;
}

export const TRAYS: readonly NewTray[] = [
  { slug: "office", name: "Ottermoor Organ Works", timeZone: ZONE, addresses: [address("office@ottermoor.example")] },
  { slug: "parts", name: "Ottermoor parts", timeZone: ZONE, addresses: [address("parts@ottermoor.example")] },
];

const colleague = (signInName: string, name: string, initials: string, role: NewMember["role"]): NewMember => ({
  signInName,
  name,
  initials,
  role,
  timeZone: ZONE,
  password: DEMO_PASSWORD,
  trays: ["office", "parts"],
});

export const COLLEAGUES: readonly NewMember[] = [
  colleague("ines", "Ines Varga", "IV", "lead"),
  colleague("tobias", "Tobias Lund", "TL", "member"),
  colleague("col", "Col Whitaker", "CW", "member"),
  colleague("petra", "Petra Rask", "PR", "member"),
  colleague("mattis", "Mattis Orne", "MO", "member"),
  colleague("sunniva", "Sunniva Dale", "SD", "member"),
];

const category = (
  code: string,
  name: string,
  ink: NewCategory["ink"],
  parentCode: string | null = null,
  more: Pick<NewCategory, "key" | "listed" | "description" | "retired"> = {},
): NewCategory => ({
  code,
  name,
  ink,
  parentCode,
  ...more,
});

export const CATEGORIES: readonly NewCategory[] = [
  category("TU", "Tuning", "moss", null, { key: "t", listed: "always" }),
  category("TR", "Tuning round", "olive", "TU", {
    description: "Dates, keys and heating for the autumn and spring rounds",
  }),
  category("QU", "Quotes", "copper", null, { key: "q", listed: "always" }),
  category("IN", "Invoices", "umber", null, { key: "i" }),
  category("RM", "Payment reminders", "sand", "IN"),
  category("HO", "Heritage office", "plum", null, { key: "h", description: "Consents, inspections, reports" }),
  category("AC", "Access", "lagoon"),
  category("DL", "Delivery", "slate", null, { key: "d" }),
  category("MV", "Moves", "graphite", "DL"),
  category("PW", "Pipework", "heather"),
  category("CN", "Console", "rose"),
  category("WN", "Wind and blowers", "lagoon"),
  category("LE", "Leather", "sand"),
  category("TM", "Timber", "olive"),
  category("IS", "Insurance", "brick"),
  category("CT", "Contracts", "umber"),
  category("EX", "Concerts and exams", "plum"),
  category("CP", "Complaints", "brick"),
  category("AP", "Applications", "rose"),
  category("NW", "Newsletters", "graphite", null, { listed: "never" }),
  category("FA", "Fairs", "rose", null, { retired: true, description: "The last one was in spring" }),
];

const record = (code: string, title: string, parentCode: string | null = null, closed = false): NewRecord => ({
  code,
  title,
  parentCode,
  closed,
  kind: code.startsWith("C") ? "client" : "project",
  addresses: (ADDRESSES_OF[code] ?? []).map(address),
});

// Whose mail is likely to belong where.
const ADDRESSES_OF: Readonly<Record<string, readonly string[]>> = {
  "C-008": ["bram@veldthall.example"],
  "C-014": ["treasurer@stbrannoc.example"],
  "C-019": ["otto@quayle.example"],
  "C-033": ["perpetua.vane@vanehouse.example"],
  "P-26-012": ["casework@calder.example", "librarian@sorrelabbey.example"],
};

export const RECORDS: readonly NewRecord[] = [
  record("C-005", "Conservatory of Ister"),
  record("C-008", "Concert hall, Veldt"),
  record("C-014", "St Brannoc, Pell"),
  record("C-019", "Otto Quayle, house organ"),
  record("C-033", "Perpetua Vane, practice organ"),
  record("C-036", "Abbey of Sorrel"),
  record("C-041", "St Alder, Thornwick"),
  record("P-24-017", "Old Wyke chapel, move into store", null, true),
  record("P-25-004", "Reed organ for the vestry, Old Wyke", null, true),
  record("P-25-088", "Abbey of Sorrel, humidity survey", "C-036"),
  record("P-26-012", "Sorrel case restoration", "C-036"),
  record("P-26-019", "Quayle, new blower", "C-019"),
  record("P-26-027", "Veldt console move", "C-008"),
  record("P-26-031", "Thornwick swell box", "C-041"),
  record("P-26-040", "Bellows leather and a new rank, Pell", "C-014"),
  record("P-26-044", "January tuning round"),
];

const person = (name: string, at: string): Mailbox => ({ name, address: address(at) });

/** Who writes to the two trays. */
export const PEOPLE = {
  vane: person("Perpetua Vane", "perpetua.vane@vanehouse.example"),
  thrane: person("Leocadia Thrane", "casework@calder.example"),
  ambrose: person("Ambrose Leather", "sales@ambroseleather.example"),
  sexton: person("Sexton of Old Wyke", "sexton@oldwyke.example"),
  pargeter: person("Wilf Pargeter", "verger@stalder.example"),
  gunnel: person("Gunnel Freight", "traffic@gunnelfreight.example"),
  halse: person("Mutual of Halse", "policies@mutualhalse.example"),
  veldt: person("Bram Oosterling", "stage@veldthall.example"),
  marl: person("Marl & Daughter, joiners", "workshop@marljoiners.example"),
  brannoc: person("Hester Quill, St Brannoc", "wardens@stbrannoc.example"),
  ister: person("Conservatory of Ister", "bookings@isterconservatory.example"),
  quayle: person("Otto Quayle", "otto@quayle.example"),
  moravec: person("Ines Moravec", "i.moravec@longacre.example"),
  sorrel: person("Brother Anselm, Sorrel", "librarian@sorrelabbey.example"),
  tin: person("Tin and Spelter Company", "orders@tinspelter.example"),
  guild: person("Rolling Guild list", "rolling@tinguild.example"),
  review: person("The Reed Review", "post@reedreview.example"),
  bank: person("Ister Savings Bank", "no-reply@istersavings.example"),
  apprentice: person("Jory Penhale", "jory.penhale@westmere.example"),
  dean: person("Dean Rook, Westmere", "dean@westmere.example"),
  spelter: person("Corvin Spelter", "corvin@spelterworks.example"),
  valves: person("Halloran Valves", "counter@halloranvalves.example"),
  felt: person("Northmill Felt", "hello@northmillfelt.example"),
  prize: person("Prize Office", "winner@luckypost.example"),
} satisfies Record<string, Mailbox>;

export type PersonKey = keyof typeof PEOPLE;
