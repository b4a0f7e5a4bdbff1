import { asked } from "@tests/support/asked";
import { expect, noticesOf, type Page, test } from "@tests/support/office-in-browser";

const LETTERS = 40;
const RECORD = "P-26-027";
// The first two, and that the first was read.
const FETCHED = 3;
const counter = (page: Page) => page.getByRole("status").filter({ hasText: / left of / });

/** Where the letters stand, by their subject. */
async function standings(databaseUrl: string): Promise<Record<string, string>> {
  const rows = await asked(
    databaseUrl,
    "select subject, standing from conversation where subject like 'Fast letter %'",
  );
  return Object.fromEntries(rows.map(({ subject, standing }) => [subject, standing]));
}

/** The first two letters are to be filed on a record that is closed once this has been proposed and those ahead are fetched. */
async function closeWhatIsProposed(page: Page, databaseUrl: string): Promise<void> {
  const proposed = page.getByRole("complementary", { name: "Docket" }).getByRole("button", { name: `${RECORD} Veldt` });
  await expect(proposed).toHaveAttribute("aria-keyshortcuts", "1");
  await page.waitForFunction(
    (most) =>
      performance.getEntriesByType("resource").filter(({ name }) => /\/run\/[\da-f-]{36}$/.test(name)).length >= most,
    FETCHED,
  );
  await asked(databaseUrl, "update record set closed_at = now() where code = $1", [RECORD]);
}

const FILED = "select subject from conversation where subject like 'Fast letter %' and record_ids <> '{}'";

test("forty are sorted as fast as keys can be sent while a colleague decides about some of them, and undone in order", async ({
  running,
  signIn,
}) => {
  // Forty letters in, thirty-five decisions one after the other, eleven taken back: minutes on a busy machine.
  test.slow();
  const [mattis, sunniva] = [await signIn("Mattis Orne"), await signIn("Sunniva Dale")];
  const subjects = Array.from({ length: LETTERS }, (_, at) => `Fast letter ${String(at + 1).padStart(2, "0")}`);
  for (const [at, subject] of subjects.entries()) {
    const body = at < LETTERS - 2 ? "Would it do?" : `Would it do for ${RECORD}?`;
    await running.send({ subject, from: "Perpetua Vane <perpetua.vane@vanehouse.example>", body });
  }
  await mattis.goto("/office/sort-run/to-sort");
  await expect(mattis.getByRole("main").getByRole("heading", { name: "Fast letter 40", exact: true })).toBeVisible();
  const all = Number(/of (\d+)/.exec((await counter(mattis).textContent()) ?? "")?.[1]);

  // The colleague settles what the run comes to last.
  const hers = subjects.slice(0, 5);
  await sunniva.goto("/office/to-sort");
  const settleHers = async () => {
    for (const subject of hers) {
      await sunniva.getByRole("link", { name: subject, exact: true }).focus();
      await sunniva.keyboard.press("s");
    }
  };
  const keys = subjects
    .toReversed()
    .slice(0, LETTERS - hers.length)
    .map((_, at) => (at % 3 === 0 ? "b" : "s"));
  await closeWhatIsProposed(mattis, running.databaseUrl);
  // What the first two propose is accepted before they are decided about, and refused.
  const refused = expect(
    noticesOf(mattis)
      .getByText(/is closed/)
      .first(),
  ).toBeVisible();
  await Promise.all([
    refused,
    mattis.keyboard.type(keys.map((key, at) => (at < 2 ? `1${key}` : key)).join("")),
    settleHers(),
  ]);

  const expected = Object.fromEntries([
    ...subjects
      .toReversed()
      .slice(0, keys.length)
      .map((subject, at) => [subject, keys[at] === "b" ? "bin" : "settled"]),
    ...hers.map((subject) => [subject, "settled"]),
  ]);
  // They go one after the other, in the order of the keys; a busy machine takes its time for thirty-five.
  await expect.poll(() => standings(running.databaseUrl), { timeout: 120_000 }).toEqual(expected);
  await expect(counter(mattis)).toContainText(`${all - LETTERS} left of ${all - hers.length}`);
  expect(await asked(running.databaseUrl, FILED)).toEqual([]);
  // Others go on in the same office.
  await asked(running.databaseUrl, "update record set closed_at = null where code = $1", [RECORD]);

  // The last three, in order, and each stands again where it was.
  await mattis.keyboard.type("zzz");
  const undone = subjects.toReversed().slice(keys.length - 3, keys.length);
  for (const subject of undone) expected[subject] = "to-sort";
  await expect.poll(() => standings(running.databaseUrl)).toEqual(expected);
  await expect(counter(mattis)).toContainText(`${all - LETTERS + 3} left of ${all - hers.length}`);

  // Decided again, and eight taken back in one go.
  await mattis.keyboard.type("sss");
  for (const subject of undone) expected[subject] = "settled";
  await expect.poll(() => standings(running.databaseUrl)).toEqual(expected);
  await mattis.keyboard.type("zzzzzzzz");
  for (const subject of subjects.toReversed().slice(keys.length - 8, keys.length)) expected[subject] = "to-sort";
  await expect.poll(() => standings(running.databaseUrl)).toEqual(expected);
});
