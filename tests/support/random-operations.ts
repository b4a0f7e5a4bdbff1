import type { Decision } from "~/core/deciding/decision";
import { type ConversationId, type RecordId, trustedId } from "~/core/kernel/ids";
import { DAY, dateOf, HOUR, later, MINUTE } from "~/core/kernel/instant";
import {
  answerConversation,
  decide,
  joinConversations,
  openConversation,
  receiveMessage,
  redoNewest,
  splitOff,
  undoNewest,
} from "~/operations/index.server";
import { type Desk, setUpDesk } from "./desk";
import { aBounce, aMessage } from "./mail";
import { randomFrom } from "./random";
import { address, type TestTray } from "./test-database";

const PEOPLE = ["vane@vanehouse.example", "p.vane@vanehouse.example", "casework@calder.example", "otto@quayle.example"];
const OFFICE = address("office@ottermoor.example");

/**
 * Does so many things at random, as a lively office does: mail that comes in order, late, from machines and back, answers
 * that expect something of one or of each, decisions of every kind, filing of the whole and of parts, joining and splitting, undoing and doing again. What is
 * refused is refused; gives how many were carried out, by what they were.
 */
export async function operateAtRandom(tray: TestTray, count: number, seed: bigint): Promise<Map<string, number>> {
  const desk = await setUpDesk(tray);
  const random = randomFrom(seed);
  const records: RecordId[] = [];
  for (const title of ["One", "Two", "Three"]) records.push((await desk.opensRecord(title)).id);
  const office: RandomOffice = { tray, desk, random, records, conversations: [], sent: [], number: 0 };
  const done = new Map<string, number>();
  const names = Object.keys(OPERATIONS) as (keyof typeof OPERATIONS)[];
  for (let at = 0; at < count; at += 1) {
    tray.clock.now = later(tray.clock.now, random(90) * MINUTE + 1_000);
    const name = office.conversations.length < 5 ? "mail" : (names[random(names.length)] ?? "mail");
    if (await OPERATIONS[name](office)) done.set(name, (done.get(name) ?? 0) + 1);
  }
  return done;
}

type RandomOffice = {
  readonly tray: TestTray;
  readonly desk: Desk;
  readonly random: (below: number) => number;
  readonly records: readonly RecordId[];
  readonly conversations: ConversationId[];
  /** Message-IDs of ours, and to whom they went. */
  readonly sent: { readonly messageId: string; readonly to: string }[];
  number: number;
};

const one = <T>({ random }: RandomOffice, list: readonly T[]): T => {
  const found = list[random(list.length)];
  if (found === undefined) throw new Error("there is none to choose");
  return found;
};

async function arrives(office: RandomOffice, given: Parameters<typeof aMessage>[0]): Promise<boolean> {
  const { tray, conversations, random } = office;
  office.number += 1;
  // Some of it was under way for a day.
  const written = later(tray.clock.now, random(4) === 0 ? -random(24) * HOUR : 0);
  const id = `r${office.number}@x.example`;
  const raw = aMessage({ id, date: dateOf(written).toUTCString(), ...given });
  const [kept] = await receiveMessage(tray.deps, { raw, envelopeSender: "a@x.example", recipients: [OFFICE] });
  if (kept !== undefined && !conversations.includes(kept.conversationId)) conversations.push(kept.conversationId);
  return kept !== undefined;
}

const answered = (office: RandomOffice) => {
  const to = office.sent.length === 0 ? null : one(office, office.sent);
  return to === null ? {} : { inReplyTo: to.messageId, subject: "Re: at random" };
};

async function decides(office: RandomOffice, decision: Decision): Promise<boolean> {
  const ids = [one(office, office.conversations)];
  return (await decide(office.tray.deps, office.desk.lead, { ids, seenVersion: null }, decision)).ok;
}

const newId = <T extends Parameters<typeof trustedId>[0]>({ tray }: RandomOffice) =>
  trustedId(tray.deps.newId()) as never as T;
const soonOr = ({ tray, random }: RandomOffice) =>
  random(3) === 0 ? null : later(tray.clock.now, (1 + random(9)) * DAY);

const fileAlone = (part: Pick<Extract<Decision, { kind: "file" }>, "recordId" | "part">) =>
  ({ kind: "file", settle: false, ...part }) as const;

