import { expect, noticesOf, type Page, test } from "@tests/support/office-in-browser";
import { Client } from "pg";

// What is proposed is used up by whoever decides.
test.use({ office: "of proposals" });

const subjectOf = (page: Page) => page.getByRole("main").getByRole("heading", { level: 2 }).first();
const acceptAll = (page: Page) => page.getByRole("button", { name: /Accept .* and go on/ });
const counter = (page: Page) => page.getByRole("status").filter({ hasText: / left of / });
const countOf = async (page: Page) => /^\d+ left of \d+/.exec((await counter(page).textContent()) ?? "")?.[0] ?? "";

// What is filed there is asked for its particulars first, in a sheet of its own.
const asksFirst = (page: Page) => page.getByRole("button", { name: /\bG-\d\d-\d/ });

/** Skips on to a conversation for which several things are proposed that lead on at once, and gives its subject. */
async function toSeveralProposals(page: Page): Promise<string> {
  for (;;) {
    await expect(page.getByText("Fetching the conversation…")).toBeHidden();
    const subject = (await subjectOf(page).textContent()) ?? "";
    if ((await acceptAll(page).isVisible()) && (await asksFirst(page).count()) === 0) return subject;
    await page.keyboard.press("j");
    await expect(subjectOf(page)).not.toHaveText(subject);
  }
}

test("accepting all is one decision with one way back, and a refusal is said where it belongs", async ({
  running,
  signIn,
}) => {
  const petra = await signIn("Petra Rask", "/office/sort-run/to-sort");

  await test.step("nothing of it is done where one of it cannot be, and the next decision goes on", async () => {
    const subject = await toSeveralProposals(petra);
    const before = await countOf(petra);
    const client = new Client({ connectionString: running.databaseUrl });
    await client.connect();
    const hers = "select count(*)::int as count from journal join member on by_member_id = member.id where name = $1";
    const decided = async () => (await client.query(hers, ["Petra Rask"])).rows[0].count;
    const entries = await decided();
    // What is proposed stops to be possible; others go on in the same office, so that it is opened again.
    const retired = await client.query("update category set retired_at = now() where retired_at is null returning id");
    const closed = await client.query("update record set closed_at = now() where closed_at is null returning id");
    await petra.keyboard.press("Enter");
    await expect(noticesOf(petra).getByText(/is closed|retired|no more/)).toBeVisible();
    await client.query("update category set retired_at = null where id = any($1)", [retired.rows.map(({ id }) => id)]);
    await client.query("update record set closed_at = null where id = any($1)", [closed.rows.map(({ id }) => id)]);
    expect(await decided()).toBe(entries);
    await client.end();
    await expect(subjectOf(petra)).toHaveText(subject);
    await petra.keyboard.press("s");
    await expect(subjectOf(petra)).not.toHaveText(subject);
    await expect(counter(petra)).not.toContainText(before);
    // A page that is loaded again before the server has it would show it once more.
    await expect(noticesOf(petra).getByRole("button", { name: "Undo" })).toBeVisible();
  });

  await test.step("one notice, one undo, and what was undone is there again", async () => {
    await petra.reload();
    await expect(counter(petra)).toBeVisible();
    const subject = await toSeveralProposals(petra);
    const before = await countOf(petra);
    await petra.keyboard.press("Enter");
    await expect(subjectOf(petra)).not.toHaveText(subject);
    await expect(noticesOf(petra).getByRole("button", { name: "Undo" })).toHaveCount(1);
    await petra.keyboard.press("z");
    await expect(subjectOf(petra)).toHaveText(subject);
    await expect(counter(petra)).toContainText(before);
  });
});
