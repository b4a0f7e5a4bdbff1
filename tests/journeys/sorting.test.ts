import type { Locator, Page, Route } from "@playwright/test";
import { seriousProblems } from "@tests/support/accessibility";
import { asked } from "@tests/support/asked";
import { expect, noticesOf, test } from "@tests/support/office-in-browser";
import { onThisMachine } from "@tests/support/pace";

const FROM = [
  "Perpetua Vane <perpetua.vane@vanehouse.example>",
  "Hester Quill <wardens@stbrannoc.example>",
  "Bram Oosterling <bram@veldthall.example>",
] as const;

/** Sends so many letters of all kinds, the last one last in the tray. */
async function letters(
  send: (fields: { subject: string; from: string; body: string }) => Promise<string>,
  subjects: readonly string[],
) {
  for (const [at, subject] of subjects.entries()) {
    await send({ subject, from: FROM[at % FROM.length] ?? FROM[0], body: `About ${subject.toLowerCase()}.` });
  }
}

const shownCount = async (page: Page, standing: string) =>
  Number(
    /, (\d+)/.exec(
      (await page.getByRole("link", { name: new RegExp(`^${standing}, `) }).getAttribute("aria-label")) ?? "",
    )?.[1],
  );

/** How many conversations are to be sorted; what a busy server counts may be a moment behind. */
async function toSort(databaseUrl: string): Promise<number> {
  const counted = await asked(
    databaseUrl,
    `select count(*)::int as count from conversation join tray on tray.id = tray_id
     where slug = 'office' and standing = 'to-sort' and joined_to is null`,
  );
  return counted[0]?.count;
}

test("a sort run by keyboard alone: thirty decided, none seen twice, all undone from the journal in one go", async ({
  running,
  signIn,
}) => {
  const mattis = await signIn("Mattis Orne");
  const keys: string[] = [];
  const press = async (key: string) => {
    keys.push(key);
    await mattis.keyboard.press(key);
  };
  const subjects = Array.from({ length: 30 }, (_, at) => `Run letter ${at + 1}`);
  await letters(running.send, subjects);
  await expect(mattis.getByRole("link", { name: "Run letter 30", exact: true })).toBeVisible();
  const before = await toSort(running.databaseUrl);
  await press("o");
  const paper = mattis.getByRole("main");
  const seen: string[] = [];
  for (let at = 30; at >= 1; at -= 1) {
    await expect(paper.getByRole("heading", { name: `Run letter ${at}`, exact: true })).toBeVisible();
    seen.push((await paper.getByRole("heading").textContent()) ?? "");
    // All kinds: to a colleague, to rest, away, and settled.
    if (at % 10 === 0) {
      await press("a");
      await mattis.getByPlaceholder("Type a colleague's name").fill("tob");
      await press("Enter");
    } else if (at % 10 === 5) {
      await press("l");
      await mattis.getByLabel("Until when").fill("in 3 working days");
      await expect(mattis.getByText(/^That is .*08:00\.$/)).toBeVisible();
      await press("Enter");
    } else await press(at % 3 === 0 ? "b" : "s");
  }
  expect(new Set(seen).size).toBe(30);
  // The key that began the run is none that decides.
  expect(keys.length - 1).toBeLessThanOrEqual(45);
  await expect(mattis.getByText(/^\d+ left of \d+/)).toContainText(`${before - 30} left of ${before}`);
  // Answers to what others wrote in this office may come in meanwhile.
  const runLetters = async () =>
    (
      await asked(
        running.databaseUrl,
        "select 1 from conversation where subject like 'Run letter %' and standing = 'to-sort'",
      )
    ).length;
  const astray = async () => (await shownCount(mattis, "To sort")) - (await toSort(running.databaseUrl));
  await expect.poll(async () => [await runLetters(), await astray()]).toEqual([0, 0]);

  await mattis.keyboard.press(".");
  await mattis.getByPlaceholder("What to do, or where to go").fill("journal");
  await mattis.getByRole("option", { name: "Journal" }).waitFor();
  await mattis.keyboard.press("Enter");
  const journal = mattis.getByRole("main", { name: "Journal" });
  await journal.getByRole("combobox", { name: "By whom" }).focus();
  await mattis.keyboard.press("Enter");
  await mattis.getByRole("option", { name: "by me" }).waitFor();
  await mattis.keyboard.type("by me");
  await mattis.keyboard.press("Enter");
  await expect(
    journal.getByRole("checkbox", { name: "You settled it, Run letter 1", exact: false }).first(),
  ).toBeVisible();
  // From the newest to the thirtieth, as one chooses a stretch of any list.
  const boxes = journal.getByRole("checkbox", { name: /Run letter/ });
  await boxes.first().click();
  await boxes.nth(29).click({ modifiers: ["Shift"] });
  await journal.getByRole("button", { name: "Undo 30 steps" }).press("Enter");
  await expect(noticesOf(mattis).getByText(/^Undone: /)).toBeVisible();
  await expect.poll(async () => [await runLetters(), await astray()]).toEqual([30, 0]);
});

