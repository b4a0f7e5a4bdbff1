import { tz } from "@date-fns/tz";
import { set, subBusinessDays } from "date-fns";
import { v7 as uuid } from "uuid";
import type { Category } from "../core/categories/category";
import type { Decision } from "../core/deciding/decision";
import type { EmailAddress } from "../core/kernel/email-address";
import { type ConversationId, type MemberId, type MessageId, trustedId } from "../core/kernel/ids";
import { DAY, type Instant, instantOf, later, MINUTE } from "../core/kernel/instant";
import { calendarDay, dayAtHour } from "../core/time/calendar-day";
import { endOfWorkingDay } from "../core/worktime/add-working-days";
import {
  addMember,
  answerConversation,
  changeOwnMailAddress,
  closeRecord,
  type Deps,
  decide,
  type FilingRecord,
  learnDecisions,
  type Member,
  markAllRead,
  markNotificationsReadBefore,
  receiveMessage,
  sendMessage,
  setUpCategories,
  setUpRecords,
  setUpTray,
  type Tray,
  type TrayGrant,
  traysOf,
} from "../operations/index.server";
import { makeRecordsDemo } from "./demo-records";
import { takeUpHabits } from "./habits";
import { knowPeople } from "./known-people";
import { prepareTexts } from "./prepared-texts";
import { seededRandom } from "./random";
import { mailDate, rawBounce, rawMail } from "./raw-mail";
import type { Colleague, Moment, Script, Step } from "./script";
import { AWKWARD_STORIES } from "./stories-awkward";
import { everydayStories } from "./stories-generated";
import { OLDER_STORIES } from "./stories-older";
import { OPEN_STORIES } from "./stories-open";
import { workTogether } from "./together";
import { CATEGORIES, COLLEAGUES, PEOPLE, RECORDS, TRAYS, ZONE } from "./world";

const SEED = 4_711;
const START_DAYS_AGO = 400;

type World = {
  readonly deps: Deps;
  readonly clock: { now: Instant };
  readonly trays: readonly Tray[];
  readonly members: readonly Member[];
  readonly grants: ReadonlyMap<MemberId, readonly TrayGrant[]>;
  readonly categories: readonly Category[];
  readonly records: readonly FilingRecord[];
};

/** What the story of one conversation has come to so far. */
type Thread = { conversationId: ConversationId | null; messageIds: string[]; count: number };

/**
 * Builds the made-up world through the operations of real use, as of now: the same for the same moment. Mail of ours in it
 * counts as sent and goes nowhere.
 */
export async function buildWorld(real: Deps): Promise<{ conversations: number }> {
  const now = real.now();
  const world = await setUp(real, later(now, -START_DAYS_AGO * DAY));
  const scripts = demoStories();
  const threads = scripts.map((): Thread => ({ conversationId: null, messageIds: [], count: 0 }));
  const events = scripts
    .flatMap((script, story) =>
      script.steps.map((step, at) => ({ script, story, step, order: at, at: momentOf(step.at, now) })),
    )
    .toSorted((a, b) => a.at - b.at || a.story - b.story || a.order - b.order);
  for (const { script, story, step, at } of events) {
    const thread = threads[story];
    if (thread === undefined) continue;
    world.clock.now = at;
    await tellStep(world, script, thread, step, `${story}`);
    await learnDecisions(world.deps);
  }
  world.clock.now = now;
  const ines = grantOf(world, "ines", "office");
  const recordId = (code: string) => found(world.records, (one) => one.code === code).id;
  for (const { code } of RECORDS.filter(({ closed }) => closed)) {
    world.clock.now = later(now, -(CLOSED_DAYS_AGO[code] ?? 0) * DAY);
    await closeRecord(world.deps, ines, recordId(code), true);
  }
  world.clock.now = now;
  await makeRecordsDemo(world.deps, ines, recordId);
  await habits(world);
  await knowPeople(world.deps, grantOf(world, "ines", "office"), world.categories);
  await prepareTexts(world.deps, grantOf(world, "ines", "office"), world.categories);
  await workTogether({
    ...world,
    memberId: (colleague) => found(world.members, ({ signInName }) => signInName === colleague).id,
    grantOf: (colleague, tray) => grantOf(world, colleague, tray),
    conversationOf: (subject) =>
      found(threads, (_, at) => scripts[at]?.subject === subject).conversationId ?? trustedId<ConversationId>(""),
  });
  // What came before today was read by whoever works here.
  for (const member of world.members) {
    const before = later(now, -5 * 60 * MINUTE);
    await markAllRead(world.deps, member.id, before);
    await markNotificationsReadBefore(world.deps, member.id, before);
  }
  await learnDecisions(world.deps);
  return { conversations: scripts.length };
}

