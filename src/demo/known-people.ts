import type { Category } from "../core/categories/category";
import { DAY, later } from "../core/kernel/instant";
import type { Rule, RuleAction } from "../core/rules/rule";
import { type Deps, editAnswer, editContact, editRound, editRule, type TrayGrant } from "../operations/index.server";
import { PEOPLE, type PersonKey } from "./world";

type Known = {
  readonly person: PersonKey;
  readonly organisation: string;
  readonly phone: string;
  readonly also?: string;
  readonly note?: string;
  readonly codes: readonly string[];
};

const KNOWN: readonly Known[] = [
  {
    person: "quayle",
    organisation: "",
    phone: "0555 014 220",
    also: "otto.quayle@telephone.example",
    codes: ["WN"],
    note: "Hard of hearing: ring twice. Writes from the telephone when he is in the garden.",
  },
  { person: "vane", organisation: "Vane House", phone: "0555 019 301", codes: ["TU"] },
  { person: "thrane", organisation: "Heritage Office of Calder", phone: "0555 011 870", codes: ["HO"] },
  {
    person: "brannoc",
    organisation: "St Brannoc, Pell",
    phone: "0555 016 402",
    also: "treasurer@stbrannoc.example",
    codes: [],
    note: "Warden and treasurer; the invoices go to the second address.",
  },
  {
    person: "gunnel",
    organisation: "",
    phone: "0555 012 118",
    also: "dispatch@gunnelfreight.example",
    codes: ["DL", "MV"],
  },
  {
    person: "veldt",
    organisation: "Concert hall, Veldt",
    phone: "0555 018 755",
    also: "bram@veldthall.example",
    codes: [],
  },
  { person: "ambrose", organisation: "", phone: "0555 013 094", codes: ["LE"] },
  {
    person: "spelter",
    organisation: "Spelter Works",
    phone: "0555 017 338",
    also: "corvin.spelter@telephone.example",
    codes: ["PW"],
  },
  { person: "tin", organisation: "", phone: "0555 010 663", codes: ["PW"] },
];

/** The people whom the office knows, and what its tray does by itself; rules act on what comes from now on. */
export async function knowPeople(deps: Deps, grant: TrayGrant, categories: readonly Category[]): Promise<void> {
  const given = (codes: readonly string[]) => categories.filter(({ code }) => codes.includes(code)).map(({ id }) => id);
  const giving = (code: string): RuleAction[] =>
    given([code]).map((categoryId) => ({ kind: "categorise", categoryId, give: true }));
  for (const { person, organisation, phone, also, note = "", codes } of KNOWN) {
    const { name, address } = PEOPLE[person];
    const addresses = [address, ...(also === undefined ? [] : [also])].join(", ");
    const kept = await editContact(deps, grant, null, {
      name: name.split(",")[0] ?? name,
      organisation,
      phone,
      note,
      addresses,
      categoryIds: given(codes),
    });
    if (!kept.ok) throw new Error(`could not know ${name}: ${kept.error.kind}`);
  }
  const round = await editRound(deps, grant, null, { name: "Mass mail", times: "11:00, 16:00" });
  if (!round.ok) throw new Error(`could not keep a round: ${round.error.kind}`);
  const rules: readonly Pick<Rule, "name" | "condition" | "actions">[] = [
    {
      name: "Trade newsletters",
      condition: { kind: "address", where: "from", of: [{ kind: "address", address: PEOPLE.review.address }] },
      actions: [...giving("NW"), { kind: "urgency", urgency: "reading" }],
    },
    {
      name: "Invoices of suppliers",
      condition: {
        kind: "all",
        of: [
          {
            kind: "address",
            where: "from",
            of: [
              { kind: "domain", domain: "tinspelter.example" },
              { kind: "domain", domain: "ambroseleather.example" },
            ],
          },
          { kind: "text", where: "subject", match: { how: "words", values: ["invoice"] } },
        ],
      },
      actions: giving("IN"),
    },
  ];
  for (const rule of rules) {
    const kept = await editRule(deps, grant, {
      ...rule,
      id: null,
      isOn: true,
      isLast: false,
      exception: null,
    });
    if (!kept.ok) throw new Error(`could not keep the rule ${rule.name}: ${kept.error.kind}`);
  }
  await answerByTheClock(deps, grant);
}

// Over the days on which nobody is there, two months ahead.
async function answerByTheClock(deps: Deps, grant: TrayGrant): Promise<void> {
  const from = later(deps.now(), 60 * DAY);
  const kept = await editAnswer(deps, grant, {
    id: null,
    name: "Workshop closed",
    isOn: true,
    from,
    until: later(from, 9 * DAY),
    trigger: { kind: "always" },
    pace: { kind: "once", days: 4 },
    texts: [
      {
        condition: { kind: "text", where: "subject", match: { how: "words", values: ["urgent"] } },
        text: "The workshop is closed until [back]. If an organ is out of action, ring 0555 010 200.",
        copiesCover: false,
      },
      {
        condition: { kind: "every" },
        text: "Thank you for your letter. The workshop is closed until [back]; we answer in the order in which letters came.",
        copiesCover: false,
      },
    ],
  });
  if (!kept.ok) throw new Error(`could not keep an automatic answer: ${kept.error.kind}`);
}
