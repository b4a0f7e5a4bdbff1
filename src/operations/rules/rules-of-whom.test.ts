import { type Desk, done, refusal, setUpDesk } from "@tests/support/desk";
import { inEnglish } from "@tests/support/english";
import { aMessage } from "@tests/support/mail";
import { worded } from "@tests/support/ruled-messages";
import { address, asLead, passes, setUpParts, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import {
  type CategoryId,
  type ConversationId,
  type MemberId,
  type MessageId,
  type RuleId,
  trustedId,
} from "../../core/kernel/ids";
import type { RuleAction } from "../../core/rules/rule";
import {
  dropRule,
  editRule,
  explainMessage,
  getRuleHistory,
  getRules,
  openConversation,
  placeRules,
  type RuleDraft,
  receiveMessage,
  scriptOfTray,
  setUpCategories,
  startRuleRun,
  type TrayGrant,
  undoRuleVersion,
} from "../index.server";

let tray: TestTray;
let desk: Desk;
let parts: Awaited<ReturnType<typeof setUpParts>>;
let tin: CategoryId;

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
  parts = await setUpParts(tray.deps);
  const made = await setUpCategories(tray.deps, [{ code: "TI", name: "Tin", ink: "moss", parentCode: null }]);
  tin = made[0]?.id ?? trustedId("");
});
afterAll(() => tray.close());

const draftOf = (word: string, actions: readonly RuleAction[], more: Partial<RuleDraft> = {}): RuleDraft => ({
  ...{ id: null, name: `About ${word}`, isOn: true, isLast: false, exception: null },
  ...{ condition: worded("subject", "words", word), actions, ...more },
});
async function keep(grant: TrayGrant, ...given: Parameters<typeof draftOf>): Promise<RuleId> {
  const id = done(await editRule(tray.deps, grant, draftOf(...given)));
  // What arrives is asked by rules that are at most two seconds old.
  passes(tray, 1);
  return id;
}
const problemsOf = async (grant: TrayGrant, draft: RuleDraft) => {
  const edited = await editRule(tray.deps, grant, draft);
  if (edited.ok || edited.error.kind !== "problems") throw new Error("nothing is wrong with it");
  return inEnglish(edited.error.problems);
};
const did = async (grant: TrayGrant, id: ConversationId) =>
  (await openConversation(tray.deps, grant, id, "ahead"))?.journal.map(({ effect }) => effect) ?? [];
const names = async (grant: TrayGrant) => (await getRules(tray.deps, grant)).map(({ name }) => name);
async function arrivesAtParts(subject: string): Promise<ConversationId> {
  const raw = aMessage({ id: `${subject.replaceAll(" ", "-")}@vane.example`, subject });
  const recipients = [address("parts@ottermoor.example")];
  const [kept] = await receiveMessage(tray.deps, { raw, envelopeSender: "a@x.example", recipients });
  return kept?.conversationId ?? trustedId("");
}
const tell = (memberId: MemberId): RuleAction => ({ kind: "tell", memberId });