/** Everything that the demo tells. */
export function demoStories(): Script[] {
  return [...OPEN_STORIES, ...AWKWARD_STORIES, ...everydayStories(), ...OLDER_STORIES];
}

// Where it was not today.
const CLOSED_DAYS_AGO: Readonly<Record<string, number>> = { "P-25-004": 340 };

// What is filed on a record that is closed by now was filed before.
const OPEN_RECORDS = RECORDS.map((record) => ({ ...record, closed: false }));

async function habits({ deps, clock, trays, members, grants, categories, records }: World): Promise<void> {
  const [office] = trays;
  const ines = members.find(({ signInName }) => signInName === "ines");
  const grant = ines === undefined ? undefined : grants.get(ines.id)?.find(({ tray }) => tray.id === office?.id);
  if (grant !== undefined) await takeUpHabits({ deps, clock, grant, members, categories, records });
}

async function setUp(real: Deps, start: Instant): Promise<World> {
  const clock = { now: start };
  const random = seededRandom(SEED);
  const deps: Deps = {
    ...real,
    now: () => clock.now,
    newId: () => uuid({ msecs: clock.now, random: Uint8Array.from({ length: 16 }, () => Math.floor(random() * 256)) }),
    mail: { handOver: async () => ({ kind: "accepted" }) },
    jobs: { enqueue: async () => {} },
    publishChange: () => {},
  };
  const trays: Tray[] = [];
  for (const tray of TRAYS) trays.push(await setUpTray(deps, tray));
  const members: Member[] = [];
  for (const colleague of COLLEAGUES) {
    const added = await addMember(deps, colleague);
    if (!added.ok) throw new Error(`could not add ${colleague.name}: ${added.error.kind}`);
    members.push(added.value);
    await changeOwnMailAddress(deps, added.value, `${colleague.signInName}@colleagues.ottermoor.example`);
  }
  const grants = new Map<MemberId, readonly TrayGrant[]>();
  for (const member of members) grants.set(member.id, await traysOf(deps, member));
  const categories = await setUpCategories(deps, CATEGORIES);
  return { deps, clock, trays, members, grants, categories, records: await setUpRecords(deps, OPEN_RECORDS) };
}

function momentOf(moment: Moment, now: Instant): Instant {
  if ("minutesAgo" in moment) return later(now, -moment.minutesAgo * MINUTE);
  const [hours, minutes] = moment.time.split(":").map(Number);
  const day = subBusinessDays(now, moment.daysAgo, { in: tz(ZONE) });
  return instantOf(set(day, { hours: hours ?? 9, minutes: minutes ?? 0, seconds: 0, milliseconds: 0 }));
}

async function tellStep(world: World, script: Script, thread: Thread, step: Step, story: string): Promise<void> {
  if (step.kind === "they" || step.kind === "bounce") return receive(world, script, thread, step, story);
  const member = found(world.members, ({ signInName }) => signInName === step.by);
  const grant = grantOf(world, step.by, script.tray);
  const conversationId = thread.conversationId;
  if (conversationId === null) throw new Error(`nobody has written yet in "${script.subject}"`);
  if (step.kind === "we") return answer(world, script, thread, grant, member, conversationId, step);
  const done = await decide(world.deps, grant, { ids: [conversationId], seenVersion: null }, decisionOf(world, step));
  if (!done.ok) throw new Error(`"${script.subject}": ${step.kind} was refused: ${done.error.kind}`);
}

