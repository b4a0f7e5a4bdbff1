import { categoriesTexts } from "./categories";
import { commonTexts } from "./common";
import { conversationTexts } from "./conversation";
import { decidingTexts } from "./deciding";
import { frameTexts } from "./frame";
import { keysTexts } from "./keys";
import { listTexts } from "./list";
import { narrowingTexts } from "./narrowing";
import { officeTexts } from "./office";
import { peopleTexts } from "./people";
import { recordsTexts } from "./records";
import { serverTexts } from "./server";
import { shellTexts } from "./shell";
import { sortRunTexts } from "./sort-run";
import { uiTexts } from "./ui";
import { waitingTexts } from "./waiting";
import { writingTexts } from "./writing";

/** All messages, for a server: what it says it looks for here. Browsers have each message where it is said. */
const english = {
  ...categoriesTexts,
  ...commonTexts,
  ...conversationTexts,
  ...decidingTexts,
  ...frameTexts,
  ...keysTexts,
  ...listTexts,
  ...narrowingTexts,
  ...officeTexts,
  ...peopleTexts,
  ...recordsTexts,
  ...serverTexts,
  ...shellTexts,
  ...sortRunTexts,
  ...uiTexts,
  ...waitingTexts,
  ...writingTexts,
};

export type English = typeof english;

export function isKey(text: string): text is keyof English {
  return Object.hasOwn(english, text);
}
