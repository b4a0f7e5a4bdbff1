import { type AddressInfo, BlockList, isIPv6 } from "node:net";
import { SMTPServer, type SMTPServerDataStream, type SMTPServerSession } from "smtp-server";
import { type EmailAddress, looseAddress, readEmailAddress } from "../../core/kernel/email-address";
import { connectionRoom } from "./connection-room";
import { type LargeMailRoom, largeMailRoom, type Place } from "./large-mail";
import { ratePerMinute } from "./rate-per-minute";

/** A message as it was handed to us, before anything is known of it. */
export type ReceivedMail = {
  /** MAIL FROM: an empty text for `<>`. */
  readonly envelopeSender: string;
  readonly recipients: readonly EmailAddress[];
  readonly raw: Uint8Array;
};

/** What the listener asks the rooms above. */
export type MailAcceptance = {
  /** Whether an address is one of ours. */
  readonly knows: (address: EmailAddress) => Promise<boolean>;
  /** Keeps a message; it returns once the message is safe, and throws when it is not. */
  readonly accept: (mail: ReceivedMail) => Promise<void>;
  readonly onProblem: (problem: unknown) => void;
};

export type MailListenerOptions = {
  readonly host: string;
  /** 0 takes a free one. */
  readonly port: number;
  readonly maxBytes: number;
  /** LMTP (RFC 2033) gives a result for each recipient. */
  readonly protocol?: "smtp" | "lmtp";
  /** Certificate and key in PEM: STARTTLS is offered with them. */
  readonly tls?: { readonly cert: string; readonly key: string } | null;
  /** Networks that may hand mail over; all when empty. */
  readonly networks?: readonly string[];
  readonly messagesAMinute?: number;
  /** Networks for which room is kept, beside those whose mail was taken before. */
  readonly knownNetworks?: readonly string[];
  readonly connectionsOfOneAddress?: number;
};

export type MailListener = { readonly port: number; readonly close: () => Promise<void> };

// RFC 5321 4.5.3.1.8 asks for at least 100.
const MAX_RECIPIENTS = 200;
// RFC 5321 6.3: a loop is likely at 100 Received fields.
const MAX_HOPS = 100;
const CLOSE_TIMEOUT_MS = 5_000;
const MAX_CLIENTS = 200;
const RESERVED_CLIENTS = 50;
const CLIENTS_OF_ONE_ADDRESS = 60;
// RFC 5321 4.5.3.2.7 gives whoever says nothing five minutes; an address that has many connections open gives up its idle ones sooner.
const IDLE_MS = 5 * 60_000;
const GIVES_WAY_AFTER_MS = 2_000;
const LONGEST_CONNECTION_MS = 20 * 60_000;
const LARGE_BYTES = 256 * 1024;
const LARGE_MAIL = { atOnce: 2, mostWaiting: 100, patienceMs: 60_000, undisturbedMs: 30_000 } as const;

class SmtpReply extends Error {
  constructor(
    readonly responseCode: number,
    message: string,
  ) {
    super(message);
  }
}

/** Listens for mail (RFC 5321, RFC 2033). 250 after DATA is said only once `accept` has returned. */
export async function listenForMail(options: MailListenerOptions, acceptance: MailAcceptance): Promise<MailListener> {
  const { tls = null, protocol = "smtp" } = options;
  const mayConnect = networkCheck(options.networks ?? []);
  const isInRate = ratePerMinute(options.messagesAMinute ?? Number.POSITIVE_INFINITY);
  const large = largeMailRoom(LARGE_MAIL);
  const room = connectionRoom({
    most: MAX_CLIENTS,
    reserved: RESERVED_CLIENTS,
    mostOfOneAddress: options.connectionsOfOneAddress ?? CLIENTS_OF_ONE_ADDRESS,
    longestMs: LONGEST_CONNECTION_MS,
    idleMs: GIVES_WAY_AFTER_MS,
    isKnown: options.knownNetworks?.length ? networkCheck(options.knownNetworks) : () => false,
  });
  const server = new SMTPServer({
    authOptional: true,
    lmtp: protocol === "lmtp",
    disabledCommands: tls === null ? ["AUTH", "STARTTLS"] : ["AUTH"],
    ...(tls === null ? {} : tls),
    disableReverseLookup: true,
    size: options.maxBytes,
    // Those that are told to come back later are connected as well until they are gone.
    maxClients: 2 * MAX_CLIENTS,
    socketTimeout: IDLE_MS,
    closeTimeout: CLOSE_TIMEOUT_MS,
    banner: "Common Tray",
    onConnect({ remoteAddress, remotePort }, callback) {
      if (!mayConnect(remoteAddress)) return callback(new SmtpReply(554, "5.7.1 mail is not taken from your network"));
      const stays = room.admits(remoteAddress, remotePort);
      callback(stays ? null : new SmtpReply(421, "4.7.0 too many connections, come back later"));
    },
    onMailFrom(_address, { remoteAddress, remotePort }, callback) {
      room.hears(remoteAddress, remotePort);
      callback(isInRate(remoteAddress, Date.now()) ? null : new SmtpReply(450, "4.7.1 too many messages, slow down"));
    },
    onRcptTo(recipient, session, callback) {
      room.hears(session.remoteAddress, session.remotePort);
      const address = readEmailAddress(recipient.address);
      if (address === null) return callback(new SmtpReply(550, `5.1.3 ${recipient.address} is no address`));
      if (session.envelope.rcptTo.length >= MAX_RECIPIENTS)
        return callback(new SmtpReply(452, "4.5.3 too many recipients"));
      acceptance.knows(address).then(
        (known) => callback(known ? null : new SmtpReply(550, `5.1.1 there is no ${address} here`)),
        (problem) => {
          acceptance.onProblem(problem);
          callback(new SmtpReply(451, "4.3.0 cannot look that up now, try again later"));
        },
      );
    },
    onData(stream, session, callback) {
      // One answer for all in SMTP, one for each recipient in LMTP.
      const answer = callback as unknown as (problem: unknown, answers?: unknown) => void;
      const { remoteAddress, remotePort } = session;
      room.hears(remoteAddress, remotePort, true);
      const done = withRoomFor(stream, { maxBytes: options.maxBytes, large }, async (raw) => {
        const kept = protocol === "lmtp" ? acceptEach : accepted;
        const answers = await kept(checked(raw, options.maxBytes), session, acceptance);
        room.delivered(remoteAddress);
        return answers;
      });
      done
        .then(
          (answers) => answer(null, answers),
          (problem) => answer(replyOf(problem, acceptance)),
        )
        .finally(() => room.hears(remoteAddress, remotePort));
    },
  });
  server.server.on("connection", room.enter);
  // A client that goes away in the middle is its own affair; nothing was promised to it.
  server.on("error", acceptance.onProblem);
  await new Promise<void>((resolve, reject) => {
    server.server.once("error", reject);
    server.listen(options.port, options.host, () => {
      server.server.off("error", reject);
      resolve();
    });
  });
  return {
    port: (server.server.address() as AddressInfo).port,
    close: () => new Promise((resolve) => server.close(resolve)),
  };
}

