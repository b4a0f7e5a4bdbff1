import { type Desk, done, refusal, setUpDesk } from "@tests/support/desk";
import { aMessage } from "@tests/support/mail";
import { address, passes, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type ConversationId, type DraftId, trustedId } from "../../core/kernel/ids";
import { DAY, HOUR, instant, later } from "../../core/kernel/instant";
import type { LetterPlan } from "../../core/later-letters/later-letter";
import type { Draft } from "../../core/writing/draft";
import {
  type Answer,
  answerConversation,
  changeLetter,
  disable,
  enable,
  getDrafts,
  getLettersToGo,
  getOwnDraft,
  type LetterStep,
  openConversation,
  planLetter,
  receiveMessage,
  sendLaterLetters,
  type TrayGrant,
} from "../index.server";

let tray: TestTray;
let desk: Desk;

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
});
afterAll(() => tray.close());

const VANE = { name: "Perpetua Vane", address: address("perpetua.vane@vanehouse.example") };
const content: Draft = {
  ...{
    to: "Perpetua Vane <perpetua.vane@vanehouse.example>",
    cc: "",
    subject: "Re: A bell",
    html: "<p>On Monday.</p>",
  },
  ...{ after: "expect", day: "" },
};
const answer = (given: Partial<Answer> = {}): Answer => ({
  ...{ to: [VANE], cc: [], subject: "Re: A bell", html: "<p>On Monday.</p>", after: { kind: "expect", until: null } },
  ...given,
});
const inHours = (hours: number) => later(tray.clock.now, hours * HOUR);

type Given = { readonly answer?: Partial<Answer>; readonly plan?: Partial<LetterPlan>; readonly grant?: TrayGrant };
const tries = (conversationId: ConversationId | null, given: Given = {}, id = trustedId<DraftId>(tray.deps.newId())) =>
  planLetter(tray.deps, given.grant ?? desk.maraGrant, {
    ...{ id, conversationId, content, answer: answer(given.answer) },
    plan: { moments: [inHours(10)], ifSilent: false, untilSettled: false, ...given.plan },
  });
const plans = async (conversationId: ConversationId | null, given: Given = {}): Promise<DraftId> => {
  const id = trustedId<DraftId>(tray.deps.newId());
  done(await tries(conversationId, given, id));
  return id;
};
const opened = async (id: ConversationId) => {
  const open = await openConversation(tray.deps, desk.lead, id, "ahead");
  if (open === null) throw new Error("there is no such conversation");
  return open;
};
const ours = async (id: ConversationId) =>
  (await opened(id)).messages.filter(({ direction }) => direction === "out").length;
const listed = async (id: DraftId) => (await getLettersToGo(tray.deps, desk.lead)).find((letter) => letter.id === id);
const does = async (id: DraftId, step: LetterStep, grant: TrayGrant = desk.maraGrant) =>
  changeLetter(tray.deps, grant, id, step);
const heldOf = async (id: DraftId) => [(await listed(id))?.state, (await listed(id))?.heldBy?.kind];
/** A letter of somebody outside, and one more into the same conversation each time that `answers` is called. */
async function begins() {
  const id = `bell-${tray.deps.newId()}@vanehouse.example`;
  const comes = async (fields: Parameters<typeof aMessage>[0]) => {
    const raw = aMessage({ subject: "A bell", ...fields });
    const recipients = [address("office@ottermoor.example")];
    const [kept] = await receiveMessage(tray.deps, { raw, envelopeSender: VANE.address, recipients });
    return kept?.conversationId ?? trustedId<ConversationId>("");
  };
  const conversation = await comes({ id });
  const answers = () =>
    comes({ id: `more-${tray.deps.newId()}@vanehouse.example`, inReplyTo: id, subject: "Re: A bell" });
  return { conversation, answers };
}
const minutesOf = (hours: number) => hours * 60;