async function receive(
  world: World,
  script: Script,
  thread: Thread,
  step: Extract<Step, { kind: "they" | "bounce" }>,
  story: string,
): Promise<void> {
  const to = trayMailbox(world, script);
  thread.count += 1;
  const messageId = `${story}.${thread.count}@mail.demo.example`;
  const now = world.clock.now;
  const last = thread.messageIds.at(-1);
  const isBounce = step.kind === "bounce";
  const from = PEOPLE[step.kind === "they" ? (step.by ?? script.who) : step.recipient];
  const raw = isBounce
    ? rawBounce(from, to, last ?? "", now, messageId)
    : step.whole !== undefined
      ? new TextEncoder().encode(step.whole({ messageId, date: mailDate(now), to: to.address }))
      : rawMail({
          from,
          to,
          messageId,
          date: now,
          references: thread.messageIds,
          text: step.text,
          headers: step.headers,
          html: step.html,
          attachment: step.attachment,
          subject: thread.messageIds.length === 0 ? script.subject : `Re: ${script.subject}`,
        });
  const envelopeSender = isBounce ? "" : from.address;
  const [kept] = await receiveMessage(world.deps, { raw, envelopeSender, recipients: [to.address] });
  if (kept === undefined) throw new Error(`no tray took "${script.subject}"`);
  thread.conversationId = kept.conversationId;
  if (!isBounce) thread.messageIds.push(messageId);
}

async function answer(
  world: World,
  script: Script,
  thread: Thread,
  grant: TrayGrant,
  member: Member,
  conversationId: ConversationId,
  step: Extract<Step, { kind: "we" }>,
): Promise<void> {
  const then = step.then;
  const sent = await answerConversation(world.deps, grant, member, conversationId, {
    to: [PEOPLE[script.who]],
    cc: [],
    subject: `Re: ${script.subject}`,
    html: `<p>${step.text.replace(/&/g, "&amp;").replace(/\n\n/g, "</p><p>")}</p>`,
    after:
      typeof then === "string"
        ? { kind: then }
        : { kind: "expect", until: endOfWorkingDay(world.clock.now, then.replyWithin, ZONE) },
  });
  if (!sent.ok) throw new Error(`"${script.subject}": the answer was refused: ${sent.error.kind}`);
  thread.messageIds.push(sentMessageId(sent.value, grant.tray.addresses));
  await sendMessage(world.deps, sent.value, { number: 1, last: true });
}

function sentMessageId(id: MessageId, addresses: readonly EmailAddress[]): string {
  return `${id}@${addresses[0]?.split("@")[1] ?? ""}`;
}

function decisionOf(world: World, step: Exclude<Step, { kind: "they" | "bounce" | "we" }>): Decision {
  switch (step.kind) {
    case "assign":
      return { kind: "assign", ownerId: found(world.members, ({ signInName }) => signInName === step.to).id };
    case "categorise":
      return {
        kind: "categorise",
        categoryId: found(world.categories, ({ code }) => code === step.code).id,
        give: true,
      };
    case "file":
      return { kind: "file", recordId: found(world.records, ({ code }) => code === step.code).id, settle: false };
    case "rest": {
      const day = calendarDay(endOfWorkingDay(world.clock.now, step.workingDays, ZONE), ZONE);
      return { kind: "rest", until: dayAtHour(day, 8, ZONE) ?? world.clock.now };
    }
    case "note":
      return { kind: "note", text: step.text };
    default:
      return { kind: step.kind };
  }
}

function trayMailbox(world: World, script: Script) {
  const tray = found(world.trays, ({ slug }) => slug === script.tray);
  return { name: tray.name, address: found(tray.addresses, () => true) };
}

function grantOf({ members, grants }: World, colleague: Colleague, slug: string): TrayGrant {
  const { id } = found(members, ({ signInName }) => signInName === colleague);
  return found(grants.get(id) ?? [], ({ tray }) => tray.slug === slug);
}

function found<T>(list: readonly T[], wanted: (one: T, at: number) => boolean): T {
  const one = list.find(wanted);
  if (one === undefined) throw new Error("the made-up world names something that is not in it");
  return one;
}