test("one sorts while another watches the same list: rows and counts agree, and one decision stands", async ({
  running,
  signIn,
}) => {
  const petra = await signIn("Petra Rask");
  const col = await signIn("Col Whitaker");
  const subjects = ["Shared one", "Shared two", "Shared three", "Shared four"];
  await letters(running.send, subjects);
  const row = (page: Page, subject: string) => page.getByRole("link", { name: subject, exact: true });
  for (const page of [petra, col]) await expect(row(page, "Shared four")).toBeVisible();
  const before = await toSort(running.databaseUrl);
  for (const [at, subject] of subjects.slice(0, 3).entries()) {
    await row(petra, subject).focus();
    await petra.keyboard.press("s");
    await expect(row(petra, subject)).toBeHidden();
    await expect(row(col, subject)).toBeHidden();
    await expect.poll(() => shownCount(col, "To sort")).toBe(before - at - 1);
    await expect.poll(() => shownCount(petra, "To sort")).toBe(before - at - 1);
  }
  await row(petra, "Shared four").click();
  await row(col, "Shared four").click();
  for (const page of [petra, col]) await page.getByRole("toolbar", { name: "Decide" }).waitFor();
  await Promise.all([petra.keyboard.press("s"), col.keyboard.press("b")]);
  const told = (page: Page) =>
    noticesOf(page).getByText(/^Not done: (Petra Rask settled it|Col Whitaker put it in the bin) meanwhile\./);
  // Exactly one of them is told; her message stays long enough to be counted.
  await expect.poll(async () => (await told(petra).count()) + (await told(col).count())).toBe(1);
});

test("what a colleague does while a conversation is on its way is there with it", async ({ running, signIn }) => {
  const petra = await signIn("Petra Rask");
  const col = await signIn("Col Whitaker");
  const subject = "On its way";
  await letters(running.send, [subject]);
  const row = (page: Page) => page.getByRole("link", { name: subject, exact: true });
  await row(col).focus();
  await col.keyboard.press("n");
  await col.getByRole("textbox", { name: "Note" }).fill("I am on it");

  // Read by the server before his note, and here after she has been told of a change.
  const isAboutIt = /to-sort\/[-0-9a-f]{36}\.data/;
  const slowly = async (route: Route) => {
    // A connection that was idle for five seconds may be closed by the server as it is asked once more.
    const read = await route.fetch({ maxRetries: 2 });
    const told = petra.waitForResponse(/\/news\?/);
    await col.keyboard.press("Control+Enter");
    await told;
    await route.fulfill({ response: read });
  };
  await petra.route(isAboutIt, slowly, { times: 1 });
  await row(petra).click();
  // Not only with whatever is told next.
  await expect(petra.getByText("I am on it")).toBeVisible({ timeout: onThisMachine(6_000) });
});