describe("a letter that goes later", () => {
  it("goes at its moment and once, with what was decided to come of it; until then its conversation rests", async () => {
    const { conversation } = await begins();
    const id = await plans(conversation);
    expect((await opened(conversation)).docket).toMatchObject({
      standing: { kind: "resting" },
      restingUntil: inHours(10),
    });
    expect(await getOwnDraft(tray.deps, desk.maraGrant, id)).toBeNull();
    passes(tray, minutesOf(10) - 1);
    expect([await sendLaterLetters(tray.deps), await ours(conversation)]).toEqual([0, 0]);
    passes(tray, 1);
    const both = await Promise.all([sendLaterLetters(tray.deps), sendLaterLetters(tray.deps)]);
    expect([both.toSorted(), await ours(conversation)]).toEqual([[0, 1], 1]);
    expect((await opened(conversation)).docket).toMatchObject({ standing: { kind: "waiting" } });
    expect(await listed(id)).toMatchObject({ state: "sent", conversationId: conversation, endedAt: tray.clock.now });
    expect(await sendLaterLetters(tray.deps)).toBe(0);
  });

  it("goes after its moment where nobody was there to send it, and a first message begins a conversation then", async () => {
    const id = await plans(null, { answer: { subject: "A first letter" } });
    passes(tray, minutesOf(200));
    expect(await sendLaterLetters(tray.deps)).toBe(1);
    const letter = await listed(id);
    expect(letter?.state).toBe("sent");
    const open = await opened(letter?.conversationId ?? trustedId(""));
    expect([open.docket.ownerId, open.row.subject]).toEqual([desk.mara.id, "A first letter"]);
  });

  it.each<[string, Given, string]>([
    ["in the past", { plan: { moments: [instant(1)] } }, "not-then"],
    ["years ahead", { plan: { moments: [instant(Date.UTC(2030, 1, 1))] } }, "not-then"],
    ["to nobody", { answer: { to: [] } }, "no-recipient"],
    ["with a blank", { answer: { html: '<p><span data-blank="text">the day</span></p>' } }, "unfilled"],
    ["by a reader", { grant: null as never }, "readers-only-read"],
  ])("is not planned %s", async (_, given, kind) => {
    const { conversation } = await begins();
    const grant = given.grant === null ? desk.reader : desk.maraGrant;
    expect(refusal(await tries(conversation, { ...given, grant }))).toBe(kind);
    expect((await opened(conversation)).docket.standing.kind).toBe("to-sort");
  });

  it("is not planned with a reply due before it goes, nor by whoever has not read the newest", async () => {
    const { conversation, answers } = await begins();
    const due = { after: { kind: "expect", until: inHours(9) } } as const;
    expect(refusal(await tries(conversation, { answer: due }))).toBe("due-before-it-goes");
    const id = await plans(conversation, { answer: { after: { kind: "expect", until: inHours(11) } } });
    expect(refusal(await does(id, { do: "put", at: inHours(12) }))).toBe("due-before-it-goes");
    done(await does(id, { do: "call-off" }));
    const { version } = (await opened(conversation)).row;
    await answers();
    expect(refusal(await tries(conversation, { answer: { seenVersion: version } }))).toBe("new-message");
  });
});

