import type { AddressInfo } from "node:net";
import { buffer } from "node:stream/consumers";
import { createTransport } from "nodemailer";
import { SMTPServer } from "smtp-server";
import type { EmailAddress } from "../../core/kernel/email-address";
import type { Instant } from "../../core/kernel/instant";
import { parseMessage } from "../inbound/parse-message";
import type { Character } from "./characters";
import { replyOf } from "./reply-of";

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

export type OutsideWorld = { readonly port: number; readonly close: () => Promise<void> };

/** A small stand-in for everybody outside: an SMTP server that takes what we send and reacts as its characters do. */
export async function startOutsideWorld(options: OutsideWorldOptions): Promise<OutsideWorld> {
  const timers = new Set<NodeJS.Timeout>();
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ["AUTH", "STARTTLS"],
    disableReverseLookup: true,
    banner: "The outside world",
    onData(stream, session, callback) {
      buffer(stream)
        .then((raw) => {
          for (const { address } of session.envelope.rcptTo) react(options, timers, address.toLowerCase(), raw);
        })
        .then(() => callback(null), callback);
    },
  });
  server.on("error", options.onProblem);
  await new Promise<void>((resolve) => server.listen(options.port, options.host, () => resolve()));
  return {
    port: (server.server.address() as AddressInfo).port,
    close: () => {
      for (const timer of timers) clearTimeout(timer);
      return new Promise((resolve) => server.close(() => resolve()));
    },
  };
}

function react(options: OutsideWorldOptions, timers: Set<NodeJS.Timeout>, recipient: string, raw: Uint8Array): void {
  const character = options.characters.find((one) => one.address === recipient);
  for (const reaction of character?.reactions ?? []) {
    const timer = setTimeout(() => {
      timers.delete(timer);
      if (character !== undefined) send(options, character, reaction, raw).catch(options.onProblem);
    }, reaction.afterSeconds * options.secondMs);
    timers.add(timer);
  }
}

async function send(
  options: OutsideWorldOptions,
  character: Character,
  reaction: Character["reactions"][number],
  raw: Uint8Array,
): Promise<void> {
  const { message } = await parseMessage(raw);
  // RFC 3834 2: a machine does not answer a machine.
  if (message.classification.kind !== "person") return;
  const host = character.address.slice(character.address.indexOf("@") + 1);
  const reply = await replyOf(character, reaction, message, options.now(), `${options.newId()}@${host}`);
  const to = (message.replyTo[0] ?? message.from)?.address ?? ("" as EmailAddress);
  const transport = createTransport({ ...options.tray(), secure: false, name: host });
  await transport.sendMail({ envelope: { from: reply.envelopeFrom, to }, raw: Buffer.from(reply.raw) });
  transport.close();
}
