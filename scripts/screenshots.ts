import { chromium, type Page } from "@playwright/test";
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
  await picture(page, "sign-in");
  await page.getByRole("button", { name: "Ines Varga" }).click();
  await page.getByRole("main", { name: "To sort" }).waitFor();
  await page.goto("/office/our-move");
  await picture(page, "main");
  await page.getByRole("link", { name: "Consent for the case, ref 26/118" }).click();
  await page.getByRole("complementary", { name: "Docket" }).waitFor();
  await picture(page, "conversation");
  await page.getByRole("button", { name: /^Answer/ }).click();
  await page.getByRole("textbox", { name: "Text" }).fill("The drawings of the lower frame will be with you on Friday.");
  await picture(page, "answering");
  await page.goto("/office/waiting");
  await picture(page, "waiting");
  await page.goto("/office/records/P-26-040");
  await picture(page, "record");
  await page.goto("/office/search?q=tuning");
  await picture(page, "search");
  await page.goto("/office/records");
  await picture(page, "records");
  await page.goto("/office/to-sort");
  await page.setViewportSize({ width: 390, height: 780 });
  await picture(page, "phone");
} finally {
  await browser.close();
  await server.stop();
  await cluster.stop();
}

async function picture(of: Page, name: string): Promise<void> {
  await of.waitForLoadState("load");
  await of.evaluate(() => document.fonts.ready);
  await of.screenshot({ path: `${FOLDER}/${name}.png`, animations: "disabled" });
}
