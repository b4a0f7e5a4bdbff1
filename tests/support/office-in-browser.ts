import { randomUUID } from "node:crypto";
import { test as base, expect, type Page } from "@playwright/test";
import { createTransport } from "nodemailer";
import { type Instant, instant } from "~/core/kernel/instant";
import { COLLEAGUES } from "~/demo/world";
import { CHARACTERS, startLeavingSite, startOutsideWorld } from "~/mail/index";
import { cloneDatabase } from "./clones";
import { aMessage } from "./mail";
import { startServerProcess } from "./server-process";
import { DEMO_TEMPLATE } from "./test-cluster";

/** The application with the made-up world, and somebody outside who sends mail to it. */
export type Running = {
  readonly url: string;
  readonly databaseUrl: string;
  /** What the server wrote into its log up to now. */
  readonly said: () => readonly string[];
  /** What sites outside were asked so that a list is left. */
  readonly leavings: readonly string[];
  /** Delivers a message over SMTP as somebody's mail server would; gives its Message-ID. */
  readonly send: (fields: Parameters<typeof aMessage>[0] & { readonly sender?: string }) => Promise<string>;
};

// A second of the outside world's clock, in milliseconds.
const SECOND_MS = 150;
const OF_A_TRAY = /^\/(?:office|parts)\//;

/** Signs somebody in and opens a page, or the list of what is to be sorted. */
type SignIn = (name: string, at?: string) => Promise<Page>;
type Fixtures = { signIn: SignIn; saysWhatBroke: undefined };

export const test = base.extend<Fixtures, { running: Running; office: string }>({
  // Whoever puts its clock ahead, fills its lists or needs what the demo brings untouched has an office of her own: a
  // worker is shared only by tests that name the same.
  office: ["everybody's", { scope: "worker", option: true }],
  running: [
    // biome-ignore lint/correctness/noEmptyPattern: Playwright asks for a pattern
    async ({}, use) => {
      const { url: databaseUrl, drop } = await cloneDatabase(process.env.TEST_CLUSTER_PORT ?? "", DEMO_TEMPLATE);
      let mailPort = 0;
      const outside = await startOutsideWorld({
        host: "127.0.0.1",
        port: 0,
        tray: () => ({ host: "127.0.0.1", port: mailPort }),
        characters: CHARACTERS,
        secondMs: SECOND_MS,
        now: (): Instant => instant(Date.now()),
        newId: randomUUID,
        onProblem: () => {},
      });
      const site = await startLeavingSite("127.0.0.1");
      const server = await startServerProcess({
        DATABASE_URL: databaseUrl,
        SMTP_OUT_PORT: String(outside.port),
        DEMO: "true",
        SEND_HOLD_SECONDS: "5",
        ONE_CLICK_VIA: `http://127.0.0.1:${site.port}`,
      });
      mailPort = server.mailPort;
      await use({
        url: `http://127.0.0.1:${server.httpPort}`,
        databaseUrl,
        said: server.said,
        leavings: site.asked,
        async send({ sender = "post@outside.example", ...fields }) {
          const id = fields.id ?? `${randomUUID()}@outside.example`;
          const transport = createTransport({ host: "127.0.0.1", port: mailPort, ignoreTLS: true });
          const raw = aMessage({ date: new Date().toUTCString(), ...fields, id });
          await transport.sendMail({
            envelope: { from: sender, to: fields.to ?? "office@ottermoor.example" },
            raw: Buffer.from(raw),
          });
          transport.close();
          return id;
        },
      });
      await server.stop();
      await outside.close();
      await site.close();
      await drop();
    },
    { scope: "worker" },
  ],
  // What the server said while a test failed stands beside its pictures.
  saysWhatBroke: [
    async ({ running }, use, info) => {
      const before = running.said().length;
      await use(undefined);
      if (info.status === info.expectedStatus) return;
      await info.attach("server's log", { body: running.said().slice(before).join("\n"), contentType: "text/plain" });
    },
    { auto: true },
  ],
  baseURL: async ({ running }, use) => use(running.url),
  signIn: async ({ page, browser, running }, use) => {
    let first = true;
    await use(async (name, at) => {
      // The first comes in on the test's own page, every other colleague with a browser of her own.
      const own = first ? page : await (await browser.newContext({ baseURL: running.url })).newPage();
      first = false;
      // The page for it is a journey of its own.
      const colleague = COLLEAGUES.find((one) => one.name === name)?.signInName ?? name;
      const headers = { Origin: running.url };
      await own.context().request.post("/sign-in", { form: { colleague }, headers, maxRedirects: 0 });
      // A page of a tray that has just been loaded shows what it has before it answers.
      const goes = own.goto.bind(own);
      own.goto = async (...where) => {
        const response = await goes(...where);
        if (response?.ok() && OF_A_TRAY.test(new URL(response.url()).pathname)) await answersKeys(own);
        return response;
      };
      await own.goto(at ?? "/");
      if (at === undefined) await own.getByRole("main", { name: "To sort" }).waitFor();
      return own;
    });
  },
});

/** Waits until the page answers: the live connection is made once the scripts run. */
async function answersKeys(page: Page): Promise<void> {
  await page.waitForFunction(() => document.documentElement.dataset.ready === "true", null, { timeout: 60_000 });
}

/** The short notices at the edge: what was done, or why it was not. */
export const noticesOf = (page: Page) => page.getByRole("region", { name: /^Notices/ });

/** Puts the clock of the office ahead, as its menu offers it. */
export async function letPass(page: Page, how: string): Promise<void> {
  await page.getByRole("button", { name: /^Signed in as/ }).click();
  const passed = page.waitForResponse((response) => response.url().includes("advance-clock") && response.ok());
  await page.getByRole("menuitem", { name: how }).click();
  await passed;
  // The notice that says so goes first.
  await expect(async () => {
    await page.keyboard.press("Escape");
    await expect(page.getByRole("menu")).toBeHidden({ timeout: 2_000 });
  }).toPass();
}

export type { Page } from "@playwright/test";
export { expect } from "@playwright/test";
