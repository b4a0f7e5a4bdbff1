import {
  BACKLOG_AGES,
  type BacklogAge,
  type BacklogProposal,
  backlogDay,
  backlogProposals,
} from "../../core/lists/backlog";
import type { TrayGrant } from "../../storage/access/index";
import { backlogGroups } from "../../storage/lists/index";
import type { Deps } from "../base/deps";

/** Proposes what of the mail older than an age can be settled in one go; nothing is changed. */
export async function getBacklog(deps: Deps, grant: TrayGrant, age: BacklogAge): Promise<BacklogProposal[]> {
  const ages = BACKLOG_AGES.slice(BACKLOG_AGES.indexOf(age));
  const days = ages.map((each) => backlogDay(each, deps.now()));
  return backlogProposals(await backlogGroups(deps.db, grant, days), backlogDay(age, deps.now()));
}