describe("what comes before a letter goes", () => {
  it("holds it and asks who wrote it, who lets it go then, at another time, or now", async () => {
    const { conversation, answers } = await begins();
    const id = await plans(conversation);
    await answers();
    expect(await heldOf(id)).toEqual(["held", "answered"]);
    const told = await tray.ask("select event, detail->>'words' as words from notification where about like $1", [
      `letter:${id}%`,
    ]);
    expect(told).toEqual([{ event: "letter", words: "Perpetua Vane" }]);
    passes(tray, minutesOf(11));
    expect(await sendLaterLetters(tray.deps)).toBe(0);
    expect(refusal(await does(id, { do: "send-now" }, desk.tobiasGrant))).toBe("not-your-letter");
    done(await does(id, { do: "put", at: inHours(2) }));
    expect((await listed(id))?.state).toBe("waiting");
    await answers();
    expect(await heldOf(id)).toEqual(["held", "answered"]);
    done(await does(id, { do: "send-now" }));
    expect([(await listed(id))?.state, await ours(conversation)]).toEqual(["sent", 1]);
    expect(refusal(await does(id, { do: "call-off" }))).toBe("letter-is-over");
  });

  it("stops it where it was to go only without an answer, and leaves its text among what was thrown away", async () => {
    const { conversation, answers } = await begins();
    const id = await plans(conversation, { plan: { ifSilent: true } });
    await answers();
    expect((await listed(id))?.state).toBe("stopped");
    passes(tray, minutesOf(11));
    expect([await sendLaterLetters(tray.deps), await ours(conversation)]).toEqual([0, 0]);
    const [draft] = (await getDrafts(tray.deps, desk.maraGrant)).filter((one) => one.id === id);
    expect([draft?.state, draft?.text]).toEqual(["given-up", "On Monday."]);
  });

  it("is a colleague's message too, and not one of its writer's own", async () => {
    const { conversation } = await begins();
    const id = await plans(conversation);
    done(await answerConversation(tray.deps, desk.maraGrant, desk.mara, conversation, answer()));
    expect(await heldOf(id)).toEqual(["waiting", undefined]);
    done(await answerConversation(tray.deps, desk.tobiasGrant, desk.tobias, conversation, answer()));
    expect(await heldOf(id)).toEqual(["held", "colleague-wrote"]);
    done(await does(id, { do: "let-go" }));
    expect(await heldOf(id)).toEqual(["waiting", undefined]);
  });
});

describe("a letter that is called off", () => {
  it("is a draft of its writer's again, and its conversation stands where it stood", async () => {
    const { conversation } = await begins();
    const id = await plans(conversation);
    done(await does(id, { do: "call-off" }, desk.lead));
    expect((await opened(conversation)).docket.standing.kind).toBe("to-sort");
    expect((await getOwnDraft(tray.deps, desk.maraGrant, id))?.content).toEqual(content);
    expect(await listed(id)).toBeUndefined();
    // It is planned again, by the same name.
    done(await tries(conversation, { plan: { moments: [inHours(1)] } }, id));
    passes(tray, 60);
    expect([await sendLaterLetters(tray.deps), await ours(conversation)]).toEqual([1, 1]);
  });

  it("is not hers who did not write it: another's draft is not planned, another tray's letter not seen", async () => {
    const { conversation } = await begins();
    const id = await plans(conversation);
    expect(refusal(await tries(conversation, { grant: desk.tobiasGrant }, id))).toBe("no-such");
    expect(refusal(await does(trustedId(tray.deps.newId()), { do: "call-off" }))).toBe("no-such");
    done(await does(id, { do: "call-off" }));
  });
});

