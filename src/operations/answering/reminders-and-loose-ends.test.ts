import { done, refusal } from "@tests/support/desk";
import { address, testTray } from "@tests/support/test-database";
import { setUpWaiting, VANE } from "@tests/support/waiting-office";
import { afterAll, describe, expect, it } from "vitest";
import { type ConversationId, trustedId } from "../../core/kernel/ids";
import { DAY, dateOf, HOUR, later, readInstant } from "../../core/kernel/instant";
import {
  answerConversation,
  callLooseEndAgain,
  callNoLooseEnd,
  callOffReminders,
  decide,
  editContact,
  examine,
  getLooseEnds,
  getWaiting,
  lapseExpired,
  looseEndCount,
  looseEndCountIfSoon,
  openConversation,
  planReminders,
  previewReminder,
  remindersToGo,
  sendReminders,
} from "../index.server";

const tray = await testTray();
const office = await setUpWaiting(tray);
const { desk, now, moves, docketOf, stateOf, asks, comes } = office;
afterAll(() => tray.close());

describe("a reminder", () => {
  const style = { tone: "friendly", language: "en", text: null, isSeries: false } as const;
  const overdue = async (subject: string) => {
    const id = await desk.arrive({ subject, from: VANE });
    const asked = await asks(id, [VANE], { until: later(now(), HOUR) });
    return { id, asked };
  };
  const lastOurs = async (id: ConversationId) => {
    const open = await openConversation(tray.deps, desk.lead, id);
    return open?.messages.findLast(({ direction }) => direction === "out");
  };

  it("goes in the same thread once a day is over, in working time, and what was awaited is awaited still", async () => {
    const { id } = await overdue("Key");
    // Saturday.
    tray.clock.now = readInstant("2026-11-28T10:00:00Z") ?? now();
    expect(done(await planReminders(tray.deps, desk.lead, desk.ines, [id], style))).toBe(1);
    expect(await sendReminders(tray.deps)).toBe(0);
    const [toGo] = await remindersToGo(tray.deps, desk.lead, [id]);
    expect(toGo?.sendAt).toBe(readInstant("2026-11-30T08:00:00Z"));
    tray.clock.now = readInstant("2026-11-30T08:00:30Z") ?? now();
    expect(await sendReminders(tray.deps)).toBe(1);
    expect(await sendReminders(tray.deps)).toBe(0);
    const reminder = await lastOurs(id);
    expect(reminder).toMatchObject({
      subject: "Re: Key",
      authorId: desk.ines.id,
      recipients: { to: [{ address: VANE }] },
    });
    expect(reminder?.ownText).toContain("may I come back to my message of");
    expect(await stateOf(id)).toEqual(["waiting", "them", "open"]);
    expect(await remindersToGo(tray.deps, desk.lead, [id])).toEqual([]);
  });

  it("stops at the answer, and a series with it", async () => {
    const { id, asked } = await overdue("Series");
    moves(2 * DAY);
    done(await planReminders(tray.deps, desk.lead, desk.ines, [id], { ...style, isSeries: true }));
    expect(await remindersToGo(tray.deps, desk.lead, [id])).toHaveLength(4);
    expect(await sendReminders(tray.deps)).toBe(1);
    await comes(VANE, asked);
    moves(30 * DAY);
    expect(await sendReminders(tray.deps)).toBe(0);
    const rows = await tray.ask("select state, reason from reminder where conversation_id = $1 order by send_at", [id]);
    expect(rows.map(({ reason }) => reason)).toEqual([null, "answered", "answered", "answered"]);
  });

  it("never goes within a day of our last message, nor to whoever is called off", async () => {
    const { id } = await overdue("Twice");
    moves(2 * HOUR);
    done(await planReminders(tray.deps, desk.lead, desk.ines, [id], style));
    expect(await sendReminders(tray.deps)).toBe(0);
    moves(2 * DAY);
    done(await planReminders(tray.deps, desk.lead, desk.ines, [id], { ...style, text: "Well?" }));
    expect(done(await callOffReminders(tray.deps, desk.lead, [id]))).toBe(1);
    expect(await sendReminders(tray.deps)).toBe(0);
  });

  it("is prepared in a style, and refused where nothing is awaited or one only reads", async () => {
    const { id } = await overdue("Style");
    const german = { tone: "friendly", language: "de" } as const;
    expect(await previewReminder(tray.deps, desk.lead, desk.ines, id, german)).toMatch(/^Guten Tag/);
    const nothing = await desk.arrive({ subject: "Nothing" });
    expect(refusal(await planReminders(tray.deps, desk.lead, desk.ines, [nothing], style))).toBe("nothing-awaited");
    expect(refusal(await planReminders(tray.deps, desk.reader, desk.ines, [id], style))).toBe("readers-only-read");
    expect(refusal(await callOffReminders(tray.deps, desk.reader, [id]))).toBe("readers-only-read");
    expect(await previewReminder(tray.deps, desk.lead, desk.ines, trustedId(desk.ines.id), german)).toBeNull();
  });
});

