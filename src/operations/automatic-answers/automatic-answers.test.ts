import { type Desk, done, refusal, setUpDesk } from "@tests/support/desk";
import { inEnglish } from "@tests/support/english";
import { aMessage } from "@tests/support/mail";
import { type Letter, postOf, type Sent } from "@tests/support/post-of";
import { addressed, worded } from "@tests/support/ruled-messages";
import { passes, type TestTray, testTray } from "@tests/support/test-database";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { MOST_AN_HOUR } from "../../core/automatic-answers/choose-answer";
import { DAY, instant, later } from "../../core/kernel/instant";
import type { RuleAction } from "../../core/rules/rule";
import {
  type AnswerDraft,
  callJunkSender,
  changeOwnMailAddress,
  dropAnswer,
  editAnswer,
  editRule,
  getAnswers,
  importInto,
  openConversation,
  planTimeOff,
  previewAnswer,
  setUpCategories,
} from "../index.server";

let tray: TestTray;
let desk: Desk;
let newest = "";

beforeEach(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
  // A Monday.
  tray.clock.now = instant(Date.parse("2026-11-02T09:00:00Z"));
});
afterEach(() => tray.close());

const draft = (given: Partial<AnswerDraft> = {}): AnswerDraft => ({
  id: null,
  name: "On our way",
  isOn: true,
  from: null,
  until: null,
  trigger: { kind: "always" },
  texts: [{ condition: { kind: "every" }, text: "We have your letter.", copiesCover: false }],
  pace: { kind: "once", days: 7 },
  ...given,
});
const keep = async (given: Partial<AnswerDraft> = {}) => {
  const id = done(await editAnswer(tray.deps, desk.lead, draft(given)));
  // What arrives is asked by answers that are at most two seconds old.
  passes(tray, 1);
  return id;
};
const post = postOf(() => tray);
const { wentOut } = post;
const comes = async (letter: Letter = {}) => {
  const { id, messageId } = await post.comes(letter);
  newest = messageId;
  return id;
};
const recipientsOf = (all: readonly Sent[]) => all.map(({ to }) => to);

