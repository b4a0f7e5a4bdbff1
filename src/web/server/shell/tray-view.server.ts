import { notificationInWords } from "../../../core/notifications/notification-in-words";
import { FLOW, STANDING_NAMES } from "../../../core/standing/standing";
import { ageInWords } from "../../../core/time/age-in-words";
import { dayAndTime, dayInWords } from "../../../core/time/day-words";
import type {
  Bell,
  BulkRun,
  ColleagueNow,
  FlowSegment,
  KeptTimeOff,
  Member,
  Notification,
  Preferences,
  SavedView,
  ShelfPlace,
  TrayGrant,
  TrayView,
  ZipExport,
} from "../../../operations/index.server";
import type { Sayable } from "../../../texts/said";
import type { Reading } from "../base/row-view.server";
import { speak, worded } from "../base/say.server";
import { dateChoices } from "../deciding/date-choices.server";
import { zipExportView } from "../records/zip-export-view.server";

/** A segment of the flow bar, ready to be drawn. */
export type SegmentView = {
  readonly standing: (typeof FLOW)[number];
  readonly name: string;
  readonly count: number;
  readonly note: string;
  readonly late: boolean;
  readonly ages: readonly number[];
};

/** How much rounds hold; null where it is nothing. */
function heldView(segments: readonly FlowSegment[]): number | null {
  return segments.find(({ standing }) => standing === "held")?.count || null;
}

/** The five segments in the order of the flow, empty ones too. */
export function flowView(segments: readonly FlowSegment[], reading: Reading): SegmentView[] {
  return FLOW.map((standing) => {
    const segment = segments.find((one) => one.standing === standing);
    return {
      standing,
      name: speak(STANDING_NAMES[standing]),
      count: segment?.count ?? 0,
      ages: segment?.ages ?? [0, 0, 0, 0, 0],
      ...noteOf(standing, segment, reading),
    };
  });
}

function noteOf(
  standing: SegmentView["standing"],
  segment: FlowSegment | undefined,
  { now, zone }: Reading,
): { note: string; late: boolean } {
  if (standing === "settled") return { note: speak("time.today"), late: false };
  if (segment === undefined || segment.count === 0) return { note: "", late: false };
  if (segment.overdue > 0) return { note: speak("shell.countOverdue", { count: segment.overdue }), late: true };
  if (standing === "resting" && segment.nextWake !== null) {
    return { note: speak("shell.nextWake", { when: dayAndTime(segment.nextWake, now, zone) }), late: false };
  }
  return {
    note: segment.oldestSince === null ? "" : speak("shell.oldestOf", { age: ageInWords(now - segment.oldestSince) }),
    late: false,
  };
}

type Around = {
  readonly grants: readonly TrayGrant[];
  readonly preferences: Preferences;
  readonly runs: readonly BulkRun[];
  readonly zipExports: readonly ZipExport[];
  /** Whether she may create categories of this tray. */
  readonly mayAddCategories: boolean;
  readonly isDemo: boolean;
  readonly bell: Bell;
  readonly timesOff: readonly KeptTimeOff[];
  readonly shelf: { readonly places: readonly ShelfPlace<Sayable>[]; readonly views: readonly SavedView[] };
};

/** A run in the background as its member sees it. */
export type RunView = Pick<
  BulkRun,
  "id" | "batchId" | "words" | "state" | "total" | "position" | "changed" | "problem"
> & {
  readonly canUndo: boolean;
};

function runView({ id, batchId, words, state, total, position, changed, problem, work }: BulkRun): RunView {
  return {
    id,
    batchId,
    words,
    state,
    total,
    position,
    changed,
    problem,
    canUndo: work.kind === "decide" || work.kind === "rule",
  };
}

function colleagueView(
  { id, name, initials, role, away }: ColleagueNow,
  all: readonly ColleagueNow[],
  { now, zone }: Reading,
) {
  return {
    id,
    name,
    initials,
    /** True for who only looks on: nothing is assigned to her. */
    reads: role === "reader",
    away:
      away === null
        ? null
        : {
            back: speak(dayInWords(away.until, now, zone)),
            coverId: away.coverId,
            cover: all.find((one) => one.id === away.coverId)?.name ?? null,
          },
  };
}

/** What the browser shows of a notification: that there is one, and what it is about. */
function popView({ id, event, by, words, count }: Notification, all: readonly ColleagueNow[]) {
  const who = all.find((one) => one.id === by)?.name ?? null;
  const { line, beside } = notificationInWords({ event, who, count, words: worded(words) });
  return { id, title: speak(line), words: beside };
}

/** What may be other after every decision of anybody in the tray. */
export function nowView(
  { flow, bell }: Pick<TrayView, "flow"> & Pick<Around, "bell">,
  colleagues: readonly ColleagueNow[],
  reading: Reading,
) {
  return {
    flow: flowView(flow, reading),
    held: heldView(flow),
    bell: { unread: bell.unread, pop: bell.pop === null ? null : popView(bell.pop, colleagues) },
  };
}

function placeView(place: ShelfPlace<Sayable>): ShelfPlace {
  return { ...place, note: worded(place.note) };
}

/** What a member has going on, and the places of her shelf, with what may be other after every decision. */
export function ownView({ runs, zipExports, shelf }: Pick<Around, "runs" | "zipExports" | "shelf">) {
  return { runs: runs.map(runView), zipExports: zipExports.map(zipExportView), shelf: shelf.places.map(placeView) };
}

/** Everything that the screens of a tray share. */
export function trayData(
  { flow, colleagues, groups, categories }: TrayView,
  member: Member,
  grant: TrayGrant,
  { grants, preferences, runs, zipExports, shelf, mayAddCategories, bell, timesOff, isDemo }: Around,
  reading: Reading,
) {
  return {
    member: { id: member.id, name: member.name, initials: member.initials, timeZone: member.timeZone },
    tray: { slug: grant.tray.slug, name: grant.tray.name, address: grant.tray.addresses[0] ?? "" },
    trays: grants.map(({ tray }) => ({ slug: tray.slug, address: tray.addresses[0] ?? tray.name })),
    mayDecide: grant.role !== "reader",
    ...nowView({ flow, bell }, colleagues, reading),
    ...ownView({ runs, zipExports, shelf }),
    members: colleagues.map((colleague) => colleagueView(colleague, colleagues, reading)),
    groups: groups.map(({ id, name, memberIds }) => ({ id, name, memberIds })),
    /** Times off of hers that began and whose summary she has not read. */
    absenceSummary: timesOff
      .filter(({ from }) => from <= reading.now)
      .map(({ id, until }) => ({
        id,
        isOver: until <= reading.now,
        until: speak(dayInWords(until, reading.now, reading.zone)),
      })),
    categories: categories.map(({ id, parentId, code, name, ink, key, retired, depth, path, listed }) => ({
      id,
      parentId,
      code,
      name,
      ink,
      key,
      retired,
      depth,
      path,
      listed: preferences.categoriesListed[id] ?? listed,
    })),
    mayAddCategories,
    preferences,
    savedViews: shelf.views,
    mayLead: grant.role === "lead",
    /** Whether its clock can be put ahead. */
    isDemo,
    dateChoices: dateChoices(reading),
    now: reading.now,
  };
}

export type TrayData = ReturnType<typeof trayData>;