describe("what a tray waits for", () => {
  it("comes by its day, with how this correspondent usually answers", async () => {
    const from = "quick@x.example";
    for (let at = 0; at < 5; at += 1) {
      const id = await desk.arrive({ subject: `Quick ${at}`, from });
      const asked = await asks(id, [address(from)]);
      moves(2 * HOUR);
      await comes(from, asked);
      moves(DAY);
      await desk.does(desk.lead, id, { kind: "settle" });
    }
    const id = await desk.arrive({ subject: "Quick again", from });
    await asks(id, [address(from)], { until: later(now(), 3 * DAY) });
    const { rows } = await getWaiting(tray.deps, desk.lead);
    const row = rows.find((one) => one.row.id === id);
    expect(row).toMatchObject({ over: 0, usual: { count: 5, isHers: true } });
    expect(row?.span?.from).toBeGreaterThan(row?.askedAt ?? 0);
    const dates = rows.map((one) => one.row.expectedAt ?? Number.POSITIVE_INFINITY);
    expect(dates).toEqual(dates.toSorted((a, b) => a - b));
  });
});

describe("what matters only until a moment", () => {
  it("is a loose end before, lapses then, and is kept by whoever says so", async () => {
    const until = later(now(), 4 * DAY);
    const headers = { "Expiry-Date": dateOf(until).toUTCString() };
    const id = await comes(VANE, null, { subject: "Offer", headers });
    expect((await docketOf(id)).expiresAt).toBe(Math.floor(until / 1000) * 1000);
    const isLapsing = async () =>
      (await getLooseEnds(tray.deps, desk.lead)).rows.some((one) => one.row.id === id && one.kind === "lapsing");
    expect(await isLapsing()).toBe(false);
    moves(3 * DAY);
    expect(await isLapsing()).toBe(true);
    expect(await lapseExpired(tray.deps)).toBe(0);
    moves(2 * DAY);
    expect(await lapseExpired(tray.deps)).toBe(1);
    expect(await lapseExpired(tray.deps)).toBe(0);
    const { standing, expiresAt } = await docketOf(id);
    expect([standing.kind, standing.reason.kind, expiresAt]).toEqual(["settled", "lapsed", null]);
    await desk.does(desk.lead, id, { kind: "keep" }, { kind: "expire", at: later(now(), DAY) });
    expect((await docketOf(id)).expiresAt).not.toBeNull();
    await desk.does(desk.lead, id, { kind: "expire", at: null });
    moves(2 * DAY);
    expect(await lapseExpired(tray.deps)).toBe(0);
    expect((await docketOf(id)).standing.kind).toBe("our-move");
    const past = { kind: "expire", at: later(now(), -DAY) } as const;
    expect(refusal(await decide(tray.deps, desk.lead, { ids: [id], seenVersion: null }, past))).toBe("date-is-past");
  });

  it("is said in the header of what we send", async () => {
    const id = await desk.arrive({ subject: "Our offer" });
    const expiresAt = later(now(), 9 * DAY);
    done(
      await answerConversation(tray.deps, desk.lead, desk.ines, id, {
        to: [{ name: "", address: VANE }],
        cc: [],
        subject: "Re",
        html: "<p>20 crowns.</p>",
        expiresAt,
        after: { kind: "settle" },
      }),
    );
    const [row] = await tray.ask(
      "select expires_at, convert_from(content, 'utf8') as raw from message join blob on sha256 = raw_sha256 where conversation_id = $1 and direction = 'out'",
      [id],
    );
    expect(row.raw).toContain(`Expiry-Date: ${dateOf(expiresAt).toUTCString().slice(0, 16)}`);
    expect(Math.abs(row.expires_at.getTime() - expiresAt)).toBeLessThan(1_000);
  });
});