test("new rows wait while one points at the list, and come when asked for", async ({ running, signIn }) => {
  const sunniva = await signIn("Sunniva Dale");
  await running.send({ subject: "Before she looked" });
  const first = sunniva.getByRole("link", { name: "Before she looked" });
  await first.hover();
  await running.send({ subject: "While she looked" });
  const more = sunniva.getByRole("button", { name: "1 new" });
  await expect(more).toBeVisible();
  await expect(sunniva.getByRole("link", { name: "While she looked" })).toBeHidden();
  await sunniva.keyboard.press("i");
  await expect(sunniva.getByRole("link", { name: "While she looked" })).toBeVisible();
  await expect(more).toBeHidden();
});

test("a list is grouped, ordered and filtered as one likes, and remembers it", async ({ signIn }) => {
  const ines = await signIn("Ines Varga");
  await ines.getByRole("link", { name: /^Our move/ }).click();
  const list = ines.getByRole("main", { name: "Our move" });
  await list.waitFor();
  await ines.getByRole("button", { name: "Grouping" }).click();
  await ines.getByRole("menuitemradio", { name: "By category" }).click();
  const tuning = list.getByRole("button", { name: /^Tuning \d/ });
  await expect(tuning).toBeVisible();
  await tuning.click();
  await expect(tuning).toHaveAttribute("aria-expanded", "false");
  await ines.reload();
  await expect(tuning).toHaveAttribute("aria-expanded", "false");

  await ines.getByRole("button", { name: "Owner" }).click();
  await ines.getByRole("option", { name: /^Col Whitaker/ }).click();
  await expect(ines.getByRole("button", { name: "Remove filter Col Whitaker" })).toBeVisible();
  await expect(ines).toHaveURL(/owner=/);
  await ines.keyboard.press("Escape");
  await ines.getByRole("button", { name: "Show all" }).click();
  await expect(ines).not.toHaveURL(/owner=/);

  await ines.getByRole("button", { name: "Columns" }).click();
  await ines.getByRole("dialog", { name: "Columns" }).getByRole("checkbox", { name: "Record" }).click();
  await ines.keyboard.press("Escape");
  await expect(list.getByText("Record", { exact: true })).toBeHidden();
  await ines.getByRole("separator", { name: "Width of Who" }).focus();
  await ines.keyboard.press("ArrowRight");
  await expect(ines.getByRole("separator", { name: "Width of Who" })).toHaveAttribute("aria-valuenow", "160");
  await ines.getByRole("button", { name: "Reading and density" }).click();
  await ines.getByRole("menuitem", { name: "Back to the usual view" }).click();
  await expect(list.getByRole("button", { name: /^Last week|^Today|^Yesterday/ }).first()).toBeVisible();
});

test("several are chosen and decided about at once, by key and by pointer, and undone by one", async ({
  running,
  signIn,
}) => {
  const tobias = await signIn("Tobias Lund");
  await letters(running.send, ["Chosen one", "Chosen two", "Chosen three"]);
  const row = (subject: string) => tobias.getByRole("link", { name: subject, exact: true });
  await expect(row("Chosen three")).toBeVisible();
  await row("Chosen three").focus();
  await tobias.keyboard.press("x");
  await tobias.keyboard.press("J");
  await tobias.keyboard.press("J");
  await expect(tobias.getByRole("toolbar", { name: "Decide about the selected conversations" })).toContainText(
    "3 selected",
  );
  await tobias.keyboard.press("c");
  await tobias.getByPlaceholder("Type a category's name or code").fill("tuning");
  await tobias.keyboard.press("Enter");
  await tobias.getByRole("button", { name: "Done" }).click();
  await tobias.keyboard.press("s");
  await expect(noticesOf(tobias).getByText("Settled: 3 conversations")).toBeVisible();
  await expect(row("Chosen two")).toBeHidden();
  await tobias.keyboard.press("z");
  await expect(row("Chosen two")).toBeVisible();
  await tobias.keyboard.press("Z");
  await expect(noticesOf(tobias).getByText(/^Redone: settled it/)).toBeVisible();
  await expect(row("Chosen two")).toBeHidden();
});

