import { setTimeout as pause } from "node:timers/promises";
import { createTransport } from "nodemailer";
import pino from "pino";
import { SMTPServer } from "smtp-server";
import type { EmailAddress } from "~/core/kernel/email-address";
import { type ConversationId, type MessageId, trustedId } from "~/core/kernel/ids";
import { parseMessage } from "~/mail/index";
import { wire } from "~/main/wiring";
import { answerConversation, receiveMessage, resumeWork } from "~/operations/index.server";
import { aMessage } from "./mail";
import { type ServerProcess, startServerProcess } from "./server-process";
import { setUpOffice, type TestTray } from "./test-database";

/** How hard it is: messages in and out, over how many connections, and how often the server is killed. */
export type Storm = {
  readonly incoming: number;
  readonly outgoing: number;
  readonly connections: number;
  readonly kills: number;
};

/** What is left of it. */
export type Aftermath = {
  /** Incoming messages that are not there exactly once. */
  readonly wrongIn: readonly string[];
  /** Outgoing ones that went twice and are not shown as uncertain, or never went and are not shown as failed. */
  readonly wrongOut: readonly string[];
  /** Outgoing ones that a person has to look at. */
  readonly uncertain: number;
  readonly kills: number;
};

const OFFICE = "office@ottermoor.example" as EmailAddress;
// Somebody else's server takes its time, so that some of the kills find a message half handed over.
const ACCEPTS_WITHIN_MS = 500;

/** Delivers and sends while the server is killed (kill -9) again and again, until everything is through. */
export async function killStorm(tray: Pick<TestTray, "url" | "ask">, storm: Storm): Promise<Aftermath> {
  const outside = await startSink();
  const wired = wire({ databaseUrl: tray.url, demo: true, poolSize: 4 }, pino({ level: "silent" }));
  const sent = await writeAnswers(wired.deps, storm.outgoing);
  const environment = {
    DATABASE_URL: tray.url,
    SMTP_OUT_PORT: String(outside.port),
    LOG_LEVEL: "info",
    // All of it goes to one domain, and its pace is not what this is about.
    SEND_PER_DOMAIN_A_MINUTE: "100000",
  };
  let server: ServerProcess | null = await startServerProcess(environment);
  let kills = 0;
  const moments = randomMoments(storm);
  const killAt = async (delivered: number) => {
    if (server === null || delivered < (moments[kills] ?? Number.POSITIVE_INFINITY)) return;
    const dying: ServerProcess = server;
    server = null;
    kills += 1;
    await dying.kill();
    server = await startServerProcess(environment);
  };
  await deliverAll(storm, () => server?.mailPort ?? null, killAt);
  await settled(tray, wired.deps);
  const aftermath = await judged(tray, storm, sent, outside.counts);
  await (server as ServerProcess | null)?.stop();
  await wired.close();
  await outside.close();
  return { ...aftermath, kills };
}

// In the middle of it, wherever that is: after how many messages each kill comes, with some left to come after the last.
function randomMoments({ incoming, kills }: Storm): number[] {
  return Array.from({ length: kills }, () => Math.floor(Math.random() * incoming * 0.9)).toSorted((a, b) => a - b);
}

async function writeAnswers(deps: ReturnType<typeof wire>["deps"], count: number): Promise<Map<MessageId, string>> {
  const office = await setUpOffice(deps);
  const sent = new Map<MessageId, string>();
  const [kept] = await receiveMessage(deps, {
    raw: aMessage({ id: "first@x.example" }),
    envelopeSender: "a@x.example",
    recipients: [OFFICE],
  });
  const conversationId = kept?.conversationId ?? trustedId<ConversationId>("");
  for (let at = 0; at < count; at += 1) {
    const answered = await answerConversation(deps, office.grant, office.ines, conversationId, {
      to: [{ name: "", address: `p${at}@x.example` as EmailAddress }],
      cc: [],
      subject: `Answer ${at}`,
      html: `<p>${at}</p>`,
      after: { kind: "keep" },
    });
    if (!answered.ok) throw new Error(answered.error.kind);
    sent.set(answered.value, `${answered.value}@ottermoor.example`);
  }
  return sent;
}

