import { ageInWords } from "../../core/standing/age-in-words";
import { dayAndTime } from "../../core/standing/day-words";
import { FLOW, STANDING_NAMES } from "../../core/standing/standing";
import type {
  BulkRun,
  FlowSegment,
  Member,
  Preferences,
  SavedView,
  ShelfPlace,
  TrayGrant,
  TrayView,
} from "../../operations/index.server";
import { dateChoices } from "./date-choices.server";
import type { Reading } from "./words.server";

/** A segment of the flow bar, ready to be drawn. */
export type SegmentView = {
  readonly standing: (typeof FLOW)[number];
  readonly name: string;
  readonly count: number;
  readonly note: string;
  readonly late: boolean;
  readonly ages: readonly number[];
};

/** The five segments in the order of the flow, empty ones too. */
export function flowView(segments: readonly FlowSegment[], reading: Reading): SegmentView[] {
  return FLOW.map((standing) => {
    const segment = segments.find((one) => one.standing === standing);
    return {
      standing,
      name: STANDING_NAMES[standing],
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
  if (standing === "settled") return { note: "today", late: false };
  if (segment === undefined || segment.count === 0) return { note: "", late: false };
  if (segment.overdue > 0) return { note: `${segment.overdue} overdue`, late: true };
  if (standing === "resting" && segment.nextWake !== null) {
    return { note: `next ${dayAndTime(segment.nextWake, now, zone)}`, late: false };
  }
  return { note: segment.oldestSince === null ? "" : `oldest ${ageInWords(now - segment.oldestSince)}`, late: false };
}

type Around = {
  readonly grants: readonly TrayGrant[];
  readonly preferences: Preferences;
  readonly runs: readonly BulkRun[];
  /** Whether she may create categories of this tray. */
  readonly mayAddCategories: boolean;
  readonly shelf: { readonly places: readonly ShelfPlace[]; readonly views: readonly SavedView[] };
};

/** A run in the background as its member sees it. */
export type RunView = Pick<
  BulkRun,
  "id" | "batchId" | "words" | "state" | "total" | "position" | "changed" | "problem"
> & {
  readonly isUndo: boolean;
};

function runView({ id, batchId, words, state, total, position, changed, problem, work }: BulkRun): RunView {
  return { id, batchId, words, state, total, position, changed, problem, isUndo: work.kind === "undo" };
}

/** Everything that the screens of a tray share. */
export function trayData(
  { flow, members, categories }: TrayView,
  member: Member,
  grant: TrayGrant,
  { grants, preferences, runs, shelf, mayAddCategories }: Around,
  reading: Reading,
) {
  return {
    member: { id: member.id, name: member.name, initials: member.initials },
    tray: { slug: grant.tray.slug, name: grant.tray.name, address: grant.tray.addresses[0] ?? "" },
    trays: grants.map(({ tray }) => ({ slug: tray.slug, address: tray.addresses[0] ?? tray.name })),
    mayDecide: grant.role !== "reader",
    flow: flowView(flow, reading),
    members: members.map(({ id, name, initials }) => ({ id, name, initials })),
    categories: categories.map(({ id, parentId, code, name, ink, key, retired, depth, path, listed }) => ({
      ...{ id, parentId, code, name, ink, key, retired, depth, path },
      listed: preferences.categoriesListed[id] ?? listed,
    })),
    mayAddCategories,
    preferences,
    runs: runs.map(runView),
    shelf: shelf.places,
    savedViews: shelf.views,
    mayLead: grant.role === "lead",
    dateChoices: dateChoices(reading),
    now: reading.now,
  };
}

export type TrayData = ReturnType<typeof trayData>;