describe("a rule of one's own", () => {
  it("tells and has followed by nobody but its member, who may also only read the tray", async () => {
    const { memberId } = desk.reader;
    const rule = await keep(desk.reader, "celesta", [tell(memberId), { kind: "follow", memberId }], { memberId });
    const one = await desk.arrive({ subject: "A celesta" });
    expect(await did(desk.lead, one)).toEqual([
      { kind: "told", memberId },
      { kind: "followed", memberId },
    ]);
    expect([await names(desk.reader), await names(desk.lead)]).toEqual([["About celesta"], []]);
    expect(await getRuleHistory(tray.deps, desk.lead, rule, null)).toBeNull();
    expect((await getRuleHistory(tray.deps, desk.reader, rule, null))?.lately.did).toBe(1);

    const other = tell(desk.tobias.id);
    const settle = { kind: "settle" } as const;
    expect(await problemsOf(desk.reader, draftOf("regal", [other, settle], { memberId }))).toEqual({
      actions: [0, 1].map((at) => ({
        at,
        problem: "Your own rule can only tell you, have you follow it, or set you a follow-up.",
      })),
    });
    const stolen = { ...draftOf("celesta", [tell(memberId)], { memberId }), id: rule };
    expect(refusal(await editRule(tray.deps, desk.lead, stolen))).toBe("no-such");
    expect(refusal(await editRule(tray.deps, desk.lead, { ...draftOf("celesta", [settle]), id: rule }))).toBe(
      "no-such",
    );
    expect(refusal(await dropRule(tray.deps, desk.lead, rule, true))).toBe("no-such");
    expect(refusal(await startRuleRun(tray.deps, desk.lead, rule, "Run"))).toBe("no-such");
    done(await dropRule(tray.deps, desk.reader, rule, true));
  });

  it("sets a follow-up for its member, and for nobody else", async () => {
    const { memberId } = desk.tobiasGrant;
    const followUp = (forMember: MemberId | null) =>
      ({ kind: "follow-up", workingDays: 2, text: "Look at the reeds", forMember }) as const;
    for (const whose of [desk.mara.id, null]) {
      const problems = await problemsOf(desk.tobiasGrant, draftOf("reeds", [followUp(whose)], { memberId }));
      expect(Object.keys(problems)).toEqual(["actions"]);
    }
    const own = await keep(desk.tobiasGrant, "reeds", [followUp(memberId)], { memberId });
    const one = await desk.arrive({ subject: "New reeds" });
    expect(await did(desk.lead, one)).toMatchObject([{ kind: "follow-up-set", forMember: memberId }]);
    done(await dropRule(tray.deps, desk.tobiasGrant, own, true));
  });

  it("is asked after the tray's, also after the last of these, and ends none of them", async () => {
    const { memberId } = desk.tobiasGrant;
    const own = await keep(desk.tobiasGrant, "serpent", [tell(memberId)], { memberId, isLast: true });
    const rule = await keep(desk.lead, "serpent", [{ kind: "urgency", urgency: "today" }], { isLast: true });
    const one = await desk.arrive({ subject: "A serpent" });
    expect((await did(desk.lead, one)).map(({ kind }) => kind)).toEqual(["urgency-set", "told"]);
    const [message] = await tray.ask(`select id from message where conversation_id = '${one}'`);
    const explained = await explainMessage(tray.deps, desk.tobiasGrant, trustedId<MessageId>(String(message?.id)));
    expect(explained?.rules.map(({ rule: { id }, verdict }) => [id, verdict])).toEqual([
      [rule, "forIt"],
      [own, "forIt"],
    ]);
    expect((await scriptOfTray(tray.deps, desk.lead)).script.match(/serpent/g)).toHaveLength(2);
    // Its name is taken among one's own only, and the order of the tray's leaves it alone.
    expect(await names(desk.tobiasGrant)).toEqual(["About serpent", "About serpent"]);
    done(await placeRules(tray.deps, desk.lead, [rule]));
    for (const [grant, id] of [
      [desk.tobiasGrant, own],
      [desk.lead, rule],
    ] as const)
      done(await dropRule(tray.deps, grant, id, true));
  });

  it("is for nobody who does not look into the tray any more", async () => {
    const { memberId } = desk.maraGrant;
    const own = await keep(desk.maraGrant, "rebec", [tell(memberId)], { memberId });
    await tray.ask(`delete from tray_member where member_id = '${memberId}'`);
    passes(tray, 1);
    expect(await did(desk.lead, await desk.arrive({ subject: "A rebec" }))).toEqual([]);
    expect((await tray.ask(`select removed_at from rule where id = '${own}'`))[0]).toEqual({ removed_at: null });
  });
});

describe("a rule of all trays", () => {
  it("is kept by those who lead them all, and names nothing that only one of them has", async () => {
    const everywhere = { isEverywhere: true };
    const note: RuleAction = { kind: "note", text: "Look at the weight." };
    expect(await problemsOf(desk.lead, draftOf("freight", [note], everywhere))).toEqual({
      everywhere: "Only those who lead all trays can do this.",
    });
    await tray.ask(
      `insert into tray_member (tray_id, member_id, role) values ('${parts.grant.tray.id}', '${desk.ines.id}', 'lead')`,
    );
    const give: RuleAction = { kind: "categorise", categoryId: tin, give: true };
    expect(await problemsOf(desk.lead, draftOf("freight", [give], everywhere))).toEqual({
      everywhere: "It names a category, round, group or contact, which other trays do not have.",
    });
    const rule = await keep(desk.lead, "freight", [note], everywhere);
    const [here, there] = [await desk.arrive({ subject: "Freight here" }), await arrivesAtParts("Freight there")];
    expect([await did(desk.lead, here), await did(parts.grant, there)]).toEqual([
      [{ kind: "noted", text: "Look at the weight." }],
      [{ kind: "noted", text: "Look at the weight." }],
    ]);

    // The other tray sees it after its own, with what it did there, and changes nothing of it.
    const own = await keep(parts.grant, "pipes", [note]);
    const seen = await getRules(tray.deps, parts.grant);
    expect(seen.map(({ id, keptIn }) => [id, keptIn])).toEqual([
      [own, null],
      [rule, "Ottermoor"],
    ]);
    expect((await getRuleHistory(tray.deps, parts.grant, rule, null))?.versions).toHaveLength(1);
    const other = { ...draftOf("freight", [note]), id: rule };
    expect(refusal(await editRule(tray.deps, parts.grant, other))).toBe("no-such");
    expect(refusal(await dropRule(tray.deps, parts.grant, rule, true))).toBe("no-such");
    const undone = done(await undoRuleVersion(tray.deps, parts.grant, { id: rule, version: 1, since: null }));
    expect(undone).toMatchObject({ count: 1 });
    // The undoing stands beside what it undid.
    expect([(await did(desk.lead, here)).length, (await did(parts.grant, there)).length]).toEqual([1, 2]);

    // Who leads its tray only does not change it either, nor takes it away.
    const tobias = await asLead(tray, desk.tobias, desk.lead.tray.id);
    expect(await problemsOf(tobias, { ...draftOf("freight", [note]), id: rule })).toEqual({
      everywhere: "Only those who lead all trays can do this.",
    });
    expect(refusal(await dropRule(tray.deps, tobias, rule, true))).toBe("leads-of-all-only");
    done(await dropRule(tray.deps, desk.lead, rule, true));
    passes(tray, 1);
    expect(await did(parts.grant, await arrivesAtParts("Freight again"))).toEqual([]);
  });
});