async function startSink() {
  const counts = new Map<string, number>();
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ["AUTH", "STARTTLS"],
    onData(stream, _session, callback) {
      const chunks: Buffer[] = [];
      stream.on("data", (chunk: Buffer) => chunks.push(chunk));
      stream.on("end", () => {
        parseMessage(Buffer.concat(chunks)).then(({ message: { messageId } }) => {
          counts.set(messageId ?? "", (counts.get(messageId ?? "") ?? 0) + 1);
          setTimeout(callback, Math.random() * ACCEPTS_WITHIN_MS, null);
        }, callback);
      });
    },
  });
  // A sender that is killed in the middle of a line is what this is about.
  server.on("error", () => {});
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  const { port } = server.server.address() as { port: number };
  return { port, counts, close: () => new Promise<void>((resolve) => server.close(() => resolve())) };
}

// As a sender does that gives nothing up: again and again until it hears 250.
async function deliverAll(
  { incoming, connections }: Storm,
  port: () => number | null,
  afterEach: (delivered: number) => Promise<void>,
): Promise<void> {
  let count = 0;
  const kills: Promise<void>[] = [];
  const waiting = Array.from({ length: incoming }, (_, at) => at);
  const connection = async () => {
    for (let at = waiting.shift(); at !== undefined; at = waiting.shift()) {
      const raw = Buffer.from(
        aMessage({
          id: `storm-${at}@x.example`,
          ...(at % 3 === 1 ? { inReplyTo: `storm-${at - 1}@x.example` } : {}),
          body: "line\r\n".repeat(100),
        }),
      );
      while (!(await delivered(port(), raw))) await pause(50);
      count += 1;
      kills.push(afterEach(count));
    }
  };
  await Promise.all(Array.from({ length: connections }, connection));
  await Promise.all(kills);
}

async function delivered(port: number | null, raw: Buffer): Promise<boolean> {
  if (port === null) return false;
  const transport = createTransport({ host: "127.0.0.1", port, ignoreTLS: true });
  const done = await transport.sendMail({ envelope: { from: "a@x.example", to: OFFICE }, raw }).then(
    () => true,
    () => false,
  );
  transport.close();
  return done;
}

async function settled(tray: Pick<TestTray, "ask">, deps: ReturnType<typeof wire>["deps"]): Promise<void> {
  for (;;) {
    const [open] = await tray.ask(
      "select count(*) filter (where delivery = 'going') as going, count(*) filter (where delivery = 'waiting') as waiting from message",
    );
    if (Number(open.going) + Number(open.waiting) === 0) return;
    await pause(500);
    // What the server itself does after two minutes.
    await resumeWork(deps, 5_000);
  }
}

async function judged(
  tray: Pick<TestTray, "ask">,
  { incoming }: Storm,
  sent: ReadonlyMap<MessageId, string>,
  counts: ReadonlyMap<string, number>,
): Promise<Omit<Aftermath, "kills">> {
  const there = await tray.ask(
    "select message_id, count(*)::int as times from message where direction = 'in' group by 1",
  );
  const times = new Map<string, number>(there.map((row) => [row.message_id, row.times]));
  const wrongIn = Array.from({ length: incoming }, (_, at) => `storm-${at}@x.example`).filter(
    (id) => times.get(id) !== 1,
  );
  const states = await tray.ask("select id, delivery from message where direction = 'out'");
  const wrongOut: string[] = [];
  for (const { id, delivery } of states) {
    const went = counts.get(sent.get(id) ?? "") ?? 0;
    if (delivery === "sent" ? went !== 1 : delivery !== "failed" || went > 1)
      wrongOut.push(`${id}: ${delivery}, went ${went} times`);
  }
  return { wrongIn, wrongOut, uncertain: states.filter(({ delivery }) => delivery === "failed").length };
}
