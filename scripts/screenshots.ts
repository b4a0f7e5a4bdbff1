import { type Browser, chromium, type Page } from "@playwright/test";
import config from "../playwright.config";
import { cloneDatabase } from "../tests/support/clones";
import { startServerProcess } from "../tests/support/server-process";
import { DEMO_TEMPLATE, makeTemplates, startTestCluster } from "../tests/support/test-cluster";

// One picture of each main view, from the made-up world, for the README.

const FOLDER = "docs/screenshots";

const cluster = await startTestCluster();
await makeTemplates(cluster);
const { url: databaseUrl } = await cloneDatabase(cluster.port, DEMO_TEMPLATE);
const server = await startServerProcess({ DATABASE_URL: databaseUrl, SMTP_OUT_PORT: "9", DEMO: "true" });
const browser = await chromium.launch({ ...config.use?.launchOptions });
const page = await browser.newPage({
  viewport: { width: 1280, height: 800 },
  baseURL: `http://127.0.0.1:${server.httpPort}`,
});
try {
  await page.goto("/sign-in");
  await page.getByRole("button", { name: "Ines Varga" }).click();
  await page.getByRole("main", { name: "To sort" }).waitFor();
  await page.goto("/office/our-move");
  await picture(page, "main");
  await listPictures(page);
  await categoryPictures(page);
  await open(page, "to-sort", "Recital on harvest, piano and organ");
  await page.getByRole("region", { name: "Suggested owners" }).waitFor();
  await picture(page, "conversation");
  await togetherPictures(page, browser);
  await waitingPictures(page);
  await recordPictures(page);
  await page.setViewportSize({ width: 390, height: 780 });
  await page.goto("/office/to-sort");
  await page.waitForFunction(() => document.documentElement.dataset.ready === "true");
  await picture(page, "phone");
} finally {
  await browser.close();
  await server.stop();
  await cluster.stop();
}

// The lists and what surrounds them.
async function listPictures(of: Page): Promise<void> {
  await of.goto("/office/sort-run/to-sort");
  await of.getByRole("complementary", { name: "Docket" }).getByRole("button").first().waitFor();
  await picture(of, "sort-run");
}

// What looks after the categories, and looks by them.
async function categoryPictures(of: Page): Promise<void> {
  await of.goto("/office/categories");
  await of.getByRole("main", { name: "Categories" }).waitFor();
  await picture(of, "categories");
  await of.goto("/office/matrix");
  await picture(of, "matrix");
}

// What colleagues do with each other.
async function togetherPictures(of: Page, by: Browser): Promise<void> {
  await open(of, "our-move", "Blower hum in the vestry");
  const other = await by.newPage({ baseURL: new URL(of.url()).origin });
  await other.goto("/sign-in");
  await other.getByRole("button", { name: "Tobias Lund" }).click();
  await other.getByRole("main", { name: "To sort" }).waitFor();
  await other.goto(of.url());
  await of.getByText("Tobias Lund is looking at this").waitFor();
  await picture(of, "together");
  await other.close();
  await of.goto("/office/overview");
  await of.getByRole("main", { name: "Overview" }).waitFor();
  await picture(of, "overview");
}

// What is waited for, how it is asked for, and what would be forgotten.
async function waitingPictures(of: Page): Promise<void> {
  await of.goto("/office/waiting");
  await picture(of, "waiting");
  await open(of, "waiting", "Chamois for the bellows, two grades");
  await of.keyboard.press("r");
  const says = of.getByRole("list", { name: "What it says" });
  await of
    .getByRole("textbox", { name: "Text" })
    .fill(
      "Thank you for the samples. I will send you our measurements by Monday. Could you hold the skins until 12 December?",
    );
  await says.getByRole("checkbox").waitFor();
  await picture(of, "composer");
  await of.goto("/office/horizon");
  await of.getByRole("img").first().waitFor();
  await picture(of, "horizon");
  await of.getByRole("button", { name: /^Remind \d+ overdue/ }).click();
  await of.getByText("may I come back to my message").waitFor();
  await of.getByLabel(/Again after/).check();
  await picture(of, "reminder");
  await of.goto("/office/loose-ends");
  await of.getByRole("region", { name: "Overdue without a reminder" }).waitFor();
  await picture(of, "loose-ends");
  await of.goto("/office/settled");
  const jobs = of.getByRole("checkbox", { name: /Select Timber for job/ });
  for (const at of [0, 1, 2]) await jobs.nth(at).check();
  await of.getByRole("link", { name: "Make a rule" }).click();
  await of.getByRole("status").filter({ hasText: "messages" }).waitFor();
  await picture(of, "rules");
}

// Where things are filed, what is asked then, and how long it is kept.
async function recordPictures(of: Page): Promise<void> {
  await of.goto("/office/records/P-26-040");
  await picture(of, "record");
  await of.goto("/office/records?new&under=C-036");
  await of.getByLabel("only these people").check();
  await picture(of, "register");
  await of.goto("/office/arrangement");
  await of.getByRole("button", { name: "My records" }).click();
  await of.getByRole("menuitem", { name: /The case/ }).waitFor();
  await picture(of, "arrangement");
  await of.goto("/office/retention");
  await of.getByRole("button", { name: "Review disposal of P-25-004" }).click();
  await of.getByRole("list", { name: "To be disposed of" }).waitFor();
  await picture(of, "retention");
  await of.goto("/office/to-sort");
  // The first three, whatever they are.
  for (const at of [1, 2, 3]) {
    await of.mouse.move(at, at);
    await of.keyboard.press("x");
    await of.keyboard.press("j");
  }
  await of.keyboard.press("f");
  const picker = of.getByRole("dialog", { name: "File to a record" });
  await picker.getByPlaceholder("Type a reference code or a title").fill("G-26-01");
  await picker.getByRole("option", { name: /G-26-01/ }).click();
  await of.getByRole("dialog", { name: "File to G-26-01" }).waitFor();
  await picture(of, "filing-sheet");
}

async function open(of: Page, standing: string, subject: string): Promise<void> {
  await of.goto(`/office/${standing}`);
  await of.getByRole("link", { name: subject, exact: true }).click();
  await of.getByRole("toolbar", { name: "Decide" }).waitFor();
}

async function picture(of: Page, name: string): Promise<void> {
  await of.waitForLoadState("load");
  // The menus of a list come with the first move of a pointer, once the scripts run.
  if ((await of.getByRole("navigation", { name: "Standings" }).count()) > 0) {
    await of.waitForFunction(() => document.documentElement.dataset.ready === "true");
    for (const place of [2, 3]) await of.mouse.move(place, place);
  }
  // Counted by itself, after the page is there; behind a dialog it is not read out, and there.
  const looseEnds = of.getByRole("link", { name: /^Loose ends/, includeHidden: true });
  if ((await looseEnds.count()) > 0)
    await of.getByRole("link", { name: /^Loose ends, \d/, includeHidden: true }).waitFor({ state: "attached" });
  const isList = (await of.getByText("Filter by").count()) > 0;
  if (isList) await of.getByRole("button", { name: "Columns", includeHidden: true }).waitFor({ state: "attached" });
  await of.evaluate(() => document.fonts.ready);
  await of.screenshot({ path: `${FOLDER}/${name}.png`, animations: "disabled" });
}
