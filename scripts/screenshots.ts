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
  await open(page, "to-sort", "Practice organ, middle C sticks");
  await page.getByRole("region", { name: "Who could take it" }).waitFor();
  await picture(page, "conversation");
  await togetherPictures(page, browser);
  await page.goto("/office/waiting");
  await picture(page, "waiting");
  await page.goto("/office/records/P-26-040");
  await picture(page, "record");
  await page.goto("/office/search?q=tuning");
  await picture(page, "search");
  await mailPictures(page);
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
  // The menus come with the first move of a pointer.
  await of.mouse.move(2, 2);
  const choose = async (menu: string, item: string) => {
    await of.getByRole("button", { name: menu }).click();
    await of.getByRole("menuitemradio", { name: item }).click();
  };
  await choose("Grouping", "By category");
  await of.getByRole("button", { name: /^Delivery \d/ }).waitFor();
  await picture(of, "by-category");
  await choose("Grouping", "By day");
  await of.goto("/office/sort-run/to-sort");
  await of.getByRole("complementary", { name: "Docket" }).getByRole("button").first().waitFor();
  await picture(of, "sort-run");
  await of.goto("/office/follow-ups");
  await picture(of, "follow-ups");
  await of.goto("/office/journal");
  await picture(of, "journal");
}

// What looks after the categories, and looks by them.
async function categoryPictures(of: Page): Promise<void> {
  await of.goto("/office/categories");
  await of.getByRole("main", { name: "Categories" }).waitFor();
  await picture(of, "categories");
  await of.getByRole("link", { name: /^EX/ }).click();
  await of.getByRole("img", { name: /In 12 weeks/ }).waitFor();
  await picture(of, "category");
  await of.goto("/office/matrix");
  await picture(of, "matrix");
  await open(of, "our-move", "Consent for the case, ref 26/118");
  await of.keyboard.press("c");
  await of.getByRole("dialog", { name: "Categories" }).waitFor();
  await picture(of, "category-picker");
  await of.keyboard.press("Escape");
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
  await of.keyboard.press("a");
  await of.getByText("least to do of all").waitFor();
  await picture(of, "assign");
  await other.close();
  for (const name of ["overview", "members"]) {
    await of.goto(`/office/${name}`);
    await of.getByRole("main", { name: name === "members" ? "Members" : "Overview" }).waitFor();
    await picture(of, name);
  }
}

// Mail as it comes in bulk.
async function mailPictures(of: Page): Promise<void> {
  await of.goto("/office/import");
  await of
    .getByLabel("File")
    .setInputFiles({ name: "office-2025.mbox", mimeType: "application/mbox", buffer: oldMail() });
  await of.getByRole("button", { name: "Import", exact: true }).click();
  await of.getByRole("progressbar").waitFor();
  await of.getByText(/[1-9]00 read/).waitFor();
  await picture(of, "import");
}

async function open(of: Page, standing: string, subject: string): Promise<void> {
  await of.goto(`/office/${standing}`);
  await of.getByRole("link", { name: subject, exact: true }).click();
  await of.getByRole("toolbar", { name: "Decide" }).waitFor();
}

function oldMail(): Buffer {
  const one = (at: number) =>
    `From x Mon Mar 03 10:00:00 2025\nFrom: Old Friend <friend@old.example>\nTo: office@ottermoor.example\nSubject: Long ago ${at}\nMessage-ID: <ago-${at}@old.example>\nDate: Mon, 03 Mar 2025 10:00:00 +0000\n\n${"Words of long ago. ".repeat(80)}\n\n`;
  return Buffer.from(Array.from({ length: 2_000 }, (_, at) => one(at)).join(""));
}

async function picture(of: Page, name: string): Promise<void> {
  await of.waitForLoadState("load");
  await of.evaluate(() => document.fonts.ready);
  await of.screenshot({ path: `${FOLDER}/${name}.png`, animations: "disabled" });
}
