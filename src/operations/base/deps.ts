import type { MemberId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { Change, JobQueue, ListLeaver, MailTransport, SendingSettings, TrustSettings } from "../../core/ports";
import type { Aside } from "../../mail/index";
import type { SessionLimits } from "../../storage/access/index";
import type { Database, Pool, Transaction } from "../../storage/base/index";
import type { DirectoryCache } from "./directory-cache";
import type { TrayMemory } from "./tray-memory";

/** From where somebody asks, and with what program. */
type RequestSource = { readonly address: string; readonly device: string };

/** Settings of a member that nearly every page needs. */
export type RowSelection = { readonly memberId: MemberId; readonly settings: ReadonlyMap<string, unknown> };

/** What every operation is given: the one clock, the one maker of ids, and the ways out. */
export type Deps = {
  readonly db: Pool;
  readonly now: () => Instant;
  /** A new UUID, version 7 (RFC 9562), so that ids of one table are in order of time. */
  readonly newId: () => string;
  /** Unguessable text, for sessions. */
  readonly newToken: () => string;
  readonly mail: MailTransport;
  readonly lists: ListLeaver;
  /** Where what came from outside is parsed, laid out, packed and converted. */
  readonly aside: Aside;
  readonly directory: DirectoryCache;
  readonly memory: TrayMemory;
  readonly trust: TrustSettings;
  readonly sending: SendingSettings;
  readonly jobs: JobQueue<Transaction>;
  /** Waits so many milliseconds. */
  readonly pause: (ms: number) => Promise<void>;
  readonly sessions: SessionLimits;
  /** For how long it is kept who came in, changed rights or took mail out, in milliseconds. */
  readonly accessLogKeptMs: number;
  /** Where the request in hand comes from; nowhere for what the clock or a job does. */
  readonly from: RequestSource;
  /** What whoever asks for a page chose, as it came with their session; null where nobody does. */
  readonly chosen: RowSelection | null;
  /** Has what a member has open in any process look again whether it may be open. */
  readonly publishAccess: (memberId: MemberId) => void;
  /** Tells the open screens, after the commit. */
  readonly publishChange: (change: Change) => void;
  /** Whether this is the demo, where colleagues sign in with one click. */
  readonly demo: boolean;
  /** Puts the demo's clock ahead by so many milliseconds; null everywhere else. */
  readonly passTime: ((ms: number) => void) | null;
};

/** What there is within a transaction that somebody else began: everything but the pool. */
export type Within = Omit<Deps, "db">;

/** What asks, of the pool or within a transaction. */
export type Asking = Within & { readonly db: Database };