const OPERATIONS = {
  mail: (office: RandomOffice) => arrives(office, { from: one(office, PEOPLE), subject: `Matter ${office.number}` }),
  reply: (office: RandomOffice) => arrives(office, { from: one(office, PEOPLE), ...answered(office) }),
  machine: (office: RandomOffice) =>
    arrives(office, {
      from: one(office, PEOPLE),
      headers: { "Auto-Submitted": "auto-replied" },
      body: `I am away and back on ${dateOf(later(office.tray.clock.now, 6 * DAY))
        .toISOString()
        .slice(0, 10)}.`,
      ...answered(office),
    }),
  bounce: async (office: RandomOffice) => {
    if (office.sent.length === 0) return false;
    const { messageId, to } = one(office, office.sent);
    office.number += 1;
    const raw = aBounce({ of: messageId, recipient: to, id: `b${office.number}@x.example` });
    await receiveMessage(office.tray.deps, { raw, envelopeSender: "", recipients: [OFFICE] });
    return true;
  },
  answer: async (office: RandomOffice) => {
    const { tray, desk, random, sent } = office;
    const to = PEOPLE.slice(0, 1 + random(3));
    const after = [
      { kind: "expect", until: soonOr(office), whom: one(office, ["any", "each", "house", "anybody"] as const) },
      { kind: "settle" },
      { kind: "keep" },
      { kind: "wait" },
    ] as const;
    const answer = {
      to: to.map((who) => ({ name: "", address: address(who) })),
      cc: [],
      subject: "Re: at random",
      html: "<p>When?</p>",
      after: one(office, after),
      anyway: true,
    };
    const done = await answerConversation(tray.deps, desk.lead, desk.ines, one(office, office.conversations), answer);
    if (!done.ok) return false;
    const [row] = await tray.ask("select message_id from message where id = $1", [done.value]);
    sent.push({ messageId: row.message_id, to: to[0] ?? "" });
    return true;
  },
  expect: (office: RandomOffice) =>
    decides(office, {
      kind: "expect",
      until: soonOr(office),
      expectationId: newId(office),
      besides: office.random(2) === 0,
    }),
  acknowledge: (office: RandomOffice) => decides(office, { kind: "acknowledge", messageId: null }),
  extend: async (office: RandomOffice) => {
    const open = await openConversation(office.tray.deps, office.desk.lead, one(office, office.conversations), "ahead");
    const expectation = open?.docket.expectations.at(-1);
    if (open === null || expectation === undefined) return false;
    const decision = { kind: "extend", expectationId: expectation.id, until: soonOr(office) } as const;
    const target = { ids: [open.row.id], seenVersion: null };
    return (await decide(office.tray.deps, office.desk.lead, target, decision)).ok;
  },
  "stop-expecting": (office: RandomOffice) => decides(office, { kind: "stop-expecting" }),
  "no-answer": (office: RandomOffice) => decides(office, { kind: "no-answer" }),
  file: (office: RandomOffice) =>
    decides(office, { kind: "file", recordId: one(office, office.records), settle: office.random(3) === 0 }),
  unfile: (office: RandomOffice) => decides(office, { kind: "unfile", recordId: one(office, office.records) }),
  particulars: (office: RandomOffice) =>
    decides(office, { kind: "particulars", recordId: one(office, office.records), fields: {} }),
  "file-a-message": async (office: RandomOffice) => {
    const { tray, desk, random, records, conversations } = office;
    const open = await openConversation(tray.deps, desk.lead, one(office, conversations), "ahead");
    if (open === null || open.messages.length === 0) return false;
    const { id: messageId, attachments } = one(office, open.messages);
    const attachment = attachments.length > 0 && random(2) === 0 ? 0 : null;
    const part = { recordId: one(office, records), part: { messageId, attachment } };
    const decision = random(3) === 0 ? ({ kind: "unfile", ...part } as const) : fileAlone(part);
    return (await decide(tray.deps, desk.lead, { ids: [open.row.id], seenVersion: null }, decision)).ok;
  },
  assign: (office: RandomOffice) =>
    decides(office, { kind: "assign", ownerId: one(office, [null, office.desk.tobias.id, office.desk.mara.id]) }),
  settle: (office: RandomOffice) => decides(office, { kind: "settle" }),
  keep: (office: RandomOffice) => decides(office, { kind: "keep" }),
  bin: (office: RandomOffice) => decides(office, { kind: one(office, ["bin", "restore", "junk"] as const) }),
  rest: (office: RandomOffice) => decides(office, { kind: "rest", until: soonOr(office) }),
  undo: async (office: RandomOffice) => (await undoNewest(office.tray.deps, office.desk.lead)).ok,
  redo: async (office: RandomOffice) => (await redoNewest(office.tray.deps, office.desk.lead)).ok,
  join: async (office: RandomOffice) => {
    const [target, source] = [one(office, office.conversations), one(office, office.conversations)];
    return (await joinConversations(office.tray.deps, office.desk.lead, target, source)).ok;
  },
  split: async (office: RandomOffice) => {
    const open = await openConversation(office.tray.deps, office.desk.lead, one(office, office.conversations), "ahead");
    const message = open?.messages.at(-1);
    if (open === null || message === undefined || open.messages.length < 2) return false;
    return (await splitOff(office.tray.deps, office.desk.lead, open.row.id, message.id)).ok;
  },
} as const;