async function accepted(raw: Uint8Array, session: SMTPServerSession, acceptance: MailAcceptance): Promise<string> {
  await acceptance.accept({ ...mailOf(raw, session), recipients: recipientsOf(session) });
  return "2.0.0 kept";
}

async function acceptEach(raw: Uint8Array, session: SMTPServerSession, acceptance: MailAcceptance) {
  const answers: (string | Error)[] = [];
  for (const recipient of recipientsOf(session)) {
    const kept = acceptance.accept({ ...mailOf(raw, session), recipients: [recipient] });
    answers.push(
      await kept.then(
        () => `2.0.0 kept for ${recipient}`,
        (problem) => replyOf(problem, acceptance),
      ),
    );
  }
  return answers;
}

function mailOf(raw: Uint8Array, { envelope: { mailFrom } }: SMTPServerSession) {
  return { raw, envelopeSender: mailFrom === false ? "" : looseAddress(mailFrom.address) };
}

function recipientsOf(session: SMTPServerSession): EmailAddress[] {
  return session.envelope.rcptTo.map((recipient) => looseAddress(recipient.address));
}

function replyOf(problem: unknown, acceptance: MailAcceptance): SmtpReply {
  if (problem instanceof SmtpReply) return problem;
  acceptance.onProblem(problem);
  return new SmtpReply(451, "4.3.0 could not be kept now, try again later");
}

function checked(raw: Uint8Array | null, maxBytes: number): Uint8Array {
  if (raw === null) throw new SmtpReply(552, `5.3.4 the message is larger than ${maxBytes} bytes`);
  if (hopsOf(raw) > MAX_HOPS) throw new SmtpReply(554, "5.4.6 this message goes round in circles");
  return raw;
}

const HOP = Buffer.from("\nreceived:");
const MAX_HEADER_BYTES = 256 * 1024;

function hopsOf(raw: Uint8Array): number {
  const start = Buffer.from(raw.subarray(0, MAX_HEADER_BYTES)).toString("latin1").toLowerCase();
  const end = /\r?\n\r?\n/.exec(start)?.index ?? start.length;
  return `\n${start.slice(0, end)}`.split(HOP.toString()).length - 1;
}

function networkCheck(networks: readonly string[]): (address: string) => boolean {
  if (networks.length === 0) return () => true;
  const allowed = new BlockList();
  for (const network of networks) {
    const [address = "", prefix = ""] = network.split("/");
    allowed.addSubnet(address, Number(prefix), isIPv6(address) ? "ipv6" : "ipv4");
  }
  return (address) => allowed.check(address, isIPv6(address) ? "ipv6" : "ipv4");
}

type Limits = { readonly maxBytes: number; readonly large: LargeMailRoom };

/** Reads a message and does something with it; one that is large has a place in the room for those until that is done. */
async function withRoomFor<T>(
  stream: SMTPServerDataStream,
  { maxBytes, large }: Limits,
  work: (raw: Uint8Array | null) => Promise<T>,
): Promise<T> {
  let place: Place | null = null;
  try {
    const chunks: Uint8Array[] = [];
    let size = 0;
    // Over a limit the rest is read and thrown away: the answer belongs after the final dot.
    let busy = false;
    for await (const chunk of stream as AsyncIterable<Uint8Array>) {
      size += chunk.byteLength;
      if (size > LARGE_BYTES && place === null && !busy && size <= maxBytes) {
        place = await large.enter();
        busy = place === null;
      }
      busy ||= place?.isTaken() === true;
      if (size <= maxBytes && !busy) chunks.push(chunk);
      else chunks.length = 0;
    }
    if (busy) throw new SmtpReply(451, "4.3.1 too much large mail at once, try again later");
    const raw = size > maxBytes || stream.sizeExceeded ? null : Buffer.concat(chunks);
    chunks.length = 0;
    return await work(raw);
  } finally {
    place?.leave();
  }
}
