import { refusalsTexts } from "../../texts/en/refusals";
import { type Sayable, saidOf } from "../../texts/said";
import type { RefusalWords } from "./refusal-words";

const said = saidOf(refusalsTexts);

/** Why somebody may not, or not like this, change a tray and its members. */
export type PeopleRefusal =
  | { readonly kind: "last-lead" }
  | { readonly kind: "not-yourself" }
  | { readonly kind: "owns-open"; readonly name: Sayable; readonly count: number }
  | { readonly kind: "leads-only" }
  | { readonly kind: "leads-of-all-only" }
  /** Only the demo's time can be let pass. */
  | { readonly kind: "real-clock" }
  | { readonly kind: "never-open" };

export const PEOPLE_REFUSALS: RefusalWords<PeopleRefusal> = {
  "last-lead": () => said("refusals.aTrayNeedsALead"),
  "not-yourself": () => said("refusals.youCannotRemoveYourOwn"),
  "owns-open": ({ count, name }) => said("refusals.ownsOpenConversationsHandThem", { name, count }),
  "leads-only": () => said("refusals.thatIsForThoseWho"),
  "leads-of-all-only": () => said("refusals.whatIsCommonToAll"),
  "real-clock": () => said("refusals.onlyTheDemosTimeCan"),
  "never-open": () => said("refusals.thisTrayWouldNeverBe"),
};
