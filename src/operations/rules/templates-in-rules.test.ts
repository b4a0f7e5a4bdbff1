import { type Desk, done, setUpDesk } from "@tests/support/desk";
import { inEnglish } from "@tests/support/english";
import { postOf } from "@tests/support/post-of";
import { worded } from "@tests/support/ruled-messages";
import { address, passes, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type ConversationId, type TemplateId, trustedId } from "../../core/kernel/ids";
import type { RuleAction } from "../../core/rules/rule";
import {
  applySendingRules,
  dropTemplate,
  editRule,
  editTemplate,
  explainMessage,
  getStoppedRules,
  openConversation,
  type RuleDraft,
  sendMessage,
  startConversation,
} from "../index.server";

let tray: TestTray;
let desk: Desk;
const { comes, wentOut } = postOf(() => tray);

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
});
afterAll(() => tray.close());

let made = 0;
const keepsTemplate = async (html: string): Promise<TemplateId> => {
  made += 1;
  const plain = { folder: "", key: "", language: "en", description: "", subject: "", habits: {}, version: 0 };
  const draft = { id: null, scope: "tray", name: `Template ${made}`, html, ...plain } as const;
  return done(await editTemplate(tray.deps, desk.lead, draft));
};
const draftOf = (word: string, actions: readonly RuleAction[], more: Partial<RuleDraft> = {}): RuleDraft => ({
  ...{ id: null, name: `About ${word}`, isOn: true, isLast: false, exception: null, actions },
  condition: worded("subject", "words", word),
  ...more,
});
const keeps = async (...given: Parameters<typeof draftOf>) => {
  const id = done(await editRule(tray.deps, desk.lead, draftOf(...given)));
  // What arrives is asked by rules that are at most two seconds old.
  passes(tray, 1);
  return id;
};
const notesIn = async (id: ConversationId) =>
  (await openConversation(tray.deps, desk.lead, id, "ahead"))?.journal.flatMap(({ effect }) =>
    effect.kind === "noted" ? [effect.text] : [],
  );

const greets = '<p><span data-blank="greeting">their greeting</span></p><p>We have your letter.</p>';

describe("a rule that answers with a template", () => {
  it("fills in what is known, leaves out passages, and answers once a person in so many days", async () => {
    const passage = '<div data-passage="Is it urgent?"><p>Call us.</p></div>';
    await keeps("tin", [{ kind: "answer-with", templateId: await keepsTemplate(greets + passage), days: 3 }]);
    for (const subject of ["Tin", "More tin"])
      await comes({ subject, from: "Perpetua Vane <perpetua.vane@vanehouse.example>" });
    const [sent, ...more] = await wentOut();
    expect(more).toEqual([]);
    expect(sent?.text).toContain("Auto-Submitted: auto-replied");
    expect(sent?.text).toContain("Dear Perpetua Vane");
    expect(sent?.text).toContain("We have your letter.");
    expect(sent?.text).not.toMatch(/data-blank|Call us/);
  });

  it("does not answer where something is not known, and says so once in the conversation", async () => {
    const html = '<p>About <span data-blank="record-title">title of the record</span>.</p>';
    await keeps("lead", [{ kind: "answer-with", templateId: await keepsTemplate(html), days: null }]);
    const { id, messageId } = await comes({ subject: "Lead" });
    await comes({ subject: "Re: Lead", inReplyTo: messageId });
    expect(await wentOut()).toEqual([]);
    expect(await notesIn(id)).toEqual([
      `“About lead” did not answer: “Template ${made}” has blanks that nothing fills here: title of the record.`,
    ]);
    const record = await desk.opensRecord("The zither of Lead");
    await desk.does(desk.lead, id, { kind: "file", recordId: record.id, settle: false });
    await comes({ subject: "Re: Lead", inReplyTo: messageId });
    expect((await wentOut())[0]?.text).toContain("The zither of Lead");
  });

  it("is not kept with one that somebody would have to fill", async () => {
    const templateId = await keepsTemplate('<p>At <span data-blank="text">the hour</span>.</p>');
    const refused = await editRule(
      tray.deps,
      desk.lead,
      draftOf("zinc", [{ kind: "answer-with", templateId, days: 7 }]),
    );
    if (refused.ok || refused.error.kind !== "problems") throw new Error("it was kept");
    expect(inEnglish(refused.error.problems.actions)).toEqual([
      { at: 0, problem: `Nobody is there to fill in what “Template ${made}” asks for: the hour.` },
    ]);
    const own = await editTemplate(tray.deps, desk.lead, {
      ...{ id: null, scope: "own", name: "Mine", html: greets, folder: "", key: "", language: "en", description: "" },
      ...{ subject: "", habits: {}, version: 0 },
    });
    const mine: RuleAction = { kind: "answer-with", templateId: done(own), days: 7 };
    expect(await editRule(tray.deps, desk.lead, draftOf("zinc", [mine]))).toMatchObject({
      error: { kind: "no-such", what: "template" },
    });
  });

  it("stops when the template is removed, says so, and goes on when it is back", async () => {
    const templateId = await keepsTemplate(greets);
    const rule = await keeps("brass", [{ kind: "answer-with", templateId, days: null }]);
    const answers = async () => {
      passes(tray, 1);
      const { id } = await comes({
        subject: "Brass",
        from: `A ${made} <a${made}@x.example>`,
        sender: `a${made}@x.example`,
      });
      made += 1;
      const message = (await openConversation(tray.deps, desk.lead, id))?.messages[0]?.id ?? trustedId("");
      const explained = await explainMessage(tray.deps, desk.lead, message);
      return [(await wentOut()).length, explained?.rules.find((one) => one.rule.id === rule)?.verdict];
    };
    expect(await answers()).toEqual([1, "forIt"]);
    done(await dropTemplate(tray.deps, desk.lead, templateId, true));
    expect(await answers()).toEqual([0, "stopped"]);
    expect((await getStoppedRules(tray.deps, desk.lead)).get(rule)).toEqual(["templates"]);
    done(await dropTemplate(tray.deps, desk.lead, templateId, false));
    expect(await answers()).toEqual([1, "forIt"]);
  });
});

/** How many answers are awaited of a first message that began with a template, once it is out. */
async function expectedIn(began: TemplateId | undefined): Promise<number | undefined> {
  const started = done(
    await startConversation(tray.deps, desk.lead, desk.ines, {
      to: [{ name: "", address: address("mill@dombach.example") }],
      ...{ cc: [], subject: "An offer", html: "<p>An offer.</p>", after: { kind: "keep" }, template: began ?? null },
    }),
  );
  await sendMessage(tray.deps, started.messageId, { number: 1, last: true });
  for (const job of tray.jobs.splice(0))
    if (job.kind === "rules-of-sent") await applySendingRules(tray.deps, job.trayId, job.messageId);
  return (await openConversation(tray.deps, desk.lead, started.conversationId))?.docket.expectations.length;
}

describe("a rule for what began with a template", () => {
  it("acts on that, and on nothing else that we send", async () => {
    const [templateId, other] = [await keepsTemplate("<p>An offer.</p>"), await keepsTemplate("<p>Thanks.</p>")];
    await keeps("offers", [{ kind: "expect", workingDays: 3 }], {
      condition: { kind: "template", of: [templateId] },
      times: { moment: "sending", from: null, until: null },
    });
    expect(await expectedIn(templateId)).toBe(1);
    expect(await expectedIn(other)).toBe(0);
    expect(await expectedIn(undefined)).toBe(0);
  });
});
