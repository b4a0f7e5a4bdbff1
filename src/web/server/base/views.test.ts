import { INES, THRANE, TOBIAS, VANE } from "@tests/support/a-conversation";
import { describe, expect, it } from "vitest";
import { deriveDocket } from "../../../core/docket/derive-docket";
import {
  type BatchId,
  type CategoryId,
  type ConversationId,
  type EntryId,
  type MessageId,
  trustedId,
} from "../../../core/kernel/ids";
import { DAY, HOUR, type Instant, instant, later, MINUTE, readInstant } from "../../../core/kernel/instant";
import { NOTHING_HAPPENED } from "../../../core/standing/derive-standing";
import type { CorrespondenceMessage, OpenConversation, SheetRow } from "../../../operations/index.server";
import { conversationView } from "../conversation/conversation-view.server";
import { dateChoices } from "../deciding/date-choices.server";
import { flowView } from "../shell/tray-view.server";
import { saysView } from "../writing/says-view.server";
import { rowView } from "./row-view.server";

// A Tuesday.
const now: Instant = readInstant("2026-11-24T10:00:00Z") ?? instant(0);
const reading = { memberId: INES, zone: "UTC", now, covering: [] };
const ago = (milliseconds: number) => later(now, -milliseconds);

const row: SheetRow = {
  id: trustedId<ConversationId>("c1"),
  version: 3,
  subject: "Swell box",
  who: "P. Vane",
  whoAddress: "vane@vanehouse.example",
  newestText: "May I ask when?",
  messageCount: 2,
  lastMessageAt: ago(2 * HOUR),
  listedAt: ago(2 * HOUR),
  dueAt: null,
  urgency: "no-rush",
  hasAttachment: false,
  standing: "our-move",
  standingSince: ago(5 * DAY),
  turn: "us",
  turnSince: ago(5 * DAY),
  followerIds: [],
  ownerId: INES,
  categoryIds: [trustedId<CategoryId>("tuning")],
  recordIds: [],
  recordCodes: ["P-26-012"],
  expectedAt: null,
  restingUntil: null,
  marks: [],
  unread: false,
  hasDraft: false,
};

describe("a row", () => {
  it.each<[string, Partial<SheetRow>, object]>([
    ["says how long it has been ours", {}, { words: "5 days", over: false }],
    [
      "says how long it is unsorted",
      { standing: "to-sort", standingSince: ago(12 * MINUTE) },
      { words: "12 min", over: false },
    ],
    [
      "says by when an answer is expected",
      { standing: "waiting", expectedAt: later(now, 2 * DAY) },
      { words: "Thu", over: false },
    ],
    [
      "says in words that it is overdue",
      { standing: "waiting", expectedAt: ago(3 * DAY) },
      { words: "3 days overdue", over: true },
    ],
    ["says that no day was named", { standing: "waiting" }, { words: "some day", over: false }],
    [
      "says until when it rests",
      { standing: "resting", restingUntil: later(now, 20 * DAY) },
      { words: "14 Dec", over: false },
    ],
    ["says when it was settled", { standing: "settled", standingSince: ago(DAY) }, { words: "yesterday", over: false }],
  ])("%s", (_, part, due) => expect(rowView({ ...row, ...part }, reading).due).toEqual(due));

  it("has its day in words, in the reader's zone", () => {
    expect(rowView(row, reading)).toMatchObject({ when: "today 08:00" });
    expect(rowView(row, { ...reading, zone: "Pacific/Auckland" }).when).toBe("today 21:00");
  });
});

describe("the flow bar", () => {
  const segment = { count: 3, oldestSince: ago(9 * DAY), ages: [1, 0, 1, 1, 0], overdue: 0, nextWake: null };
  it("has all five standings, those without conversations too", () => {
    expect(flowView([], reading).map(({ name, count, note }) => [name, count, note])).toEqual([
      ["To sort", 0, ""],
      ["Our move", 0, ""],
      ["Waiting for reply", 0, ""],
      ["Resting", 0, ""],
      ["Settled", 0, "today"],
    ]);
  });
  it.each([
    ["the age of the oldest", { ...segment, standing: "our-move" as const }, "oldest 9 days", false],
    ["what is overdue before that", { ...segment, standing: "waiting" as const, overdue: 2 }, "2 overdue", true],
    [
      "what wakes next",
      { ...segment, standing: "resting" as const, nextWake: later(now, 5 * HOUR) },
      "next today 15:00",
      false,
    ],
  ])("says %s", (_, given, note, late) => {
    expect(flowView([given], reading).find(({ standing }) => standing === given.standing)).toMatchObject({
      note,
      late,
    });
  });
});