describe("a series", () => {
  const inDays = (...days: number[]) => days.map((day) => inHours(24 * day));
  const statesOf = async (first: DraftId) => {
    const rows = await tray.ask("select state from later_letter where id = $1 or series_id = $1 order by part", [
      first,
    ]);
    return rows.map(({ state }: { state: string }) => state);
  };
  const goesOn = async (days: number) => {
    passes(tray, minutesOf(24 * days));
    await sendLaterLetters(tray.deps);
  };
  const secondOf = async (first: DraftId) => {
    const all = await getLettersToGo(tray.deps, desk.lead);
    return all.find(({ series }) => series.id === first && series.part === 2)?.id ?? trustedId<DraftId>("");
  };

  it("of three is stopped by an answer in the middle; the first message begins the conversation of all", async () => {
    const first = await plans(null, {
      answer: { subject: "A fair" },
      plan: { moments: inDays(30, 1, 7), ifSilent: true },
    });
    expect(await statesOf(first)).toEqual(["waiting", "waiting", "waiting"]);
    await goesOn(1);
    expect(await statesOf(first)).toEqual(["sent", "waiting", "waiting"]);
    const conversation = (await listed(first))?.conversationId ?? trustedId<ConversationId>("");
    await goesOn(6);
    expect(await ours(conversation)).toBe(2);
    const [{ message_id: messageId }] = await tray.ask(
      "select message_id from message where conversation_id = $1 and direction = 'out' order by version limit 1",
      [conversation],
    );
    const raw = aMessage({ id: "fair@vanehouse.example", inReplyTo: messageId, subject: "Re: A fair" });
    await receiveMessage(tray.deps, {
      raw,
      envelopeSender: VANE.address,
      recipients: [address("office@ottermoor.example")],
    });
    expect(await statesOf(first)).toEqual(["sent", "sent", "stopped"]);
    await goesOn(30);
    expect(await ours(conversation)).toBe(2);
  });

  it("goes on through an answer where it is to stop only when the conversation is settled", async () => {
    const { conversation, answers } = await begins();
    const first = await plans(conversation, { plan: { moments: inDays(1, 2), untilSettled: true } });
    await answers();
    expect(await statesOf(first)).toEqual(["held", "held"]);
    done(await does(first, { do: "let-go" }));
    await goesOn(1);
    await desk.does(desk.lead, conversation, { kind: "settle" });
    done(await does(await secondOf(first), { do: "let-go" }));
    await goesOn(1);
    expect(await statesOf(first)).toEqual(["sent", "stopped"]);
  });

  it("is called off as a whole, one draft is left of it; one of it alone is, and the others go", async () => {
    const { conversation } = await begins();
    const first = await plans(conversation, { plan: { moments: inDays(1, 2, 3) } });
    const second = await secondOf(first);
    done(await does(second, { do: "call-off" }));
    expect((await opened(conversation)).docket.standing.kind).toBe("resting");
    done(await does(first, { do: "call-off-series" }));
    expect(await statesOf(first)).toEqual(["called-off", "called-off", "called-off"]);
    expect((await opened(conversation)).docket.standing.kind).toBe("to-sort");
    const drafts = (await getDrafts(tray.deps, desk.maraGrant)).filter((one) => one.conversationId === conversation);
    expect(drafts.map(({ id }) => id).toSorted()).toEqual([first, second].toSorted());
  });

  it("has at most as many as there are steps, and awaits no answer by a day that is over", async () => {
    expect(refusal(await tries(null, { plan: { moments: inDays(1, 2, 3, 4, 5, 6, 7, 8, 9, 10) } }))).toBe("too-many");
    const until = inHours(25);
    const first = await plans(null, { answer: { after: { kind: "expect", until } }, plan: { moments: inDays(1, 2) } });
    const rows = await tray.ask(
      "select answer->'after'->'until' as until from later_letter where series_id = $1 order by part",
      [first],
    );
    expect(rows).toEqual([{ until }, { until: null }]);
  });
});

it("is held with the reason where it cannot go, as its writer is gone", async () => {
  const { conversation } = await begins();
  const id = await plans(conversation);
  done(await disable(tray.deps, desk.mara.signInName));
  passes(tray, minutesOf(10));
  expect(await sendLaterLetters(tray.deps)).toBe(0);
  const letter = await listed(id);
  expect(letter?.heldBy).toEqual({ kind: "refused", why: "There is no such member any more." });
  done(await enable(tray.deps, desk.mara.signInName));
  done(await does(id, { do: "let-go" }));
  expect(await sendLaterLetters(tray.deps)).toBe(1);
});

it("goes also where a hundred and more are due at once, each once", async () => {
  const { conversation } = await begins();
  for (let at = 0; at < 120; at += 1)
    await plans(at % 2 === 0 ? null : conversation, { plan: { moments: [inHours(1)] } });
  passes(tray, 61);
  const all = await Promise.all([sendLaterLetters(tray.deps), sendLaterLetters(tray.deps)]);
  expect(all.reduce((sum, one) => sum + one, 0) + (await sendLaterLetters(tray.deps))).toBe(120);
  const [{ count } = { count: 0 }] = await tray.ask(
    "select count(distinct message_id)::int as count from later_letter where state = 'sent' and ended_at >= $1",
    [new Date(tray.clock.now - DAY / 24)],
  );
  expect(count).toBe(120);
});
