import { isDeepStrictEqual } from "node:util";
import { type Docket, deriveDocket } from "../../core/docket/derive-docket";
import { labelsOf } from "../../core/filing/lesson";
import type { ConversationId } from "../../core/kernel/ids";
import { MINUTE } from "../../core/kernel/instant";
import { NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import { viewersAstray } from "../../storage/access/index";
import { databaseVersion } from "../../storage/base/index";
import { lostCategories } from "../../storage/categories/index";
import {
  countsAstray,
  factsOf,
  messagesWithoutRaw,
  type StoredDocket,
  storedDockets,
  totalsAstray,
} from "../../storage/facts/index";
import { dueRests } from "../../storage/mail/index";
import { migrationGap } from "../../storage/migrations/migrate";
import { titlesAstray } from "../../storage/records/index";
import type { Deps } from "../base/deps";
import { type DifferentColumns, differing } from "../changes/recompute";

/** A conversation whose stored docket is not what its facts come to: which columns, stored and derived. */
export type Difference = {
  readonly conversationId: ConversationId;
  readonly columns: DifferentColumns;
};

export type Diagnosis = {
  readonly database: string;
  readonly migrations: { readonly missing: readonly string[]; readonly unknown: readonly string[] };
  readonly conversations: number;
  readonly differences: readonly Difference[];
  readonly messagesWithoutRaw: number;
  /** Conversations with a category that no list of their tray knows. */
  readonly lostCategories: number;
  /** Counts that proposals rest on and that are not what the decided conversations come to. */
  readonly countsAstray: number;
  /** Conversations that say otherwise than their messages how many these are and when the last came. */
  readonly totalsAstray: number;
  /** Records that say otherwise than their access lists who may know of them, or have other words of their titles. */
  readonly recordsAstray: number;
  /** Rests that were over some minutes ago and still rest: no worker runs. */
  readonly restsNotEnded: number;
  readonly healthy: boolean;
};

const BATCH = 500;
const MAX_DIFFERENCES = 100;
const WORKER_GRACE = 5 * MINUTE;

/** Examines a database: everything derived is derived again and compared with what is stored. Changes nothing. */
export async function examine(deps: Deps): Promise<Diagnosis> {
  const migrations = await migrationGap(deps.db);
  const database = await databaseVersion(deps.db);
  const { conversations, differences } = await compareDockets(deps);
  const withoutRaw = await messagesWithoutRaw(deps.db);
  const over = await dueRests(deps.db, (deps.now() - WORKER_GRACE) as ReturnType<Deps["now"]>, MAX_DIFFERENCES);
  const [lost, astray] = [await lostCategories(deps.db), await countsAstray(deps.db)];
  const totals = await totalsAstray(deps.db);
  const records = (await viewersAstray(deps.db)) + (await titlesAstray(deps.db));
  const fits = migrations.missing.length === 0 && migrations.unknown.length === 0;
  return {
    database,
    migrations,
    conversations,
    differences,
    messagesWithoutRaw: withoutRaw,
    lostCategories: lost,
    countsAstray: astray,
    totalsAstray: totals,
    recordsAstray: records,
    restsNotEnded: over.length,
    healthy: fits && differences.length + withoutRaw + lost + astray + totals + records + over.length === 0,
  };
}

async function compareDockets(deps: Deps): Promise<{ conversations: number; differences: Difference[] }> {
  const differences: Difference[] = [];
  let conversations = 0;
  let after: ConversationId | null = null;
  for (;;) {
    const stored: StoredDocket[] = await storedDockets(deps.db, after, BATCH);
    const facts = await factsOf(
      deps.db,
      stored.map(({ id }) => id),
    );
    for (const one of stored) {
      const columns = differingFrom(one, deriveDocket(facts.get(one.id) ?? NOTHING_HAPPENED));
      if (Object.keys(columns).length > 0 && differences.length < MAX_DIFFERENCES) {
        differences.push({ conversationId: one.id, columns });
      }
    }
    conversations += stored.length;
    const last = stored.at(-1);
    if (stored.length < BATCH || last === undefined) return { conversations, differences };
    after = last.id;
  }
}

function differingFrom({ docket: kept, learned, hasLetter }: StoredDocket, docket: Docket): DifferentColumns {
  const labels = hasLetter ? labelsOf(docket) : [];
  const isLearned = learned === null || isDeepStrictEqual(learned, labels);
  return { ...differing(kept, docket), ...(isLearned ? {} : { learned: { stored: learned, derived: labels } }) };
}
