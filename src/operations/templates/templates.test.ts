import { type Desk, done, refusal, setUpDesk } from "@tests/support/desk";
import { address, passes, setUpParts, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type CategoryId, type ConversationId, type TemplateId, trustedId } from "../../core/kernel/ids";
import { HOUR } from "../../core/kernel/instant";
import {
  type Answer,
  answerConversation,
  createCategory,
  dropTemplate,
  editTemplate,
  fillTemplate,
  getTemplates,
  openConversation,
  retireCategory,
  startConversation,
  type TemplateDraft,
  type TrayGrant,
  templatesToChoose,
  traysOf,
} from "../index.server";

let tray: TestTray;
let desk: Desk;

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
});
afterAll(() => tray.close());

let made = 0;
const draft = (given: Partial<TemplateDraft> = {}): TemplateDraft => {
  made += 1;
  const plain = { folder: "Visits", key: "", language: "en", description: "", subject: "", habits: {}, version: 0 };
  return { id: null, scope: "tray", name: `Template ${made}`, html: "<p>We come.</p>", ...plain, ...given };
};
const keeps = async (given: Partial<TemplateDraft> = {}, grant: TrayGrant = desk.lead): Promise<TemplateId> =>
  done(await editTemplate(tray.deps, grant, draft(given)));
const tries = async (given: Partial<TemplateDraft>, grant: TrayGrant = desk.lead) =>
  refusal(await editTemplate(tray.deps, grant, draft(given)));
const found = async (id: TemplateId, grant: TrayGrant = desk.lead) =>
  (await getTemplates(tray.deps, grant)).find((template) => template.id === id);

const VANE = { name: "Perpetua Vane", address: address("perpetua@vanehouse.example") };
const letter = (given: Partial<Answer> = {}): Answer => ({
  ...{ to: [VANE], cc: [], subject: "A visit", html: "<p>We come.</p>", after: { kind: "keep" }, ...given },
});
const starts = async (given: Partial<Answer> = {}) =>
  startConversation(tray.deps, desk.maraGrant, desk.mara, letter(given));

describe("a template", () => {
  it("of a tray is kept by those who lead it, one's own by its member, one of all by who leads them all", async () => {
    expect(await tries({ scope: "tray" }, desk.maraGrant)).toBe("leads-only");
    expect(await tries({ scope: "everywhere" }, desk.maraGrant)).toBe("leads-of-all-only");
    expect(await tries({ scope: "own" }, desk.reader)).toBe("readers-only-read");
    const own = await keeps({ scope: "own" }, desk.maraGrant);
    expect(await found(own, desk.maraGrant)).toMatchObject({ memberId: desk.mara.id, trayId: null, version: 1 });
    expect(await found(own)).toBeUndefined();
    expect(await tries({ id: own })).toBe("no-such");
    expect(refusal(await dropTemplate(tray.deps, desk.lead, own, true))).toBe("no-such");

    const common = await keeps({ scope: "everywhere" });
    const { col, grant: parts } = await setUpParts(tray.deps);
    expect(await found(common, parts)).toBeDefined();
    expect(await found(await keeps(), parts)).toBeUndefined();
    // There is a tray now that she does not lead.
    const [led] = await traysOf(tray.deps, col);
    expect(led?.role).toBe("lead");
    expect(await tries({ scope: "everywhere" })).toBe("leads-of-all-only");
    expect(refusal(await dropTemplate(tray.deps, desk.lead, common, true))).toBe("leads-of-all-only");
  });

  it("stands in its folder by a name and a key that no other there has", async () => {
    const id = await keeps({ name: " Appointment ", folder: " Visits / On site/", key: "site" });
    expect(await found(id)).toMatchObject({ name: "Appointment", folder: "Visits/On site", key: "site" });
    expect(await tries({ name: "appointment", folder: "Visits/On site" })).toBe("template-problems");
    expect(await tries({ key: "Site" })).toBe("template-problems");
    // Hers is another.
    await keeps({ name: "Appointment", folder: "Visits/On site", scope: "own" }, desk.maraGrant);
    const both = await Promise.all([tries({ name: "Twice" }), tries({ name: "Twice" })]);
    expect(both.toSorted()).toEqual(["done", "template-problems"]);
  });

  it("that somebody changed meanwhile is not written over", async () => {
    const id = await keeps({ html: "<p>One</p>" });
    await keeps({ id, html: "<p>Two</p>", version: 1 });
    expect(await tries({ id, html: "<p>Three</p>", version: 1 })).toBe("template-changed");
    expect(await found(id)).toMatchObject({ html: "<p>Two</p>", version: 2 });
  });

  it("is taken away and brought back", async () => {
    const id = await keeps();
    done(await dropTemplate(tray.deps, desk.lead, id, true));
    expect(await found(id)).toBeUndefined();
    expect(refusal(await fillTemplate(tray.deps, desk.lead, desk.ines, id, NOTHING))).toBe("no-such");
    done(await dropTemplate(tray.deps, desk.lead, id, false));
    expect(await found(id)).toBeDefined();
  });
});

const NOTHING = { conversationId: null, recordCode: "", to: null };
const blank = (kind: string, label: string, more = "") => `<span data-blank="${kind}"${more}>${label}</span>`;

