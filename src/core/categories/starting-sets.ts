import type { Ink } from "../kernel/ink";

type StartingCategory = { readonly name: string; readonly ink: Ink; readonly under?: string };

/** A set of categories that a new tray can begin with. */
export type StartingSet = {
  readonly id: string;
  readonly name: string;
  readonly categories: readonly StartingCategory[];
};

const of = (ink: Ink, ...names: readonly string[]): StartingCategory[] => names.map((name) => ({ name, ink }));
const under = (parent: string, ink: Ink, ...names: readonly string[]): StartingCategory[] =>
  names.map((name) => ({ name, ink, under: parent }));

/** The sets there are to begin with: by what is done, by whom it is about, by where work stands. */
export const STARTING_SETS: readonly StartingSet[] = [
  {
    id: "activities",
    name: "What an office does",
    categories: [
      ...of("copper", "Quotes"),
      ...of("umber", "Invoices"),
      ...under("Invoices", "sand", "Payment reminders"),
      ...of("slate", "Deliveries"),
      ...of("moss", "Appointments"),
      ...of("brick", "Complaints"),
      ...of("rose", "Applications"),
      ...of("graphite", "Newsletters"),
    ],
  },
  {
    id: "people",
    name: "Whom it is about",
    categories: [
      ...of("lagoon", "Clients"),
      ...of("olive", "Suppliers"),
      ...of("plum", "Authorities"),
      ...of("heather", "Colleagues"),
      ...of("copper", "Press"),
    ],
  },
  {
    id: "projects",
    name: "How a project goes",
    categories: [
      ...of("moss", "Projects"),
      ...under("Projects", "olive", "Enquiry", "Planning", "Under way", "Acceptance"),
      ...of("umber", "Contracts"),
      ...of("brick", "Changes and claims"),
    ],
  },
];
