import { actionsTexts } from "./actions";
import { answersTexts } from "./answers";
import { categoriesTexts } from "./categories";
import { commonTexts } from "./common";
import { conversationTexts } from "./conversation";
import { decidingTexts } from "./deciding";
import { filterTexts } from "./filter";
import { frameTexts } from "./frame";
import { historyTexts } from "./history";
import { journalTexts } from "./journal";
import { keysTexts } from "./keys";
import { listTexts } from "./list";
import { messageTexts } from "./message";
import { notificationsTexts } from "./notifications";
import { officeTexts } from "./office";
import { peopleTexts } from "./people";
import { recordsTexts } from "./records";
import { refusalsTexts } from "./refusals";
import { roundsTexts } from "./rounds";
import { rulesTexts } from "./rules";
import { serverTexts } from "./server";
import { shellTexts } from "./shell";
import { sieveTexts } from "./sieve";
import { sortRunTexts } from "./sort-run";
import { standingTexts } from "./standing";
import { templatesTexts } from "./templates";
import { timeTexts } from "./time";
import { uiTexts } from "./ui";
import { waitingTexts } from "./waiting";
import { writingTexts } from "./writing";

/** All messages, for a server: what it says it looks for here. Browsers have each message where it is said. */
const english = {
  ...actionsTexts,
  ...answersTexts,
  ...categoriesTexts,
  ...commonTexts,
  ...conversationTexts,
  ...decidingTexts,
  ...frameTexts,
  ...historyTexts,
  ...journalTexts,
  ...keysTexts,
  ...listTexts,
  ...filterTexts,
  ...messageTexts,
  ...notificationsTexts,
  ...officeTexts,
  ...peopleTexts,
  ...recordsTexts,
  ...refusalsTexts,
  ...roundsTexts,
  ...rulesTexts,
  ...serverTexts,
  ...shellTexts,
  ...sieveTexts,
  ...sortRunTexts,
  ...standingTexts,
  ...templatesTexts,
  ...timeTexts,
  ...uiTexts,
  ...waitingTexts,
  ...writingTexts,
};

export type English = typeof english;

export function isKey(text: string): text is keyof English {
  return Object.hasOwn(english, text);
}