describe("an automatic answer", () => {
  it("goes to the return path with what RFC 3834 asks for, and moves nothing", async () => {
    await keep();
    const id = await comes({ sender: "vane+post@vanehouse.example", subject: "Middle C", references: "<a@x.example>" });
    const [answer] = await wentOut();
    expect(answer).toMatchObject({ from: "", to: ["vane+post@vanehouse.example"] });
    for (const line of [
      "Auto-Submitted: auto-replied",
      "Subject: Auto: Middle C",
      `In-Reply-To: <${newest}>`,
      `References: <a@x.example> <${newest}>`,
      "From: Ottermoor <office@ottermoor.example>",
      "To: vane+post@vanehouse.example",
    ])
      expect(answer?.text).toContain(line);
    const opened = await openConversation(tray.deps, desk.lead, id);
    expect(opened).toMatchObject({ docket: { standing: { kind: "to-sort" }, turn: { kind: "us" } } });
    expect(opened?.row.newestText).toBe("Would a Tuesday be possible?");
    expect(opened?.messages.map(({ direction, kind }) => [direction, kind])).toEqual([
      ["in", "person"],
      ["out", "automatic"],
    ]);
    expect(await getAnswers(tray.deps, desk.lead)).toMatchObject([{ name: "On our way", count: 1 }]);
  });

  it.each<[string, Letter]>([
    ["a list", { headers: { "List-Id": "<pipes.example>" } }],
    ["a newsletter", { headers: { "List-Unsubscribe": "<mailto:off@x.example>", Precedence: "bulk" } }],
    ["an automatic message", { headers: { "Auto-Submitted": "auto-replied" } }],
    ["what says it is generated", { headers: { "Auto-Submitted": "auto-generated" } }],
    ["a notice of absence", { subject: "Automatic reply: Middle C" }],
    ["what comes from nobody", { sender: "" }],
    ["a list’s own address", { sender: "owner-pipes@x.example" }],
    ["who asks lists", { sender: "pipes-request@x.example" }],
    ["a mail system", { sender: "MAILER-DAEMON@x.example" }],
    ["who takes no answers", { sender: "no-reply@x.example" }],
    ["the tray itself", { sender: "office@ottermoor.example" }],
    ["a blind copy", { to: "others@x.example" }],
    ["an answer to an automatic one", { subject: "Re: Auto: Middle C" }],
  ])("never goes to %s", async (_, letter) => {
    await keep({ pace: { kind: "each" } });
    await comes(letter);
    expect(await wentOut()).toEqual([]);
  });

  it("goes once to a person within its days, whatever they write, and each time where it is set so", async () => {
    const id = await keep();
    await comes();
    await comes({ subject: "More" });
    await comes({ sender: "other@vanehouse.example" });
    expect(recipientsOf(await wentOut())).toEqual([["perpetua.vane@vanehouse.example"], ["other@vanehouse.example"]]);
    passes(tray, 7 * 24 * 60 + 10);
    await comes();
    expect(await wentOut()).toHaveLength(1);
    await keep({ id, pace: { kind: "each" } });
    await comes();
    passes(tray, 61);
    await comes();
    expect(await wentOut()).toHaveLength(2);
  });

  it("never goes to what is thrown away", async () => {
    await keep({ pace: { kind: "each" } });
    const away: RuleAction[][] = [[{ kind: "bin" }], [{ kind: "junk" }]];
    for (const [at, actions] of away.entries()) {
      const rule = { id: null, name: `Away ${at}`, isOn: true, isLast: false, exception: null, actions };
      done(await editRule(tray.deps, desk.lead, { ...rule, condition: worded("subject", "words", `away${at}`) }));
    }
    done(await callJunkSender(tray.deps, desk.lead, "pest@x.example", true));
    passes(tray, 1);
    await comes({ subject: "away0" });
    await comes({ subject: "away1" });
    await comes({ sender: "pest@x.example", from: "pest@x.example" });
    expect(await wentOut()).toEqual([]);
    await comes({ subject: "Stays" });
    expect(await wentOut()).toHaveLength(1);
  });

  it("stops after one where two answerers face each other, whether the other one says what it is or not", async () => {
    await keep({ pace: { kind: "each" } });
    await comes();
    const [first] = await wentOut();
    const messageId = /^Message-ID: <(.+)>/m.exec(first?.text ?? "")?.[1] ?? "";
    await comes({ headers: { "Auto-Submitted": "auto-replied" }, inReplyTo: messageId, subject: "Away" });
    await comes({ inReplyTo: messageId, subject: "I am not there" });
    expect(await wentOut()).toEqual([]);
  });

  // A thousand are stored for good, each by itself.
  it("is capped in a storm, also of many at once", { timeout: 300_000 }, async () => {
    await keep({ pace: { kind: "each" } });
    for (let wave = 0; wave < 50; wave += 1)
      await Promise.all(Array.from({ length: 20 }, (_, one) => comes({ subject: `Storm ${wave} ${one}` })));
    expect(await wentOut()).toHaveLength(MOST_AN_HOUR);
    await comes({ sender: "somebody.else@x.example" });
    expect(await wentOut()).toHaveLength(1);
  });

  it("switches itself on and off, and goes outside working hours where it is for those", async () => {
    const now = tray.clock.now;
    await keep({ from: later(now, DAY), until: later(now, 2 * DAY), pace: { kind: "each" } });
    await comes();
    passes(tray, 24 * 60);
    await comes();
    passes(tray, 24 * 60);
    await comes();
    expect(await wentOut()).toHaveLength(1);
    await keep({ name: "Closed", trigger: { kind: "closed" }, pace: { kind: "each" } });
    await comes();
    expect(await wentOut()).toEqual([]);
    tray.clock.now = instant(Date.parse("2026-11-04T22:00:00Z"));
    await comes();
    expect(await wentOut()).toHaveLength(1);
  });

  it("says something else to some, by the first text that is for them", async () => {
    const [tuning] = await setUpCategories(tray.deps, [{ code: "TU", name: "Tuning", ink: "moss", parentCode: null }]);
    await keep({
      texts: [
        { condition: worded("subject", "words", "tuning"), text: "The tuners are on their round.", copiesCover: false },
        { condition: addressed("from", "@vanehouse.example"), text: "Dear Vane House.", copiesCover: false },
      ],
    });
    await comes({ subject: "Tuning in May" });
    await comes({ sender: "b@x.example" });
    await comes({ sender: "c@x.example", from: "c@x.example" });
    const went = await wentOut();
    expect(went.map(({ text }) => /The tuners|Dear Vane/.exec(text)?.[0])).toEqual(["The tuners", "Dear Vane"]);
    const id = await keep({
      name: "Gone",
      texts: [{ ...draft().texts[0], condition: { kind: "category", of: [tuning?.id] } }] as never,
    });
    await tray.ask("update category set removed_at = now() where id = $1", [tuning?.id]);
    const gone = (await getAnswers(tray.deps, desk.lead)).find((one) => one.id === id)?.gone;
    expect(gone).toEqual(["categories"]);
  });

  it("tells the clients of a colleague who is away when they are back and who covers, who has a copy, each time", async () => {
    done(await changeOwnMailAddress(tray.deps, desk.mara, "mara@home.example"));
    const theirs = await comes({ subject: "Bellows" });
    await desk.does(desk.lead, theirs, { kind: "assign", ownerId: desk.tobias.id });
    const covers = [{ trayId: desk.lead.tray.id, recordId: null, memberId: desk.mara.id }];
    const plan = { memberId: null, from: later(tray.clock.now, DAY), until: later(tray.clock.now, 5 * DAY), covers };
    done(await planTimeOff(tray.deps, desk.tobiasGrant, plan));
    await keep({
      trigger: { kind: "away", memberId: desk.tobias.id },
      texts: [
        { condition: { kind: "every" }, text: "[colleague] is back on [back]. Write to [cover].", copiesCover: true },
      ],
      pace: { kind: "each" },
    });
    await comes({ subject: "Before" });
    passes(tray, 25 * 60);
    await comes({ subject: "Another matter" });
    passes(tray, 61);
    await comes({ subject: "Re: Bellows", inReplyTo: "auto-nothing@x.example" });
    await comes({ sender: "a.stranger@x.example", from: "a.stranger@x.example" });
    const went = await wentOut();
    expect(recipientsOf(went)).toEqual(Array(2).fill(["perpetua.vane@vanehouse.example", "mara@home.example"]));
    expect(went[0]?.text).toContain("Cc: Mara Quell <mara@home.example>");
    expect(went[0]?.text.replaceAll(/=?\r\n/g, "")).toContain(
      "Tobias Lund is back on 7 November 2026. Write to Mara Quell.",
    );
  });

  it("does not go to what is brought over from elsewhere, and its failing is nobody’s matter", async () => {
    await keep();
    const old = (async function* () {
      yield aMessage({ id: "old@x.example" });
    })();
    await importInto(tray.deps, desk.lead.tray, old, { asHistory: false, goesOn: () => true });
    expect(await wentOut()).toEqual([]);
    tray.outcomes.push({ kind: "refused", reason: "no such mailbox" });
    const id = await comes();
    await wentOut();
    expect((await openConversation(tray.deps, desk.lead, id))?.docket.standing.kind).toBe("to-sort");
  });

  it("is kept by those who lead, with what it needs, and can be taken away and brought back", async () => {
    const edited = async (given: Partial<AnswerDraft>) => editAnswer(tray.deps, desk.lead, draft(given));
    const id = done(await edited({}));
    expect(refusal(await edited({}))).toBe("answer-problems");
    expect(
      refusal(
        await edited({
          name: "Other",
          trigger: { kind: "away", memberId: "01900000-0000-7000-8000-000000000000" as never },
        }),
      ),
    ).toBe("no-such");
    expect(refusal(await editAnswer(tray.deps, { ...desk.lead, role: "member" }, draft()))).toBe("leads-only");
    expect(refusal(await dropAnswer(tray.deps, { ...desk.lead, role: "member" }, id, true))).toBe("leads-only");
    done(await dropAnswer(tray.deps, desk.lead, id, true));
    passes(tray, 1);
    await comes();
    expect(await wentOut()).toEqual([]);
    done(await dropAnswer(tray.deps, desk.lead, id, false));
    passes(tray, 1);
    await comes({ subject: "Again" });
    expect(await wentOut()).toHaveLength(1);
    expect(
      inEnglish((await changeOwnMailAddress(tray.deps, desk.mara, "office@ottermoor.example")) as never),
    ).toMatchObject({
      error: "That is the address of a tray. Enter one of your own.",
    });
  });
});

