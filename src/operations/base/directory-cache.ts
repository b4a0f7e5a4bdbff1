import type { AutomaticAnswerId, MemberId, RuleId, TrayId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { NamedKind } from "../../core/rules/gone-names";
import type { Colleague, KeptTimeOff, KeptWatch, Tray } from "../../storage/access/index";
import type { allJunkSenders } from "../../storage/mail/index";
import type { KeptAnswer, KeptRule } from "../../storage/rules/index";

/** Something that is switched on in a tray and does nothing, as it names things of these kinds that are no more. */
export type Stopped = {
  readonly trayId: TrayId;
  readonly what: "rule" | "answer";
  readonly id: RuleId | AutomaticAnswerId;
  readonly name: string;
  /** Whose own rule it is; null for the tray's. */
  readonly memberId: MemberId | null;
  readonly gone: readonly NamedKind[];
};

/** What a process knows of all trays, as it was at a moment. */
export type Directory = {
  readonly readAt: Instant;
  readonly trays: readonly Tray[];
  readonly colleagues: readonly Colleague[];
  readonly junkSenders: Awaited<ReturnType<typeof allJunkSenders>>;
  readonly watches: readonly KeptWatch[];
  readonly timesOff: readonly KeptTimeOff[];
  /** Without those that are stopped, as they name what is no more. */
  readonly rules: readonly KeptRule[];
  /** Without those that are stopped as well. */
  readonly answers: readonly KeptAnswer[];
  readonly stopped: readonly Stopped[];
};

/** The last that was read, and what is being read. */
export type DirectoryCache = { last: Directory | null; reading: Promise<Directory> | null };
