import type { Instant } from "../../core/kernel/instant";
import type { Colleague, KeptTimeOff, KeptWatch, Tray } from "../../storage/access/index";
import type { allJunkSenders } from "../../storage/mail/index";
import type { KeptAnswer, KeptRule } from "../../storage/rules/index";

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
};

/** The last that was read, and what is being read. */
export type DirectoryCache = { last: Directory | null; reading: Promise<Directory> | null };