test("rows are dropped on the flow and on places of the shelf, or put there by key", async ({ running, signIn }) => {
  const petra = await signIn("Petra Rask");
  await letters(running.send, ["Dropped one", "Dropped two", "Dropped three"]);
  const row = (subject: string) => petra.getByRole("link", { name: subject, exact: true });
  await petra.getByRole("button", { name: "Pin a place" }).click();
  await petra.getByPlaceholder("Type a record, category, colleague or saved view").fill("C-033");
  // What is found before it moves up under the pointer.
  await expect(petra.getByRole("option")).toHaveText([/C-033/]);
  await petra.getByRole("option", { name: /C-033/ }).click();
  const shelf = petra.getByRole("navigation", { name: "Shelf" });
  const place = shelf.getByRole("button", { name: /C-033/ });
  await expect(place).toBeVisible();

  // A list that others send to moves: who missed takes hold of the row again.
  const drop = (subject: string, onto: Locator, comes: Locator) =>
    expect(async () => {
      await row(subject).dragTo(onto, { timeout: 5_000 });
      await expect(comes).toBeVisible({ timeout: 5_000 });
    }).toPass();
  await drop(
    "Dropped one",
    petra.getByRole("link", { name: /^Settled, / }),
    noticesOf(petra).getByText("Settled: Dropped one"),
  );
  const asked = petra.getByRole("dialog", { name: "File to C-033" });
  await drop("Dropped two", place, asked);
  await asked.getByRole("button", { name: "File and settle" }).click();
  await expect(noticesOf(petra).getByText("Filed to C-033 and settled: Dropped two")).toBeVisible();
  // It remembers the answer; with something chosen, the key of a place puts it there.
  await row("Dropped three").focus();
  await petra.keyboard.press("x");
  await petra.keyboard.press("Shift+Digit1");
  await expect(noticesOf(petra).getByText("Filed to C-033 and settled: Dropped three")).toBeVisible();
  await petra.keyboard.press("Shift+Digit1");
  await expect(petra.getByRole("article", { name: "Dropped three" })).toBeVisible();
});

test("one answers within a sort run, skips, goes back, and accepts what is proposed", async ({ running, signIn }) => {
  const petra = await signIn("Petra Rask");
  await letters(running.send, ["Answer me here", "Skip me first"]);
  await expect(petra.getByRole("link", { name: "Skip me first", exact: true })).toBeVisible();
  await petra.keyboard.press("o");
  const paper = petra.getByRole("main");
  const heading = (name: string) => paper.getByRole("heading", { name, exact: true });
  await expect(heading("Skip me first")).toBeVisible();
  await petra.keyboard.press("j");
  await expect(heading("Answer me here")).toBeVisible();
  await petra.keyboard.press("r");
  await petra.getByRole("textbox", { name: "Text" }).fill("Here it is.");
  // What is a decision elsewhere is a letter here.
  await petra.getByRole("textbox", { name: "Text" }).press("s");
  await expect(heading("Answer me here")).toBeVisible();
  const goesOn = petra.waitForFunction(() => document.querySelector("main h2")?.textContent !== "Answer me here");
  await petra.getByRole("button", { name: /^Send(?! later)/ }).click();
  // At once, while the next is being drawn.
  await goesOn;
  await petra.keyboard.press("k");
  await expect(heading("Answer me here")).toBeVisible();
  await expect(noticesOf(petra).getByText("Answered")).toBeVisible();
  await expect(petra.getByRole("complementary", { name: "Docket" })).toContainText(
    /Waiting for reply|Settled|Our move/,
  );
});

