import type { RuleId } from "../../core/kernel/ids";
import { DAY, type Instant, later } from "../../core/kernel/instant";
import type { NamedKind } from "../../core/rules/gone-names";
import { ruleChanges } from "../../core/rules/rule-changes";
import type { TrayGrant } from "../../storage/access/index";
import {
  type KeptRule,
  type RuleCount,
  type RuleVersion,
  ruleCountBetween,
  ruleCounts,
  rulesSeenBy,
  ruleVersions,
  stoppedRules,
} from "../../storage/rules/index";
import type { Said } from "../../texts/said";
import type { Deps } from "../base/deps";
import { getJournal, type JournalPage } from "./get-journal";

type Counted = Pick<RuleCount, "did" | "undone">;

/** What a rule did, and how it came to be what it is. */
export type RuleHistory = {
  readonly rule: KeptRule;
  readonly gone: readonly NamedKind[];
  /** How often it did something in the last four weeks and in the twelve before them, and how much of that people took back. */
  readonly lately: Counted;
  readonly before: Counted;
  readonly months: readonly (Counted & Pick<RuleCount, "month">)[];
  /** The newest first, each with what was changed by it and what it did. */
  readonly versions: readonly (RuleVersion & Counted & { readonly changes: readonly Said[] })[];
  /** What was done before versions were kept. */
  readonly unversioned: Counted;
  readonly steps: JournalPage;
};

const LATELY = 28 * DAY;
const BEFORE = 84 * DAY;

/** What a rule of a tray did and was, with its newest steps or those before a moment; null where there is no such rule. */
export async function getRuleHistory(
  deps: Deps,
  grant: TrayGrant,
  id: RuleId,
  before: Instant | null,
): Promise<RuleHistory | null> {
  const { db } = deps;
  const trayId = grant.tray.id;
  const rule = (await rulesSeenBy(db, grant)).find((one) => one.id === id);
  if (rule === undefined) return null;
  const now = deps.now();
  const [stopped, counts, versions, lately, earlier, steps] = await Promise.all([
    stoppedRules(db, [rule]),
    ruleCounts(db, trayId, id, grant.tray.timeZone),
    ruleVersions(db, id),
    ruleCountBetween(db, trayId, id, { from: later(now, -LATELY), until: later(now, 1) }),
    ruleCountBetween(db, trayId, id, { from: later(now, -LATELY - BEFORE), until: later(now, -LATELY) }),
    getJournal(deps, grant, { by: null, kind: null, before, rule: id }),
  ]);
  const months = [...new Set(counts.map(({ month }) => month))];
  const ofVersion = (version: number) => sumOf(counts.filter((count) => count.version === version));
  return {
    rule,
    gone: stopped.get(id) ?? [],
    lately,
    before: earlier,
    months: months.map((month) => ({ month, ...sumOf(counts.filter((count) => count.month === month)) })),
    versions: versions.map((version, at) => ({
      ...version,
      ...ofVersion(version.version),
      changes: ruleChanges(versions[at + 1] ?? null, version),
    })),
    unversioned: ofVersion(0),
    steps,
  };
}

function sumOf(counts: readonly Counted[]): Counted {
  return counts.reduce((sum, { did, undone }) => ({ did: sum.did + did, undone: sum.undone + undone }), {
    did: 0,
    undone: 0,
  });
}
