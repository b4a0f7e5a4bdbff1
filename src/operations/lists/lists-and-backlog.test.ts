import { inEnglish } from "@tests/support/english";
import { aMessage } from "@tests/support/mail";
import { address, type Office, passes, setUpOffice, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { writingTexts } from "~/texts/en/writing";
import { saidOf } from "~/texts/said";
import { type ConversationId, type MessageId, trustedId } from "../../core/kernel/ids";
import { DAY, dateOf, later } from "../../core/kernel/instant";
import type { ListFilter } from "../../core/lists/filter";
import { USUAL_VIEW } from "../../core/lists/sheet-view";
import type { LeavingOutcome } from "../../core/ports";
import {
  answerConversation,
  type Deps,
  everythingInList,
  examine,
  getBacklog,
  openConversation,
  receiveMessage,
  reparse,
  unsubscribeFromList,
} from "../index.server";

const said = saidOf(writingTexts);

let tray: TestTray;
let office: Office;
let deps: Deps;
let count = 0;
const asked: string[] = [];
const outcomes: LeavingOutcome[] = [];

const LIST = { "List-Id": "Rolling Guild <Rolling.TinGuild.example>" };
const arrive = async (more: Parameters<typeof aMessage>[0]) => {
  passes(tray, 7);
  count += 1;
  const date = dateOf(tray.clock.now).toUTCString();
  const raw = aMessage({ id: `list-${count}@x.example`, subject: `Letter ${count}`, date, ...more });
  const recipients = [address("office@ottermoor.example")];
  const [kept] = await receiveMessage(deps, { raw, envelopeSender: "a@x.example", recipients });
  return kept?.conversationId ?? trustedId<ConversationId>("");
};
const newestMessage = async (id: ConversationId): Promise<MessageId> =>
  (await openConversation(deps, office.grant, id))?.messages.at(-1)?.id ?? trustedId("");
const idsOf = (filter: ListFilter) =>
  everythingInList(
    deps,
    office.grant,
    office.ines,
    { scope: "to-sort", filter, view: { ...USUAL_VIEW, grouping: null } },
    null,
    1_000,
  );

beforeAll(async () => {
  tray = await testTray();
  deps = {
    ...tray.deps,
    lists: {
      async leave(url) {
        asked.push(url);
        return outcomes.shift() ?? { kind: "left" };
      },
    },
  };
  office = await setUpOffice(deps);
});
afterAll(() => tray.close());

describe("leaving a list", () => {
  const leave = async (headers: Readonly<Record<string, string>>, grant = office.grant) => {
    const id = await arrive({ headers: { ...LIST, ...headers } });
    return { id, left: await unsubscribeFromList(deps, grant, office.ines, await newestMessage(id)) };
  };
  const AT_ONCE = {
    "List-Unsubscribe": "<mailto:leave@tinguild.example>, <https://tinguild.example/leave?n=7>",
    "List-Unsubscribe-Post": "List-Unsubscribe=One-Click",
  };

  it("asks once where the sender offers that, and says so in the journal", async () => {
    const { id, left } = await leave(AT_ONCE);
    expect(left).toMatchObject({ ok: true, value: { by: "one-click", conversationId: id } });
    expect(asked).toEqual(["https://tinguild.example/leave?n=7"]);
    const open = await openConversation(deps, office.grant, id);
    expect(open?.journal.at(-1)).toMatchObject({
      by: office.ines.id,
      effect: { kind: "list-left", list: "rolling.tinguild.example", by: "one-click" },
    });
    expect(open?.row.standing).toBe("to-sort");
  });

  it.each([
    [{ kind: "refused", reason: said("writing.siteAnswered", { status: 404 }) }, "Not left: the site answered 404."],
    [
      { kind: "not-now", reason: said("writing.siteDidNotAnswer") },
      "Not left: the site did not answer in time. Try again later.",
    ],
  ] as const)("says why it could not: %j", async (outcome, words) => {
    outcomes.push(outcome);
    const { id, left } = await leave(AT_ONCE);
    expect(inEnglish(left)).toEqual({ ok: false, error: words });
    expect((await openConversation(deps, office.grant, id))?.journal).toEqual([]);
  });

  it("writes where a message is asked for, and settles what that concludes", async () => {
    const before = asked.length;
    const { id, left } = await leave({ "List-Unsubscribe": "<mailto:leave@tinguild.example?subject=stop&body=a%3Cb>" });
    expect(left).toMatchObject({ ok: true, value: { by: "mail" } });
    expect(asked).toHaveLength(before);
    const open = await openConversation(deps, office.grant, id);
    expect(open?.messages.at(-1)).toMatchObject({
      direction: "out",
      subject: "stop",
      ownText: "a<b",
      recipients: { to: [{ address: "leave@tinguild.example" }] },
    });
    expect(open?.row.standing).toBe("settled");
    expect(tray.jobs.at(-1)).toMatchObject({ kind: "send-message" });
  });

  it("leaves a page to the person", async () => {
    const { left } = await leave({ "List-Unsubscribe": "<https://tinguild.example/leave>" });
    expect(inEnglish(left)).toEqual({ ok: false, error: "It names a page only; open that and leave the list there." });
  });

  it("is not for readers, and not for what is no list", async () => {
    const { left } = await leave(AT_ONCE, office.reader);
    expect(inEnglish(left)).toMatchObject({ ok: false, error: expect.stringContaining("its members can decide") });
    const id = await arrive({});
    expect(await unsubscribeFromList(deps, office.grant, office.ines, await newestMessage(id))).toMatchObject({
      ok: false,
    });
  });
});

it("what is known of lists is the same when everything is read again", async () => {
  await tray.ask("update message set unsubscribe = null");
  await tray.ask("update conversation set list_id = null");
  const report = await reparse(deps, () => {});
  expect(report.fields.unsubscribe).toBeGreaterThan(3);
  const ids = await tray.ask("select distinct list_id from conversation where list_id is not null");
  expect(ids).toEqual([{ list_id: "rolling.tinguild.example" }]);
  expect((await examine(deps)).differences).toEqual([]);
});

describe("older mail", () => {
  beforeAll(async () => {
    await tray.ask("update conversation set standing = 'settled' where standing = 'to-sort'");
    for (let at = 0; at < 4; at += 1) await arrive({ headers: LIST, from: "Guild <rolling@tinguild.example>" });
    for (let at = 0; at < 3; at += 1) await arrive({ from: "Otto Quayle <otto@quayle.example>" });
    for (let at = 0; at < 2; at += 1) await arrive({ from: "Northmill Felt <hello@northmillfelt.example>" });
    await arrive({ from: "Once Only <once@x.example>" });
    tray.clock.now = later(tray.clock.now, 200 * DAY);
    await arrive({ from: "Northmill Felt <hello@northmillfelt.example>" });
    await arrive({ headers: LIST, from: "Guild <rolling@tinguild.example>" });
  });

  it("is proposed by list, person and age, with what filters to exactly it", async () => {
    const proposals = await getBacklog(deps, office.grant, "quarter");
    expect(proposals.map(({ kind, key, count: number, reason }) => [kind, key, number, reason])).toEqual([
      ["list", "rolling.tinguild.example", 4, "list"],
      ["person", "hello@northmillfelt.example", 2, "wrote-since"],
      ["person", "otto@quayle.example", 3, "unanswered"],
      ["age", expect.stringMatching(/^20\d\d-\d\d-\d\d$/), 10, "old"],
      ["age", expect.any(String), 10, "old"],
    ]);
    for (const { filter, count: number } of proposals) expect(await idsOf(filter)).toHaveLength(number);
    expect(proposals[0]?.samples).toHaveLength(3);
  });

  it("is nothing where nothing is that old", async () => {
    expect(await getBacklog(deps, office.grant, "year")).toEqual([]);
  });

  it("does not call unanswered what we had the last word in", async () => {
    const [first] = await idsOf({ person: ["otto@quayle.example"] });
    await answerConversation(deps, office.grant, office.ines, first as ConversationId, {
      to: [{ name: "", address: address("otto@quayle.example") }],
      cc: [],
      subject: "Re",
      html: "<p>Yes</p>",
      after: { kind: "settle" },
    });
    const otto = (await getBacklog(deps, office.grant, "quarter")).find(({ key }) => key === "otto@quayle.example");
    expect(otto).toMatchObject({ count: 2, unanswered: 2 });
  });

  it("knows no day that is none", async () => {
    expect(await idsOf({ before: ["yesterday"] })).toEqual([]);
  });
});
