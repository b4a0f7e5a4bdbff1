import type { Instant } from "../kernel/instant";
import type { Urgency } from "../kernel/urgency";
import type { StandingKind } from "../standing/standing";
import { type Band, bandOf } from "./bands";
import { WITHOUT } from "./filter";
import type { Grouping } from "./sheet-view";

/** What of a conversation says in which groups it stands. */
export type Groupable = {
  readonly listedAt: Instant;
  readonly dueAt: Instant | null;
  readonly ownerId: string | null;
  readonly categoryIds: readonly string[];
  readonly recordIds: readonly string[];
  readonly whoAddress: string;
  readonly urgency: Urgency;
  readonly standing: StandingKind;
};

/** The keys of the groups that a conversation stands in: with several categories or records, one for each of them. */
export function laneKeysOf(row: Groupable, grouping: Grouping | null, bands: readonly Band[]): readonly string[] {
  switch (grouping) {
    case null:
      return [""];
    case "day":
      return [bandOf(row.listedAt, bands)?.key ?? WITHOUT];
    case "due":
      return [row.dueAt === null ? WITHOUT : (bandOf(row.dueAt, bands)?.key ?? WITHOUT)];
    case "owner":
      return [row.ownerId ?? WITHOUT];
    case "category":
      return row.categoryIds.length === 0 ? [WITHOUT] : row.categoryIds;
    case "record":
      return row.recordIds.length === 0 ? [WITHOUT] : row.recordIds;
    case "person":
      return [row.whoAddress === "" ? WITHOUT : row.whoAddress];
    case "urgency":
      return [row.urgency];
    case "standing":
      return [row.standing];
  }
}
