import { type EmailAddress, withoutSubaddress } from "../../core/kernel/email-address";
import type { MemberId } from "../../core/kernel/ids";
import { type Instant, SECOND } from "../../core/kernel/instant";
import type { NamedKind } from "../../core/rules/gone-names";
import { isInForce } from "../../core/rules/rule";
import { indexRules, type RuleIndex } from "../../core/rules/rule-index";
import {
  allColleagues,
  allTrays,
  allWatches,
  type Colleague,
  type KeptTimeOff,
  type KeptWatch,
  type Tray,
  timesOffNow,
} from "../../storage/access/index";
import { type Database, isTransaction } from "../../storage/base/index";
import { allJunkSenders } from "../../storage/mail/index";
import {
  allAnswers,
  allRules,
  askedIn,
  type KeptAnswer,
  type KeptRule,
  stoppedAnswers,
  stoppedRules,
} from "../../storage/rules/index";
import type { Asking } from "./deps";
import type { Directory, DirectoryCache, Stopped } from "./directory-cache";

// Mail comes in bursts, and trays change once in months: each message asking twice for them doubled its cost.
const TRUSTED_FOR = 2 * SECOND;

async function directoryOf({ db, now, directory }: Asking): Promise<Directory> {
  const known = directory.last;
  if (known !== null && Math.abs(now() - known.readAt) <= TRUSTED_FOR) return known;
  // Within a transaction nobody waits for what the pool reads: the pool may be waiting for this very transaction.
  if (isTransaction(db)) return remember(directory, readDirectory(db, now()));
  directory.reading ??= remember(directory, readDirectory(db, now())).finally(() => {
    directory.reading = null;
  });
  return directory.reading;
}

async function remember(directory: DirectoryCache, reading: Promise<Directory>): Promise<Directory> {
  directory.last = await reading;
  return directory.last;
}

async function readDirectory(db: Database, readAt: Instant): Promise<Directory> {
  const [trays, colleagues, junkSenders, watches, timesOff, rules, answers] = await Promise.all([
    allTrays(db),
    allColleagues(db),
    allJunkSenders(db),
    allWatches(db),
    timesOffNow(db, readAt),
    allRules(db),
    allAnswers(db),
  ]);
  const [ofRules, ofAnswers] = await Promise.all([stoppedRules(db, rules), stoppedAnswers(db, answers)]);
  const kept = { rules: withoutStopped("rule", rules, ofRules), answers: withoutStopped("answer", answers, ofAnswers) };
  return {
    ...{ readAt, trays, colleagues, junkSenders, watches, timesOff },
    rules: kept.rules.acting,
    answers: kept.answers.acting,
    stopped: [...kept.rules.stopped, ...kept.answers.stopped],
  };
}

type Kept = Pick<KeptRule | KeptAnswer, "id" | "trayId" | "name" | "isOn"> & { readonly memberId?: MemberId };

function withoutStopped<One extends Kept>(
  what: Stopped["what"],
  all: readonly One[],
  gone: ReadonlyMap<One["id"], readonly NamedKind[]>,
): { acting: One[]; stopped: Stopped[] } {
  return {
    acting: all.filter(({ id }) => !gone.has(id)),
    stopped: all
      .filter(({ id, isOn }) => isOn && gone.has(id))
      .map(({ id, trayId, name, memberId = null }) => ({ trayId, what, id, name, memberId, gone: gone.get(id) ?? [] })),
  };
}

/** Those who look into the trays, as they were at most two seconds ago. */
export async function cachedColleagues(deps: Asking): Promise<readonly Colleague[]> {
  return (await directoryOf(deps)).colleagues;
}

/** Whether a tray's mail from an address goes straight to Junk, as it was at most two seconds ago. */
export async function isJunkSender(deps: Asking, trayId: Tray["id"], address: EmailAddress): Promise<boolean> {
  const senders = (await directoryOf(deps)).junkSenders;
  return senders.some((sender) => sender.trayId === trayId && sender.address === address);
}

/** What is watched in all trays, as it was at most two seconds ago. */
export async function cachedWatches(deps: Asking): Promise<readonly KeptWatch[]> {
  return (await directoryOf(deps)).watches;
}

/** Who is away, as it was at most two seconds ago. */
export async function cachedTimesOff(deps: Asking): Promise<readonly KeptTimeOff[]> {
  return (await directoryOf(deps)).timesOff;
}

/** The automatic answers of a tray in their order, as they were at most two seconds ago. */
export async function cachedAnswers(deps: Asking, trayId: Tray["id"]): Promise<readonly KeptAnswer[]> {
  return (await directoryOf(deps)).answers.filter((answer) => answer.trayId === trayId);
}

/** The rules and automatic answers of a tray that are stopped, as they were at most two seconds ago. */
export async function stoppedIn(deps: Asking, trayId: Tray["id"]): Promise<readonly Stopped[]> {
  return (await directoryOf(deps)).stopped.filter((one) => one.trayId === trayId);
}

/** Every address at which one of our trays is written to, as they were at most two seconds ago. */
export async function ownAddresses(deps: Asking): Promise<readonly EmailAddress[]> {
  return (await directoryOf(deps)).trays.flatMap(({ addresses }) => addresses);
}

const ruleIndexes = new WeakMap<Directory, Map<Tray["id"], RuleIndex<KeptRule>>>();

/** The rules of a tray, ready to be asked about what arrives, as they were at most two seconds ago. */
export async function ruleIndexOf(deps: Asking, trayId: Tray["id"]): Promise<RuleIndex<KeptRule>> {
  const directory = await directoryOf(deps);
  const made = ruleIndexes.get(directory) ?? new Map<Tray["id"], RuleIndex<KeptRule>>();
  ruleIndexes.set(directory, made);
  const isAsked = (rule: KeptRule) => isInForce(rule, "arrival", directory.readAt);
  const index = made.get(trayId) ?? indexRules(askedIn(trayId, directory.rules).filter(isAsked));
  made.set(trayId, index);
  return index;
}

/** The rules of a tray that are asked at a moment other than arrival now, in their order, as they were at most two seconds ago. */
export async function rulesAt(
  deps: Asking,
  trayId: Tray["id"],
  moment: "sending" | "passing",
): Promise<readonly KeptRule[]> {
  const { rules } = await directoryOf(deps);
  return askedIn(trayId, rules).filter((rule) => rule.isOn && isInForce(rule, moment, deps.now()));
}

/** The trays, as they were at most two seconds ago. */
export async function cachedTrays(deps: Asking): Promise<readonly Tray[]> {
  return (await directoryOf(deps)).trays;
}

/** Those of the addresses that are a tray's, with a subaddress or without. */
export function addressesOf(tray: Tray, addresses: readonly EmailAddress[]): EmailAddress[] {
  return addresses.filter(
    (address) => tray.addresses.includes(address) || tray.addresses.includes(withoutSubaddress(address)),
  );
}

/** The trays that these addresses belong to, as they were at most two seconds ago. */
export async function traysOfAddresses(deps: Asking, addresses: readonly EmailAddress[]): Promise<Tray[]> {
  const { trays } = await directoryOf(deps);
  const wanted = new Set(addresses.flatMap((address) => [address, withoutSubaddress(address)]));
  return trays.filter((tray) => tray.addresses.some((address) => wanted.has(address)));
}
