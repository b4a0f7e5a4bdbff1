import type { AddressInfo } from "node:net";
import { buffer } from "node:stream/consumers";
import { createTransport } from "nodemailer";
import { SMTPServer } from "smtp-server";
import { domainOf, type EmailAddress } from "../../core/kernel/email-address";
import type { Instant } from "../../core/kernel/instant";
import type { KeyLookup } from "../../core/ports";
import { parseMessage } from "../parsing/parse-message";
import type { Character } from "./characters";
import { replyOf } from "./reply-of";
import { type Signing, signingFor } from "./signing";

export type OutsideWorldOptions = {
  readonly host: string;
  /** 0 takes a free one. */
  readonly port: number;
  /** Where the tray listens for mail. */
  readonly tray: () => { readonly host: string; readonly port: number };
  readonly characters: readonly Character[];
  /** How long a second of the stand-in's clock takes, in milliseconds. */
  readonly secondMs: number;
  readonly now: () => Instant;
  readonly newId: () => string;
  readonly onProblem: (problem: unknown) => void;
};

export type OutsideWorld = {
  readonly port: number;
  /** The keys of those who sign, as the DNS would have them. */
  readonly keys: KeyLookup;
  readonly close: () => Promise<void>;
};

/** A small stand-in for everybody outside: an SMTP server that takes what we send and reacts as its characters do. */
export async function startOutsideWorld(options: OutsideWorldOptions): Promise<OutsideWorld> {
  const timers = new Set<NodeJS.Timeout>();
  const signing = signingFor(
    options.characters.filter(({ signs }) => signs === true).map(({ address }) => domainOf(address)),
  );
  const put = new Map<string, number>();
  const taken = new Map<string, number>();
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ["AUTH", "STARTTLS"],
    disableReverseLookup: true,
    banner: "The outside world",
    onRcptTo({ address }, _session, callback) {
      const times = put.get(address.toLowerCase()) ?? 0;
      const { defers = 0 } = options.characters.find((one) => one.address === address.toLowerCase()) ?? {};
      put.set(address.toLowerCase(), times + 1);
      if (times >= defers) return callback();
      callback(Object.assign(new Error("4.7.1 come again in a moment"), { responseCode: 451 }));
    },
    onData(stream, session, callback) {
      buffer(stream)
        .then((raw) => {
          for (const { address } of session.envelope.rcptTo) {
            const recipient = address.toLowerCase();
            const nth = (taken.get(recipient) ?? 0) + 1;
            taken.set(recipient, nth);
            react(options, signing, timers, { recipient, nth }, raw);
          }
        })
        .then(() => callback(null), callback);
    },
  });
  server.on("error", options.onProblem);
  await new Promise<void>((resolve) => server.listen(options.port, options.host, () => resolve()));
  return {
    port: (server.server.address() as AddressInfo).port,
    keys: signing.keys,
    close: () => {
      for (const timer of timers) clearTimeout(timer);
      return new Promise((resolve) => server.close(() => resolve()));
    },
  };
}

function react(
  options: OutsideWorldOptions,
  signing: Signing,
  timers: Set<NodeJS.Timeout>,
  { recipient, nth }: { readonly recipient: string; readonly nth: number },
  raw: Uint8Array,
): void {
  const character = options.characters.find((one) => one.address === recipient);
  for (const reaction of character?.reactions ?? []) {
    if (reaction.kind === "answers" && (reaction.nth ?? nth) !== nth) continue;
    const timer = setTimeout(() => {
      timers.delete(timer);
      if (character !== undefined) send(options, signing, character, reaction, raw).catch(options.onProblem);
    }, reaction.afterSeconds * options.secondMs);
    timers.add(timer);
  }
}

async function send(
  options: OutsideWorldOptions,
  signing: Signing,
  character: Character,
  reaction: Character["reactions"][number],
  raw: Uint8Array,
): Promise<void> {
  const { message } = await parseMessage(raw);
  const { kind } = message.classification;
  const isHeard = reaction.kind === "is-away" && reaction.answersMachines === true && kind === "automatic";
  // RFC 3834 2: a machine does not answer a machine.
  if (kind !== "person" && !isHeard) return;
  const host = character.address.slice(character.address.indexOf("@") + 1);
  const reply = await replyOf(character, reaction, message, options.now(), `${options.newId()}@${host}`);
  const to = (message.replyTo[0] ?? message.from)?.address ?? ("" as EmailAddress);
  const signed = character.signs === true ? await signing.sign(reply.raw, host) : reply.raw;
  const transport = createTransport({ ...options.tray(), secure: false, name: host });
  await transport.sendMail({ envelope: { from: reply.envelopeFrom, to }, raw: Buffer.from(signed) });
  transport.close();
}
