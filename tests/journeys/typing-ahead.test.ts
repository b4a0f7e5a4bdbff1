import { typeOn } from "@tests/support/fast-keys";
import { expect, type Page, test } from "@tests/support/office-in-browser";
import { Client } from "pg";
import { COMMAND_IDS, COMMANDS, type CommandId } from "~/web/keys/commands";

const KEY_MS = 10;
const LOOKS = { intervals: [50] };
const DELAYS_MS = [0, 50, 1_500];
// Everything that would do something, were it taken for a command.
const TEXT = COMMAND_IDS.map((id) => COMMANDS[id].key as string)
  .filter((key) => /^[a-zA-Z1-4./]$/.test(key))
  .join("");

const OPENING = COMMAND_IDS.filter((id) => "opens" in COMMANDS[id]);
// These take keys one by one, and have no text.
const WITHOUT_TEXT: ReadonlySet<CommandId> = new Set(["give-by-key", "keys"]);

// What was written stays where it was begun.
const WRITING: ReadonlySet<CommandId> = new Set(["answer", "note"]);

const PLACES: Readonly<Record<string, (page: Page) => Promise<unknown>>> = {
  async list(page) {
    await page.goto("/office/to-sort");
    await page.keyboard.press("j");
  },
  async conversation(page) {
    const first = page.getByRole("main").getByRole("link").first();
    const isOpen = /to-sort\/./.test(page.url());
    await page.goto(isOpen ? page.url() : ((await first.getAttribute("href")) ?? ""));
  },
  "sort run": (page) => page.goto("/office/sort-run/to-sort"),
};

async function ask(databaseUrl: string, sql: string): Promise<unknown> {
  const client = new Client({ connectionString: databaseUrl });
  await client.connect();
  const { rows } = await client.query(sql);
  await client.end();
  return rows;
}

/** What a decision would have changed. */
const changes = async (databaseUrl: string) =>
  JSON.stringify(await ask(databaseUrl, "select count(*) as entries, max(id::text) as last from journal"));

/** What is typed in one test is kept, and would stand in the next. */
const nothingIsWritten = (databaseUrl: string) =>
  ask(databaseUrl, "update draft set state = 'given-up' where state = 'own'");

const OPEN = "input, textarea, [contenteditable=true]";
const typed = (page: Page) =>
  page.evaluate(() => {
    const field = document.activeElement;
    return field instanceof HTMLInputElement || field instanceof HTMLTextAreaElement
      ? field.value
      : (field?.textContent ?? "");
  });

/** What is open is left, with the text in it. */
async function closed(page: Page): Promise<void> {
  await page.keyboard.press("Escape");
  await expect.poll(() => page.evaluate((open) => document.activeElement?.matches(open), OPEN), LOOKS).toBe(false);
}

/** Parts of the program that are fetched from now on take their time. */
async function delayed(page: Page, ms: number): Promise<void> {
  if (ms === 0) return;
  await page.route("**/assets/*.js", async (route) => {
    await new Promise((resolve) => setTimeout(resolve, ms));
    await route.continue();
  });
}

/** Types on after the key of a command that opens something: all of it stands there, and nothing else happened. */
async function typesOn(page: Page, id: CommandId, ms: number, databaseUrl: string): Promise<void> {
  const before = [page.url(), await changes(databaseUrl)];
  await delayed(page, ms);
  await typeOn(page, COMMANDS[id].key + TEXT, KEY_MS);
  await expect.poll(() => typed(page), { message: id, ...LOOKS }).toBe(TEXT);
  // Answering in a list opens the conversation.
  const after = [id === "answer" ? before[0] : page.url(), await changes(databaseUrl)];
  expect(after, id).toEqual(before);
  await page.unrouteAll({ behavior: "ignoreErrors" });
}

for (const [place, goes] of Object.entries(PLACES)) {
  test.describe(`what is typed on in the ${place}`, () => {
    for (const ms of DELAYS_MS) {
      test(`belongs to what opens, which comes after ${ms} ms`, async ({ signIn, running }) => {
        await nothingIsWritten(running.databaseUrl);
        const page = await signIn("Ines Varga");
        let isThere = false;
        for (const id of OPENING.filter((one) => !WITHOUT_TEXT.has(one))) {
          // Without a delay also what is opened later on a page, with it what is opened there first.
          if (!isThere) await goes(page);
          await test.step(COMMANDS[id].name, () => typesOn(page, id, ms, running.databaseUrl));
          isThere = ms === 0 && !WRITING.has(id);
          // A page that is loaded anew opens again what was written on it.
          if (isThere || WRITING.has(id)) await closed(page);
        }
      });
    }
  });
}

test("an answer is typed ahead on a slow computer", async ({ signIn, running }) => {
  await nothingIsWritten(running.databaseUrl);
  const page = await signIn("Ines Varga");
  await PLACES["sort run"]?.(page);
  const browser = await page.context().newCDPSession(page);
  await browser.send("Emulation.setCPUThrottlingRate", { rate: 8 });
  await typesOn(page, "answer", 50, running.databaseUrl);
});

test("a category is given by its key, pressed before the keys are shown", async ({ signIn }) => {
  const page = await signIn("Ines Varga");
  await PLACES.list?.(page);
  await delayed(page, 1_500);
  await typeOn(page, "gq", KEY_MS);
  await expect(page.getByRole("region", { name: /^Notices/ }).getByText(/Quotes/)).toBeVisible();
  await expect(page).toHaveURL(/\/office\/to-sort$/);
});
