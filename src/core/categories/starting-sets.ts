import { categoriesTexts } from "../../texts/en/categories";
import { type Said, saidOf } from "../../texts/said";
import type { Ink } from "../kernel/ink";

const said = saidOf(categoriesTexts);

type StartingCategory = { readonly name: Said; readonly ink: Ink; readonly under?: Said };

/** A set of categories that a new tray can begin with. */
export type StartingSet = {
  readonly id: string;
  readonly name: Said;
  readonly categories: readonly StartingCategory[];
};

const of = (ink: Ink, ...names: readonly Said[]): StartingCategory[] => names.map((name) => ({ name, ink }));
const under = (parent: Said, ink: Ink, ...names: readonly Said[]): StartingCategory[] =>
  names.map((name) => ({ name, ink, under: parent }));

/** The sets there are to begin with: by what is done, by whom it is about, by where work stands. */
export const STARTING_SETS: readonly StartingSet[] = [
  {
    id: "activities",
    name: said("categories.setWhatAnOfficeDoes"),
    categories: [
      ...of("copper", said("categories.setQuotes")),
      ...of("umber", said("categories.setInvoices")),
      ...under(said("categories.setInvoices"), "sand", said("categories.setPaymentReminders")),
      ...of("slate", said("categories.setDeliveries")),
      ...of("moss", said("categories.setAppointments")),
      ...of("brick", said("categories.setComplaints")),
      ...of("rose", said("categories.setApplications")),
      ...of("graphite", said("categories.setNewsletters")),
    ],
  },
  {
    id: "people",
    name: said("categories.setWhomItIsAbout"),
    categories: [
      ...of("lagoon", said("categories.setClients")),
      ...of("olive", said("categories.setSuppliers")),
      ...of("plum", said("categories.setAuthorities")),
      ...of("heather", said("categories.setColleagues")),
      ...of("copper", said("categories.setPress")),
    ],
  },
  {
    id: "projects",
    name: said("categories.setHowAProjectGoes"),
    categories: [
      ...of("moss", said("categories.setProjects")),
      ...under(
        said("categories.setProjects"),
        "olive",
        said("categories.setEnquiry"),
        said("categories.setPlanning"),
        said("categories.setUnderWay"),
        said("categories.setAcceptance"),
      ),
      ...of("umber", said("categories.setContracts")),
      ...of("brick", said("categories.setChangesAndClaims")),
    ],
  },
];