describe("its preview", () => {
  it("says who would have got what, and how many nothing and why, and sends nothing", async () => {
    await comes();
    await comes({ subject: "More" });
    await comes({ sender: "b@x.example", from: "Bea <b@x.example>", subject: "Bellows" });
    await comes({ headers: { "List-Id": "<pipes.example>" } });
    await comes({ to: "others@x.example" });
    const preview = done(
      await previewAnswer(
        tray.deps,
        desk.lead,
        draft({
          name: "",
          texts: [
            { condition: worded("subject", "words", "bellows"), text: "Leather is late.", copiesCover: false },
            { condition: { kind: "every" }, text: "We have it.", copiesCover: false },
          ],
        }),
      ),
    );
    expect(preview).toMatchObject({ of: 5, count: 2, people: 2 });
    expect(preview.newest.map(({ to, text }) => [to, text])).toEqual([
      ["b@x.example", 0],
      ["perpetua.vane@vanehouse.example", 1],
    ]);
    expect(Object.fromEntries(preview.not)).toEqual({ lately: 1, machine: 1, "not-to-us": 1 });
    expect(await wentOut()).toEqual([]);
    expect((await previewAnswer(tray.deps, desk.lead, draft({ texts: [] }))).ok).toBe(false);
    passes(tray, 15 * 24 * 60);
    expect(done(await previewAnswer(tray.deps, desk.lead, draft()))).toMatchObject({ of: 0, count: 0 });
  });
});
