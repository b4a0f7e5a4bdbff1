import { type Desk, done, setUpDesk } from "@tests/support/desk";
import { address, testTray } from "@tests/support/test-database";
import { doneWhileKilled } from "@tests/support/while-killed";
import { afterAll, beforeAll, expect, it } from "vitest";
import { type DraftId, trustedId } from "~/core/kernel/ids";
import { DAY, later } from "~/core/kernel/instant";
import { planLetter } from "~/operations/index.server";

// More by hand: each kill takes the start of a process.
const LETTERS = Number(process.env.LETTERS ?? 60);
const KILLS = Number(process.env.KILLS ?? 3);

const tray = await testTray();
let desk: Desk;

beforeAll(async () => {
  desk = await setUpDesk(tray);
  const at = later(tray.clock.now, DAY);
  for (let count = 0; count < LETTERS; count += 1) {
    const draft = { to: "vane@vanehouse.example", cc: "", subject: `Letter ${count}`, html: "<p>Good morning.</p>" };
    done(
      await planLetter(tray.deps, desk.maraGrant, {
        ...{ id: trustedId<DraftId>(tray.deps.newId()), conversationId: null },
        answer: { ...draft, to: [{ name: "", address: address(draft.to) }], cc: [], after: { kind: "keep" } },
        plan: { moments: [at], ifSilent: false, untilSettled: false },
        content: { ...draft, after: "keep", day: "" },
      }),
    );
  }
});
afterAll(() => tray.close());

it("what falls due goes once, each of them, however often whoever sends it is killed", async () => {
  const goneOf = async (): Promise<number> =>
    (await tray.ask("select count(*)::int as count from later_letter where state = 'sent'"))[0].count;
  const ahead = String(tray.clock.now + 2 * DAY - Date.now());
  expect(await doneWhileKilled(tray, ["letters", ahead], KILLS, goneOf)).toBe(KILLS);
  expect(await goneOf()).toBe(LETTERS);
  const [{ count, subjects, jobs }] = await tray.ask(
    `select count(*)::int as count, count(distinct subject)::int as subjects,
       (select count(*)::int from later_letter join message on message.id = later_letter.message_id) as jobs
     from message where direction = 'out'`,
  );
  expect([count, subjects, jobs]).toEqual([LETTERS, LETTERS, LETTERS]);
});
