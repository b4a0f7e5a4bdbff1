import type { AddressInfo } from "node:net";
import { SMTPServer, type SMTPServerDataStream } from "smtp-server";
import { type EmailAddress, looseAddress, readEmailAddress } from "../../core/kernel/email-address";

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

export type SmtpListenerOptions = {
  readonly host: string;
  /** 0 takes a free one. */
  readonly port: number;
  readonly maxBytes: number;
};

export type SmtpListener = { readonly port: number; readonly close: () => Promise<void> };

// RFC 5321 4.5.3.1.8 asks for at least 100.
const MAX_RECIPIENTS = 200;
const CLOSE_TIMEOUT_MS = 5_000;
const MAX_CLIENTS = 200;

class SmtpReply extends Error {
  constructor(
    readonly responseCode: number,
    message: string,
  ) {
    super(message);
  }
}

/** Listens for mail (RFC 5321). 250 after DATA is said only once `accept` has returned. */
export async function listenForMail(options: SmtpListenerOptions, acceptance: MailAcceptance): Promise<SmtpListener> {
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ["AUTH", "STARTTLS"],
    disableReverseLookup: true,
    size: options.maxBytes,
    maxClients: MAX_CLIENTS,
    closeTimeout: CLOSE_TIMEOUT_MS,
    banner: "Common Tray",
    onRcptTo(recipient, session, callback) {
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
      readWithin(stream, options.maxBytes)
        .then(async (raw) => {
          if (raw === null) throw new SmtpReply(552, `5.3.4 the message is larger than ${options.maxBytes} bytes`);
          const { mailFrom, rcptTo } = session.envelope;
          await acceptance.accept({
            envelopeSender: mailFrom === false ? "" : looseAddress(mailFrom.address),
            recipients: rcptTo.map((recipient) => looseAddress(recipient.address)),
            raw,
          });
        })
        .then(
          () => callback(null, "2.0.0 kept"),
          (problem) => {
            if (problem instanceof SmtpReply) return callback(problem);
            acceptance.onProblem(problem);
            callback(new SmtpReply(451, "4.3.0 could not be kept now, try again later"));
          },
        );
    },
  });
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

// Over the limit the rest is read and thrown away: the answer belongs after the final dot.
async function readWithin(stream: SMTPServerDataStream, maxBytes: number): Promise<Uint8Array | null> {
  const chunks: Uint8Array[] = [];
  let size = 0;
  for await (const chunk of stream as AsyncIterable<Uint8Array>) {
    size += chunk.byteLength;
    if (size <= maxBytes) chunks.push(chunk);
    else chunks.length = 0;
  }
  return size > maxBytes || stream.sizeExceeded ? null : Buffer.concat(chunks);
}