describe("a template that is used", () => {
  it("is filled with what is known of the conversation, its record and whoever it goes to", async () => {
    const record = await desk.opensRecord("Swell box of Vane House");
    const id = await desk.arrive({ subject: "A visit" });
    await desk.does(
      desk.maraGrant,
      id,
      { kind: "assign", ownerId: desk.mara.id },
      { kind: "file", recordId: record.id, settle: false },
    );
    const template = await keeps({
      subject: "About [record-title]",
      html: `${blank("their-name", "who")}, ${blank("record-code", "code")}, ${blank("owner", "owner")}, ${blank("my-name", "me")}, ${blank("their-organisation", "house?")}`,
      habits: { expectDays: 2, followUp: { days: 1, text: "Ring them" } },
    });
    const about = { conversationId: id, recordCode: "", to: VANE };
    expect(done(await fillTemplate(tray.deps, desk.lead, desk.ines, template, about))).toMatchObject({
      subject: "About Swell box of Vane House",
      html: `Perpetua Vane, ${record.code}, Mara Quell, Ines Varga, ${blank("text", "house?")}`,
      followUp: { text: "Ring them" },
    });
    const { expectBy, followUp } = done(await fillTemplate(tray.deps, desk.lead, desk.ines, template, about));
    expect((expectBy ?? 0) - (followUp?.dueAt ?? 0)).toBeGreaterThan(24 * HOUR);
    const nobody = done(await fillTemplate(tray.deps, desk.lead, desk.ines, template, NOTHING));
    expect(nobody.subject).toBe("About [record-title]");
  });

  it("does not go while a blank is left in it, in its subject neither; a passage that is left out does not go at all", async () => {
    const passage = `<div data-passage="on the scaffold"><p>Mind the ${blank("text", "plank")}.</p></div>`;
    expect(await starts({ html: `<p>On ${blank("date", "which day?")}.</p>` })).toEqual({
      ok: false,
      error: { kind: "unfilled", blanks: ["which day?"] },
    });
    expect(refusal(await starts({ subject: "About [record-title]" }))).toBe("unfilled");
    const id = await desk.arrive();
    const asked = letter({ html: `<p>${blank("number", "how many?")}</p>` });
    expect(refusal(await answerConversation(tray.deps, desk.maraGrant, desk.mara, id, asked))).toBe("unfilled");
    const sent = done(await starts({ html: `<p>On Friday.</p>${passage}` }));
    const [row] = await tray.ask(
      "select convert_from(content, 'utf8') as raw from message join blob on sha256 = raw_sha256 where id = $1",
      [sent.messageId],
    );
    expect(row.raw).toContain("On Friday.");
    expect(row.raw).not.toContain("plank");
  });

  it("gives the conversation its categories, but for one that ended or is there already", async () => {
    const category = async (code: string): Promise<CategoryId> => {
      const plain = { parentId: null, ink: "moss", key: null, description: "", listed: "open" } as const;
      const given = { ...plain, code, name: `Category ${code}`, trayId: desk.lead.tray.id };
      return done(await createCategory(tray.deps, desk.lead, given)).value;
    };
    const [tuning, ended] = [await category("TU"), await category("EN")];
    done(await retireCategory(tray.deps, desk.lead, ended));
    const { conversationId } = done(await starts({ categoryIds: [tuning, ended, trustedId(tray.deps.newId())] }));
    const given = async (id: ConversationId) =>
      (await openConversation(tray.deps, desk.lead, id, "ahead"))?.row.categoryIds;
    expect(await given(conversationId)).toEqual([tuning]);
    passes(tray, 1);
    const again = letter({ categoryIds: [tuning] });
    done(await answerConversation(tray.deps, desk.maraGrant, desk.mara, conversationId, again));
    const [{ count }] = await tray.ask(
      "select count(*)::int as count from journal where conversation_id = $1 and effect ->> 'kind' = 'categorised'",
      [conversationId],
    );
    expect(count).toBe(1);
  });

  it("is counted: how often, by whom, how many were answered and how soon", async () => {
    const template = await keeps();
    expect((await found(template))?.uses).toBeNull();
    const [one, other] = [await desk.arrive(), await desk.arrive()];
    const answer = letter({ template });
    done(await answerConversation(tray.deps, desk.maraGrant, desk.mara, one, answer));
    done(await answerConversation(tray.deps, desk.lead, desk.ines, other, answer));
    passes(tray, 115);
    await desk.arrive({ into: one });
    const uses = (await found(template))?.uses;
    expect(uses).toMatchObject({ count: 2, answered: 1, answeredWithinMs: 2 * HOUR });
    expect(uses?.memberIds.toSorted()).toEqual([desk.ines.id, desk.mara.id].toSorted());
    const choices = await templatesToChoose(tray.deps, desk.lead, await desk.arrive());
    expect(choices[0]).toMatchObject({ id: template, isProposed: true });
    expect(choices.filter(({ isProposed }) => isProposed).length).toBeLessThan(choices.length);
    expect((await templatesToChoose(tray.deps, desk.lead, null)).some(({ isProposed }) => isProposed)).toBe(false);
    // What is named and is no template is sent all the same.
    done(await starts({ template: trustedId<TemplateId>(tray.deps.newId()) }));
  });
});