test("on a phone a list is grouped and ordered as well", async ({ page, signIn }) => {
  await page.setViewportSize({ width: 390, height: 780 });
  const sunniva = await signIn("Sunniva Dale", "/office/our-move");
  const list = sunniva.getByRole("main", { name: "Our move" });
  await list.waitFor();
  await sunniva.getByRole("button", { name: "Grouping" }).click();
  await sunniva.getByRole("menuitemradio", { name: "By owner" }).click();
  await expect(list.getByRole("button", { name: /^Col Whitaker \d/ })).toBeVisible();
  await sunniva.getByRole("button", { name: "Grouping" }).click();
  await sunniva.getByRole("menuitemradio", { name: "By day" }).click();
  await expect(list.getByRole("button", { name: /^Col Whitaker \d/ })).toBeHidden();
});

test("a key is given to another command, with its conflict told, and works", async ({ running, signIn }) => {
  const sunniva = await signIn("Sunniva Dale");
  await running.send({ subject: "Key of her own" });
  await sunniva.getByRole("button", { name: "Signed in as Sunniva Dale" }).click();
  await sunniva.getByRole("menuitem", { name: "Settings" }).click();
  await sunniva.getByRole("searchbox", { name: "Find a setting" }).fill("suggestions");
  await sunniva.keyboard.press("Enter");
  const proposing = sunniva.getByRole("combobox", { name: "Propose" });
  await proposing.click();
  await sunniva.getByRole("option", { name: "only when sure" }).click();
  await expect(sunniva.getByText(/^Of what was decided here of late, \d+ % would have been proposed/)).toBeVisible();
  await sunniva.reload();
  await expect(proposing).toHaveText("only when sure");
  await sunniva.getByRole("navigation", { name: "Settings" }).getByRole("link", { name: "Keyboard" }).click();
  await sunniva.getByRole("button", { name: "Key of Settle: s" }).click();
  await sunniva.keyboard.press("b");
  await expect(sunniva.getByText(/^Also: Bin, or bring back/)).toBeVisible();
  await sunniva.getByRole("button", { name: "Key of Settle: b" }).click();
  await sunniva.keyboard.press("y");
  await sunniva.getByRole("link", { name: /^To sort, / }).click();
  await sunniva.getByRole("link", { name: "Key of her own" }).focus();
  await sunniva.keyboard.press("y");
  await expect(noticesOf(sunniva).getByText("Settled: Key of her own")).toBeVisible();
});

test("a follow-up is set in words, stands by its day, opens its conversation and is done", async ({
  running,
  signIn,
}) => {
  const col = await signIn("Col Whitaker");
  await running.send({ subject: "Follow me up" });
  await col.getByRole("link", { name: "Follow me up" }).focus();
  await col.keyboard.press("d");
  await col.getByLabel("By when").fill("yesterday at 9");
  await expect(col.getByText("That is in the past; choose a time to come.")).toBeVisible();
  await col.getByLabel("What is to be done").fill("Ring the verger");
  await col.getByLabel("By when").fill("in 2 working days");
  await expect(col.getByText(/^That is /)).toBeVisible();
  await col.getByRole("button", { name: "Choose", exact: true }).click();
  await expect(noticesOf(col).getByText("Follow-up set: Follow me up")).toBeVisible();
  await col.getByRole("button", { name: "Go to" }).click();
  await col.getByRole("menuitem", { name: "Follow-ups" }).click();
  const page = col.getByRole("main", { name: "Follow-ups" });
  await expect(page.getByRole("region", { name: "Within five working days" })).toContainText("Ring the verger");
  await page.getByRole("link", { name: "Ring the verger" }).click();
  await expect(col.getByRole("heading", { name: "Follow me up" })).toBeVisible();
  await page.getByRole("button", { name: "Done: Ring the verger" }).click();
  await expect(page.getByRole("link", { name: "Ring the verger" })).toBeHidden();
});

test("the new screens have no serious problem of accessibility", async ({ page, signIn, running }) => {
  await signIn("Ines Varga");
  for (const path of ["sort-run/our-move", "follow-ups", "journal", "keys", "open", "backlog"]) {
    await page.goto(`${running.url}/office/${path}`);
    await page.getByRole("main").first().waitFor();
    expect(await seriousProblems(page), path).toEqual([]);
  }
});