it("days offered are working days", () => {
  expect(dateChoices(reading).map(({ day, words }) => [day, words])).toEqual([
    ["2026-11-25", "tomorrow"],
    ["2026-11-26", "Thu"],
    ["2026-12-01", "1 Dec"],
    ["2026-12-08", "8 Dec"],
  ]);
  const friday = { ...reading, now: later(now, 3 * DAY) };
  expect(dateChoices(friday)[0]?.day).toBe("2026-11-30");
});

it("a date in a text is posted as its day, or as its moment where it names a time", () => {
  const at = later(now, 3 * DAY);
  const date = { at, other: later(at, 7 * DAY), words: "Friday", hasTime: false };
  const said = { asks: [{ text: "By Friday?", at: 0, date }], promises: [], encloses: null, usuallyBy: null };
  const [day] = saysView(said, [], reading).asks;
  expect([day?.date?.until, day?.date?.words, day?.other?.until]).toEqual(["2026-11-27", "Fri", "2026-12-04"]);
  const timed = { ...said, asks: [{ text: "By Friday noon?", at: 0, date: { ...date, hasTime: true } }] };
  const [moment] = saysView(timed, [], reading).asks;
  expect([moment?.date?.until, moment?.date?.words]).toEqual(["2026-11-27T10:00:00.000Z", "Fri 10:00"]);
});