describe("loose ends", () => {
  const kindsOf = async (id: ConversationId) =>
    (await getLooseEnds(tray.deps, desk.lead)).rows.filter(({ row }) => row.id === id).map(({ kind }) => kind);

  it("are what is overdue, nobody’s, too long ours, settled though asked, or past its follow-up", async () => {
    const overdue = await desk.arrive({ subject: "Overdue" });
    await asks(overdue, [VANE], { until: later(now(), HOUR) });
    const settled = await desk.arrive({ subject: "Asked and settled" });
    await asks(settled, [VANE], { until: later(now(), HOUR) });
    await desk.does(desk.lead, settled, { kind: "settle" });
    const nobodys = await desk.arrive({ subject: "Nobody’s" });
    await desk.does(desk.lead, nobodys, { kind: "keep" });
    const long = await desk.arrive({ subject: "Long" });
    await desk.does(desk.lead, long, { kind: "assign", ownerId: desk.mara.id });
    const due = await desk.arrive({ subject: "Due" });
    const followUp = { kind: "follow-up", followUpId: trustedId(tray.deps.newId()), forMember: desk.ines.id } as const;
    await desk.does(desk.lead, due, { ...followUp, dueAt: later(now(), HOUR), text: "Call" } as never);
    expect(await kindsOf(overdue)).toEqual([]);
    expect(await kindsOf(long)).toEqual([]);
    moves(5 * DAY);
    expect(await kindsOf(overdue)).toEqual(["overdue"]);
    expect(await kindsOf(settled)).toEqual(["asked-and-settled"]);
    expect(await kindsOf(nobodys)).toEqual(["nobodys"]);
    expect(await kindsOf(long)).toEqual(["our-move-too-long"]);
    expect(await kindsOf(due)).toEqual(["follow-up-past"]);
    const { rows: all } = await getLooseEnds(tray.deps, desk.lead);
    const count = new Set(all.map(({ row }) => row.id)).size;
    // A page waits for the count only so long.
    const impatient = { ...tray.deps, pause: () => new Promise<void>((over) => setImmediate(over)) };
    tray.deps.memory.forgetAll();
    expect(await looseEndCountIfSoon(impatient, desk.lead)).toBeNull();
    expect(await looseEndCount(tray.deps, desk.lead)).toBe(count);
    expect(await looseEndCountIfSoon(impatient, desk.lead)).toBe(count);
    // A reminder that is to go is what was to be done about it.
    const style = { tone: "firm", language: "en", text: null, isSeries: false } as const;
    done(await planReminders(tray.deps, desk.lead, desk.ines, [overdue], style));
    expect(await kindsOf(overdue)).toEqual([]);
  });

  it("are none where somebody says why, until something happens in it", async () => {
    const id = await desk.arrive({ subject: "They rang" });
    await desk.does(desk.lead, id, { kind: "keep" });
    expect(await kindsOf(id)).toEqual(["nobodys"]);
    done(await callNoLooseEnd(tray.deps, desk.lead, id, "nobodys", "they rang"));
    expect(await kindsOf(id)).toEqual([]);
    done(await callLooseEndAgain(tray.deps, desk.lead, id, "nobodys"));
    expect(await kindsOf(id)).toEqual(["nobodys"]);
    done(await callNoLooseEnd(tray.deps, desk.lead, id, "nobodys", "they rang"));
    await desk.arrive({ into: id, subject: "Re: They rang" });
    expect(await kindsOf(id)).toEqual(["nobodys"]);
    expect(refusal(await callNoLooseEnd(tray.deps, desk.reader, id, "nobodys", "x"))).toBe("readers-only-read");
    expect(refusal(await callLooseEndAgain(tray.deps, desk.reader, id, "nobodys"))).toBe("readers-only-read");
    const elsewhere = trustedId<ConversationId>(desk.ines.id);
    expect(refusal(await callNoLooseEnd(tray.deps, desk.lead, elsewhere, "nobodys", "x"))).toBe("no-such-conversation");
  });

  it("are junk from a contact, and not from a stranger", async () => {
    const contact = { name: "Halse", organisation: "", phone: "", note: "", categoryIds: [] };
    done(await editContact(tray.deps, desk.lead, null, { ...contact, addresses: "post@halse.example" }));
    const known = await desk.arrive({ subject: "Known", from: "post@halse.example" });
    const stranger = await desk.arrive({ subject: "Prize", from: "winner@luckypost.example" });
    await desk.does(desk.lead, [known, stranger], { kind: "junk" });
    expect(await kindsOf(known)).toEqual(["junk-from-known"]);
    expect(await kindsOf(stranger)).toEqual([]);
  });

  it("are what one of us answered from outside, as long as nobody says here what is to become of it", async () => {
    const proof = { "Authentication-Results": "mx.ottermoor.example; dmarc=pass header.from=ottermoor.example" };
    tray.deps = { ...tray.deps, trust: { ...tray.deps.trust, authservIds: ["mx.ottermoor.example"] } };
    const copied = async (headers: Readonly<Record<string, string>>) => {
      const id = await desk.arrive({ subject: "When do you open?" });
      const [asked] = await tray.ask("select message_id from message where conversation_id = $1", [id]);
      const given = { subject: "Re: When do you open?", to: VANE, headers };
      expect(await comes("Ines <office@ottermoor.example>", asked.message_id, given)).toBe(id);
      return id;
    };
    const answered = await copied(proof);
    expect(await stateOf(answered)).toEqual(["settled", "them"]);
    expect(await kindsOf(answered)).toEqual(["answered-outside"]);
    const another = await copied(proof);
    await desk.does(desk.lead, another, { kind: "assign", ownerId: desk.mara.id });
    expect(await kindsOf(another)).toEqual([]);
    moves(8 * DAY);
    expect(await kindsOf(answered)).toEqual([]);
    // Anybody can write our address into a letter: without proof it is mail to us like any other.
    const forged = await copied({});
    expect(await stateOf(forged)).toEqual(["to-sort", "us"]);
    expect(await kindsOf(forged)).toEqual([]);
  });

  it("leave every docket as its facts have it", async () => {
    expect((await examine(tray.deps)).differences).toEqual([]);
  });
});
