import type { Listed } from "../../core/categories/category";
import { HOW_SURE, type HowOften, type HowSure, howOften } from "../../core/filing/how-sure";
import type { MemberId } from "../../core/kernel/ids";
import type { Scope } from "../../core/lists/scope";
import { readView, type SheetView } from "../../core/lists/sheet-view";
import { saveSetting, settingsOf, type TrayGrant } from "../../storage/access/index";
import { trackRecordsOf } from "../../storage/facts/index";
import type { Deps } from "../base/deps";

/** Where one goes after a decision. */
export const AFTER_DECISION = ["next", "previous", "list"] as const;
export type AfterDecision = (typeof AFTER_DECISION)[number];

/** What a member has chosen for all her trays. */
export type Preferences = {
  /** Keys that she gave to commands, by the command's name. */
  readonly keys: Readonly<Record<string, string>>;
  readonly afterDecision: AfterDecision;
  /** What dropping on a record does; null asks. */
  readonly dropOnRecord: "file" | "file-and-settle" | null;
  /** When categories stand in her menus, by id, where she wants it otherwise than everybody. */
  readonly categoriesListed: Readonly<Record<string, Listed>>;
  /** How sure it has to be what is proposed. */
  readonly proposals: HowSure;
};

const PREFERENCES = ["keys", "after-decision", "drop-on-record", "categories-listed", "proposals"] as const;
export type PreferenceName = (typeof PREFERENCES)[number];

/** Under which it is kept how a member wants to be told. */
export const TELLING = "telling";
const VIEWS = "view/";

/** The settings that come with a session. */
export const WITH_SESSION = { keys: [...PREFERENCES, TELLING], beginning: VIEWS };

/** Settings of a member that come with a session: those of whoever asks are known already. */
export async function chosenBy(
  { db, chosen }: Pick<Deps, "db" | "chosen">,
  memberId: MemberId,
  keys: readonly string[],
): Promise<ReadonlyMap<string, unknown>> {
  return chosen?.memberId === memberId ? chosen.settings : settingsOf(db, memberId, keys);
}

/** What a member has chosen, or what is usual. */
export async function preferencesOf(deps: Deps, { memberId }: TrayGrant): Promise<Preferences> {
  const chosen = await chosenBy(deps, memberId, PREFERENCES);
  const after = chosen.get("after-decision");
  const drop = chosen.get("drop-on-record");
  return {
    keys: (chosen.get("keys") as Record<string, string> | undefined) ?? {},
    afterDecision: AFTER_DECISION.find((one) => one === after) ?? "next",
    categoriesListed: (chosen.get("categories-listed") as Record<string, Listed> | undefined) ?? {},
    dropOnRecord: drop === "file" || drop === "file-and-settle" ? drop : null,
    proposals: howSureIn(chosen),
  };
}

function howSureIn(chosen: ReadonlyMap<string, unknown>): HowSure {
  const wanted = chosen.get("proposals");
  return HOW_SURE.find((one) => one === wanted) ?? "often";
}

/** How sure it has to be what is proposed to a member. */
export async function howSureFor(deps: Deps, { memberId }: TrayGrant): Promise<HowSure> {
  return howSureIn(await chosenBy(deps, memberId, ["proposals"]));
}

/** What came of what was proposed in a tray, for each choice of how sure it has to be. */
export async function getProposing(deps: Deps, grant: TrayGrant): Promise<Readonly<Record<HowSure, HowOften | null>>> {
  const records = await trackRecordsOf(deps.db, grant);
  return { often: howOften(records, "often"), sure: howOften(records, "sure") };
}

/** Remembers a preference; null goes back to what is usual. */
export function choosePreference(
  deps: Deps,
  { memberId }: TrayGrant,
  name: PreferenceName,
  value: unknown,
): Promise<void> {
  return saveSetting(deps.db, memberId, name, value);
}

const viewKey = (grant: TrayGrant, scope: Scope) => `${VIEWS}${grant.tray.slug}/${scope}`;

/** How a member looks at a list. */
export async function viewOf(deps: Deps, grant: TrayGrant, scope: Scope): Promise<SheetView> {
  const key = viewKey(grant, scope);
  return readView((await chosenBy(deps, grant.memberId, [key])).get(key));
}

/** Remembers how a member looks at a list; null goes back to the usual view. */
export function chooseView(deps: Deps, grant: TrayGrant, scope: Scope, view: SheetView | null): Promise<void> {
  return saveSetting(deps.db, grant.memberId, viewKey(grant, scope), view);
}