describe("an open conversation", () => {
  const message = (n: number, part: Partial<CorrespondenceMessage>): CorrespondenceMessage => ({
    id: trustedId<MessageId>(`m${n}`),
    direction: "in",
    kind: "person",
    kindReason: "nothing in it says that a machine sent it",
    messageId: `m${n}@x`,
    inReplyTo: [],
    references: [],
    subject: "Swell box",
    fromName: "P. Vane",
    fromAddress: VANE,
    recipients: { to: [{ name: "Office", address: THRANE }], cc: [], replyTo: [] },
    sentAt: ago((10 - n) * HOUR),
    authorId: null,
    hasHtml: false,
    failedRecipients: [],
    attachments: [],
    warnings: [],
    ownText: `text ${n}`,
    restText: "",
    delivery: null,
    protection: null,
    trust: null,
    isNewParticipant: false,
    hasRemoteContent: false,
    shownPart: "text",
    appointments: [],
    unsubscribe: null,
    listId: null,
    recipientStates: [],
    ...part,
  });
  const fact = (n: number, direction: "in" | "out") => ({
    id: trustedId<MessageId>(`m${n}`),
    version: n,
    at: ago((10 - n) * HOUR),
    arrivedAt: ago((10 - n) * HOUR),
    direction,
    kind: "person" as const,
    from: VANE,
    fromName: "P. Vane",
    authorId: direction === "out" ? TOBIAS : null,
    failedRecipients: [],
  });
  const line = (version: number, effect: OpenConversation["journal"][number]["effect"], part: object = {}) => ({
    id: trustedId<EntryId>(`e${version}`),
    version,
    batchId: trustedId<BatchId>(`b${version}`),
    at: ago((10 - version) * HOUR),
    by: TOBIAS,
    effect,
    isUndo: false,
    undone: false,
    ...part,
  });
  const open: OpenConversation = {
    row,
    docket: deriveDocket({ ...NOTHING_HAPPENED, messages: [fact(1, "in"), fact(3, "out"), fact(5, "in")] }),
    messages: [
      message(1, {
        restText: "> old\n> older",
        attachments: [
          {
            index: 0,
            fileName: "plan.pdf",
            contentType: "application/pdf",
            size: 212_400,
            sha256: "",
            inline: false,
            contentId: null,
          },
        ],
      }),
      message(3, {
        direction: "out",
        authorId: TOBIAS,
        delivery: { state: "failed", leavesAt: null, reason: "550 never" },
      }),
      message(5, { kind: "automatic", hasHtml: true }),
    ],
    journal: [
      line(2, { kind: "noted", text: "ask Col" }),
      line(4, { kind: "settled" }, { undone: true }),
      line(6, { kind: "settled" }, { isUndo: true, by: INES }),
      line(7, { kind: "noted", text: "never mind" }, { undone: true }),
      line(8, { kind: "rest-ended" }, { by: null }),
    ],
    records: [],
    ownDrafts: [],
    letters: [],
    drafts: [],
    promised: null,
    named: { records: [], conversations: [] },
    categoryNames: new Map(),
    habit: null,
    answer: {
      to: [{ name: "P. Vane", address: VANE }],
      cc: [],
      subject: "Re: Swell box",
      inReplyTo: null,
      references: [],
    },
  };
  const people = {
    members: [{ id: TOBIAS, signInName: "tobias", name: "Tobias Lund", initials: "TL", timeZone: "UTC" }],
    categories: [],
    slug: "office",
  };
  const view = conversationView(open, people, reading);

  it("has messages and standing notes in one order of time", () => {
    expect(
      view.correspondence.map((item) =>
        item.type === "note" ? item.blocks[0]?.lines[0]?.pieces[0]?.text : item.own.blocks[0]?.pieces[0]?.text,
      ),
    ).toEqual(["text 1", "ask Col", "text 3", "text 5"]);
  });

  it("says of each message what one has to know", () => {
    const [theirs, , ours, machine] = view.correspondence;
    expect(theirs).toMatchObject({
      who: "P. Vane",
      restLines: 2,
      attachments: [{ fileName: "plan.pdf", size: "212 kB" }],
    });
    expect(ours).toMatchObject({ who: "Tobias Lund", delivery: { words: "not sent: 550 never", failed: true } });
    expect(machine).toMatchObject({
      kindLabel: "automatic reply",
      isMachine: true,
      hasHtml: true,
      showHtmlFirst: false,
    });
  });

  it("has a journal, newest first, with undo where there is something to undo", () => {
    const told = view.journal.map(
      ({ words, batchId, undone }) => `${words}${batchId === null ? "" : " [undo]"}${undone ? " (undone)" : ""}`,
    );
    expect(told).toEqual([
      "The tray ended its rest",
      "Tobias Lund added a note (undone)",
      "You took back: settled it",
      "To sort: P. Vane wrote",
      "Tobias Lund settled it (undone)",
      "Tobias Lund added a note [undo]",
      "To sort: P. Vane wrote",
    ]);
  });

  const leavingOf = (unsubscribe: CorrespondenceMessage["unsubscribe"], part: Partial<CorrespondenceMessage> = {}) => {
    const only = message(1, { kind: "list", listId: "rolling.tinguild.example", unsubscribe, ...part });
    const [item] = conversationView({ ...open, messages: [only], journal: [] }, people, reading).correspondence;
    return item?.type === "message" ? item.leaving : null;
  };
  const SITE = "https://tinguild.example/leave?n=7";
  const mail = { to: VANE, subject: "stop", body: "stop" };
  it.each([
    [
      { atOnce: SITE, mail, page: SITE },
      "One request to tinguild.example does it at once; nothing but that is sent.",
      null,
    ],
    [
      { atOnce: null, mail, page: SITE },
      `A message to ${VANE} does it; it goes out from this tray, and the conversation is settled.`,
      null,
    ],
    [
      { atOnce: null, mail: null, page: SITE },
      "It can be left on a page of tinguild.example, which you open yourself.",
      SITE,
    ],
  ])("says how its list is left: %j", (ways, how, page) => {
    expect(leavingOf(ways)).toEqual({
      listId: "rolling.tinguild.example",
      how,
      page,
      isVerified: false,
      isImitation: false,
    });
  });
  it("says of whom one leaves what is known of her, and offers nothing for our own or where there is no way", () => {
    const trust = (verdict: "verified" | "imitation") => ({ trust: { verdict, reason: "" } }) as const;
    const ways = { atOnce: SITE, mail: null, page: SITE };
    expect(leavingOf(ways, trust("verified"))).toMatchObject({ isVerified: true, isImitation: false });
    expect(leavingOf(ways, trust("imitation"))).toMatchObject({ isVerified: false, isImitation: true });
    expect(leavingOf(null)).toBeNull();
    expect(leavingOf(ways, { direction: "out" })).toBeNull();
  });

  it("counts what was exchanged and says who wrote last", () => {
    expect(view.turnWords).toBe("3 messages · they wrote last, today 05:00");
    expect(view.answer).toEqual({
      to: `P. Vane <${VANE}>`,
      cc: "",
      subject: "Re: Swell box",
      after: "expect",
      whom: "any",
    });
  });
});
