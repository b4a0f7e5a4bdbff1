import { expect, noticesOf, type Page, test } from "@tests/support/office-in-browser";
import { Client } from "pg";

const KEY_MS = 10;

/** Where the letters stand, in the order of their subjects. */
async function standings(databaseUrl: string, subjects: readonly string[]): Promise<string[]> {
  const client = new Client({ connectionString: databaseUrl });
  await client.connect();
  const { rows } = await client.query(
    "select standing from conversation where subject = any($1) order by array_position($1, subject)",
    [subjects],
  );
  await client.end();
  return rows.map(({ standing }) => standing);
}

/** What pages are made of comes late from now on. */
const late = (page: Page, ms: number) =>
  page.route(/\.data(?:\?|$)|\/assets\/.*\.js$/, async (route) => {
    await new Promise((resolve) => setTimeout(resolve, ms));
    // Whatever is left without waiting for it is not there to be answered.
    await route.continue().catch(() => {});
  });
const inTime = (page: Page) => page.unrouteAll({ behavior: "ignoreErrors" });

for (const ms of [0, 50, 1_500]) {
  test(`a key that leads to another page has the next keys go there, which comes after ${ms} ms`, async ({
    signIn,
    running,
  }) => {
    const page = await signIn("Ines Varga");
    const subjects = ["First", "Second", "Third", "Fourth"].map((which) => `${which}, sent ${ms} ms ahead`);
    const sender = `vane.${ms}@vanehouse.example`;
    for (const subject of subjects.toReversed())
      await running.send({ subject, from: `Perpetua Vane <${sender}>`, body: "Would it do?" });
    const row = (at: number) => page.getByRole("link", { name: subjects[at] ?? "", exact: true });
    const notices = noticesOf(page);
    const stand = () => standings(running.databaseUrl, subjects);
    // What comes first in a run may be what somebody else has written by then.
    const later = async () => (await stand()).slice(1);
    await expect(row(0)).toBeVisible();

    await test.step("where nothing is decided, nothing is", async () => {
      await row(0).focus();
      await late(page, ms);
      await page.keyboard.type("qsbhv", { delay: KEY_MS });
      await expect(page.getByRole("main", { name: "Notifications" })).toBeVisible();
      await inTime(page);
      expect(await stand()).toEqual(["to-sort", "to-sort", "to-sort", "to-sort"]);
    });

    await test.step("in a sort run they are about its first, and what opens there has the rest", async () => {
      await page.goto("/office/to-sort");
      await row(3).focus();
      await late(page, ms);
      await page.keyboard.type("osfbells", { delay: KEY_MS });
      await expect(page.getByRole("dialog").getByRole("combobox")).toHaveValue("bells");
      // The notice stands behind the dialog that is open by then.
      const settled = page.getByText(/^Settled: /).first();
      await expect(settled).toBeVisible();
      await expect(settled).not.toContainText(subjects[3] ?? "");
      await inTime(page);
      expect(await later()).toEqual(["to-sort", "to-sort", "to-sort"]);
    });

    await test.step("in a conversation each decision is about the one to which the last has led", async () => {
      // Somebody else may write between two of them.
      await page.goto(`/office/to-sort?person=${sender}`);
      // What was opened before, and left again, has nothing to do with it.
      await row(1).focus();
      await page.keyboard.press("f");
      await expect(page.getByRole("dialog")).toBeVisible();
      await page.keyboard.press("Escape");
      await expect(page.getByRole("dialog")).toBeHidden();
      await row(1).focus();
      await late(page, ms);
      await page.keyboard.type("\nsb", { delay: KEY_MS });
      await expect(notices.getByText(`Moved to bin: ${subjects[2]}`)).toBeVisible();
      await expect(page.getByRole("heading", { name: subjects[3] ?? "" })).toBeVisible();
      await inTime(page);
      await expect.poll(later).toEqual(["settled", "bin", "to-sort"]);
    });

    await test.step("back in the list they are about where one was", async () => {
      await late(page, ms);
      await page.keyboard.press("Escape");
      await page.keyboard.press("s");
      await expect(notices.getByText(`Settled: ${subjects[3]}`)).toBeVisible();
      await expect(page).toHaveURL(/\/office\/to-sort\?person=/);
      await inTime(page);
      await expect.poll(later).toEqual(["settled", "bin", "settled"]);
    });
  });
}

test("signs of the third level are text for what opens, and what is the browser's stays its own", async ({
  signIn,
}) => {
  const page = await signIn("Ines Varga", "/office/to-sort");
  await page.keyboard.press("j");
  await late(page, 1_500);
  await page.keyboard.press("f");
  // As Windows has AltGr; of the two after it, one is for the browser and one takes a sign back.
  await page.keyboard.press("Control+Alt+q");
  await page.keyboard.press("Control+b");
  await page.keyboard.type("bellsx", { delay: KEY_MS });
  await page.keyboard.press("Backspace");
  await expect(page.getByRole("dialog").getByRole("combobox")).toHaveValue("qbells");
  await expect(page).toHaveURL(/\/office\/to-sort$/);
});
