import type { ImapFlow } from "imapflow";

/** A mailbox on an IMAP server (RFC 9051). */
export type ImapMailbox = {
  readonly host: string;
  readonly port: number;
  readonly secure: boolean;
  readonly user: string;
  readonly pass: string;
  readonly mailbox: string;
};

/** Up to where a mailbox was read: a uid means something only together with UIDVALIDITY (RFC 3501 2.3.1.1). */
type MailboxPlace = { readonly uidValidity: bigint; readonly lastUid: number };

export type MailboxFollower = {
  /** Up to where it was read before; null at first. */
  readonly place: () => Promise<MailboxPlace | null>;
  /** Keeps a message and its place; it is fetched again when this throws. */
  readonly take: (raw: Uint8Array, place: MailboxPlace) => Promise<void>;
  /** Told after each look: what is wrong, or null. */
  readonly onState: (problem: string | null) => Promise<void>;
};

const LOOK_EVERY_MS = 60_000;
const FIRST_WAIT_MS = 1_000;
const LONGEST_WAIT_MS = 5 * 60_000;
const MAX_MESSAGE_BYTES = 64 * 1024 * 1024;

/**
 * Follows a mailbox until stopped: reads what is new, then waits to be told (IDLE, RFC 2177) or a minute. It only looks
 * (EXAMINE): nothing is moved, deleted or marked as seen. A broken line is taken up again, each time after a longer wait.
 */
export function followMailbox(mailbox: ImapMailbox, follower: MailboxFollower): { stop: () => Promise<void> } {
  let isStopped = false;
  let wake = () => {};
  const pause = (ms: number) =>
    new Promise<void>((resolve) => {
      const timer = setTimeout(resolve, ms);
      wake = () => {
        clearTimeout(timer);
        resolve();
      };
    });
  const following = (async () => {
    let wait = FIRST_WAIT_MS;
    while (!isStopped) {
      try {
        await readWhileOpen(mailbox, follower, { isStopped: () => isStopped, pause, wake: () => wake() });
        wait = FIRST_WAIT_MS;
      } catch (problem) {
        await follower.onState(inWords(problem)).catch(() => {});
        if (!isStopped) await pause(wait);
        wait = Math.min(wait * 2, LONGEST_WAIT_MS);
      }
    }
  })();
  return {
    async stop() {
      isStopped = true;
      wake();
      await following;
    },
  };
}

type Waiting = {
  readonly isStopped: () => boolean;
  readonly pause: (ms: number) => Promise<void>;
  readonly wake: () => void;
};

async function readWhileOpen(mailbox: ImapMailbox, follower: MailboxFollower, waiting: Waiting): Promise<void> {
  const { host, port, secure, user, pass } = mailbox;
  // Loaded only where a mailbox is followed: every start of the tool would wait for it.
  const { ImapFlow: Client } = await import("imapflow");
  const client = new Client({ host, port, secure, auth: { user, pass }, logger: false, maxIdleTime: LOOK_EVERY_MS });
  let isOpen = true;
  client.on("close", () => {
    isOpen = false;
    waiting.wake();
  });
  // Told by the promise that was waiting as well; without a listener it would end the process.
  client.on("error", () => {});
  client.on("exists", () => waiting.wake());
  await client.connect();
  try {
    const { uidValidity } = await client.mailboxOpen(mailbox.mailbox, { readOnly: true });
    while (isOpen && !waiting.isStopped()) {
      await readNew(client, uidValidity, follower);
      await follower.onState(null);
      if (isOpen && !waiting.isStopped()) await waiting.pause(LOOK_EVERY_MS);
    }
  } finally {
    if (isOpen) await client.logout().catch(() => client.close());
  }
  if (!waiting.isStopped()) throw new Error("the server closed the line");
}

async function readNew(client: ImapFlow, uidValidity: bigint, follower: MailboxFollower): Promise<void> {
  const known = await follower.place();
  // With another UIDVALIDITY every uid is new; what is here already is known by its content.
  let lastUid = known !== null && known.uidValidity === uidValidity ? known.lastUid : 0;
  const found = await client.search({ uid: `${lastUid + 1}:*` }, { uid: true });
  // "n:*" gives the last message even where its uid is below n (RFC 3501 6.4.8).
  const uids = (found || []).filter((uid) => uid > lastUid).toSorted((a, b) => a - b);
  for (const uid of uids) {
    const message = await client.fetchOne(String(uid), { source: { maxLength: MAX_MESSAGE_BYTES } }, { uid: true });
    lastUid = uid;
    // Somebody deleted it meanwhile.
    if (message === false || message.source === undefined) continue;
    await follower.take(message.source, { uidValidity, lastUid });
  }
}

function inWords(problem: unknown): string {
  const { authenticationFailed, responseText, message } = problem as {
    authenticationFailed?: boolean;
    responseText?: string;
    message?: string;
  };
  if (authenticationFailed === true) return "the server refuses the user or the password";
  return responseText ?? message ?? String(problem);
}
