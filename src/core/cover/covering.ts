import type { MemberId, RecordId, TrayId } from "../kernel/ids";
import type { Instant } from "../kernel/instant";

/** Who stands in for an absent colleague: in a tray, or for what is filed to one record there. */
export type Cover = {
  readonly trayId: TrayId;
  /** Null for everything in the tray that no record of its own names. */
  readonly recordId: RecordId | null;
  readonly memberId: MemberId;
};

/** A time in which a colleague is not there. `until` is its end: she is back from then on. */
export type TimeOff = {
  readonly memberId: MemberId;
  readonly from: Instant;
  readonly until: Instant;
  readonly covers: readonly Cover[];
};

/** What somebody covers: the conversations of an owner that are filed to all of some records and to none of others. */
export type Covering = {
  readonly ownerId: MemberId;
  readonly filedTo: readonly RecordId[];
  readonly notFiledTo: readonly RecordId[];
};

/** The time off that a colleague is on at a moment; null when she is there. Of several the one that ends last. */
export function timeOffAt(memberId: MemberId, now: Instant, timesOff: readonly TimeOff[]): TimeOff | null {
  const on = timesOff.filter((one) => one.memberId === memberId && one.from <= now && now < one.until);
  return on.toSorted((a, b) => b.until - a.until)[0] ?? null;
}

/**
 * Who answers for a conversation of an owner now: she herself, or who covers for her, or for whoever covers for her and is
 * away too. Null when that leads to nobody, or round in a circle.
 */
export function inCharge(
  owner: MemberId,
  conversation: { readonly trayId: TrayId; readonly recordIds: readonly RecordId[] },
  now: Instant,
  timesOff: readonly TimeOff[],
): MemberId | null {
  const asked = new Set<MemberId>();
  let member = owner;
  while (!asked.has(member)) {
    asked.add(member);
    const off = timeOffAt(member, now, timesOff);
    if (off === null) return member;
    const covers = off.covers.filter(({ trayId }) => trayId === conversation.trayId);
    const ofRecord = covers.find(({ recordId }) => recordId !== null && conversation.recordIds.includes(recordId));
    const cover = ofRecord ?? covers.find(({ recordId }) => recordId === null);
    if (cover === undefined) return null;
    member = cover.memberId;
  }
  return null;
}

/**
 * Everything that a member covers in a tray now, as conditions that a list can be asked by: together they hold for exactly
 * those conversations of absent colleagues for which `inCharge` names her.
 */
export function coveredBy(
  member: MemberId,
  trayId: TrayId,
  now: Instant,
  timesOff: readonly TimeOff[],
): readonly Covering[] {
  if (timeOffAt(member, now, timesOff) !== null) return [];
  const absent = new Set(timesOff.map((off) => off.memberId));
  return [...absent].flatMap((ownerId) => {
    const start = { member: ownerId, filedTo: [], notFiledTo: [], passed: [] };
    return waysFrom(start, trayId, now, timesOff).flatMap((way) =>
      way.member === member ? [{ ownerId, filedTo: way.filedTo, notFiledTo: way.notFiledTo }] : [],
    );
  });
}

type Way = {
  readonly member: MemberId;
  readonly filedTo: readonly RecordId[];
  readonly notFiledTo: readonly RecordId[];
  /** Those who are away, from the owner on. */
  readonly passed: readonly MemberId[];
};

// Every way from an absent colleague to one who is there, with the records that lead along it.
function waysFrom(way: Way, trayId: TrayId, now: Instant, timesOff: readonly TimeOff[]): Way[] {
  if (way.passed.includes(way.member)) return [];
  const off = timeOffAt(way.member, now, timesOff);
  if (off === null) return way.passed.length === 0 ? [] : [way];
  const covers = off.covers.filter((cover) => cover.trayId === trayId);
  const ofRecords = covers.flatMap(({ recordId, memberId }) => (recordId === null ? [] : [{ recordId, memberId }]));
  const passed = [...way.passed, way.member];
  const ways = ofRecords.flatMap(({ recordId, memberId }, at) => {
    const earlier = ofRecords.slice(0, at).map((one) => one.recordId);
    const next = {
      member: memberId,
      passed,
      filedTo: [...way.filedTo, recordId],
      notFiledTo: [...way.notFiledTo, ...earlier],
    };
    return contradicts(next) ? [] : waysFrom(next, trayId, now, timesOff);
  });
  const usual = covers.find(({ recordId }) => recordId === null);
  if (usual === undefined) return ways;
  const notFiledTo = [...way.notFiledTo, ...ofRecords.map(({ recordId }) => recordId)];
  const rest = { member: usual.memberId, passed, filedTo: way.filedTo, notFiledTo };
  return contradicts(rest) ? ways : [...ways, ...waysFrom(rest, trayId, now, timesOff)];
}

function contradicts({ filedTo, notFiledTo }: Pick<Way, "filedTo" | "notFiledTo">): boolean {
  return filedTo.some((id) => notFiledTo.includes(id));
}

/** True when what somebody covers takes in a conversation of that owner, filed to those records. */
export function isCovered(
  covering: readonly Covering[],
  conversation: { readonly ownerId: string | null; readonly recordIds: readonly string[] },
): boolean {
  return covering.some(
    ({ ownerId, filedTo, notFiledTo }) =>
      ownerId === conversation.ownerId &&
      filedTo.every((id) => conversation.recordIds.includes(id)) &&
      !notFiledTo.some((id) => conversation.recordIds.includes(id)),
  );
}
