import { gzipSync } from "node:zlib";
import { seriousProblems } from "@tests/support/accessibility";
import { hostileHtml } from "@tests/support/hostile-mail";
import { expect, noticesOf, test } from "@tests/support/office-in-browser";

const MAX_SCRIPT_BYTES = 180 * 1024;

const SCREENS = [
  "/office/to-sort",
  "/office/our-move",
  "/office/waiting",
  "/office/bin",
  "/office/records",
  "/office/outgoing",
  "/office/import",
  "/office/records/P-26-040",
  "/office/search?q=tuning",
];

test("signing in has no serious problem of accessibility", async ({ page }) => {
  await page.goto("/sign-in");
  await page.getByRole("button", { name: "Sign in" }).waitFor();
  expect(await seriousProblems(page)).toEqual([]);
});

test("no main screen has a serious problem of accessibility", async ({ page, signIn }) => {
  await signIn("Ines Varga");
  for (const path of SCREENS) {
    await page.goto(path);
    await page.getByRole("main").waitFor();
    expect.soft(await seriousProblems(page), path).toEqual([]);
  }
});

test("an open conversation and its answer have no serious problem of accessibility", async ({ page, signIn }) => {
  await signIn("Ines Varga", "/office/waiting");
  await page.getByRole("link", { name: "Oak for the impost, second quotation" }).click();
  await page.getByRole("complementary", { name: "Docket" }).waitFor();
  expect(await seriousProblems(page)).toEqual([]);
  await page.getByRole("button", { name: /^Answer/ }).click();
  await page.getByRole("textbox", { name: "Text" }).waitFor();
  expect(await seriousProblems(page)).toEqual([]);
});

test("the main screen loads at most 180 KB of script", async ({ page, signIn, running }) => {
  const scripts = new Map<string, number>();
  page.on("response", async (response) => {
    if (response.request().resourceType() !== "script") return;
    // What belongs to a page that was left meanwhile is none of this one.
    const body = await response.body().catch(() => null);
    if (body !== null) scripts.set(response.url(), gzipSync(body).byteLength);
  });
  await signIn("Ines Varga");
  scripts.clear();
  await page.goto(`${running.url}/office/our-move`);
  await page.getByRole("main", { name: "Our move" }).waitFor();
  await page.waitForLoadState("networkidle");
  const total = [...scripts.values()].reduce((sum, bytes) => sum + bytes, 0);
  expect(scripts.size).toBeGreaterThan(2);
  expect(total).toBeGreaterThan(50 * 1024);
  expect(total).toBeLessThanOrEqual(MAX_SCRIPT_BYTES);
});

test("hostile HTML shows harmless: nothing runs, nothing is fetched, nothing can be sent", async ({
  page,
  running,
  signIn,
}) => {
  const outside: string[] = [];
  page.on("request", (request) => {
    if (!request.url().startsWith(running.url) && !request.url().startsWith("data:")) outside.push(request.url());
  });
  page.on("dialog", (dialog) => {
    outside.push(`dialog ${dialog.message()}`);
    void dialog.dismiss();
  });
  page.on("popup", (popup) => outside.push(`popup ${popup.url()}`));
  const subject = "A present for you";
  await signIn("Ines Varga");
  const first = await running.send({ from: "Prize Office <winner@luckypost.example>", subject });
  const bodies = hostileHtml();
  for (const [at, { body }] of bodies.entries()) {
    await running.send({
      from: "Prize Office <winner@luckypost.example>",
      subject,
      inReplyTo: first,
      headers: { "Content-Type": "text/html; charset=utf-8" },
      body: `<p>Part ${at}.</p>${body}<p>You have won.</p>`,
    });
  }
  await page.getByRole("link", { name: subject }).click();
  await page.getByRole("button", { name: /earlier items folded/ }).click();
  // Those with links, tables and pictures are shown as they were sent; the others by key, as under a pointer the page moves
  // while the messages above grow to their height.
  const texts = page.getByRole("article").getByRole("button", { name: "Show as it was sent" });
  const shown = page.getByRole("article").getByRole("button", { name: "Show as text" });
  await expect(texts.or(shown)).toHaveCount(bodies.length);
  for (let left = await texts.count(); left > 0; left -= 1) {
    await texts.first().press("Enter");
    await expect(texts).toHaveCount(left - 1);
  }
  const frames = page.locator("iframe");
  await expect(frames).toHaveCount(bodies.length);
  for (let at = 0; at < bodies.length; at += 1) {
    const frame = frames.nth(at).contentFrame();
    await expect(frame.getByText(`Part ${at}.`)).toBeVisible();
    await expect(frame.locator("script, form, input, iframe, svg, link, meta[http-equiv], object, video")).toHaveCount(
      0,
    );
    for (const link of await frame.getByText("Click", { exact: true }).all()) await link.click();
  }
  await expect(page.getByRole("heading", { name: subject })).toBeVisible();
  expect(outside).toEqual([]);
});

test("a page that is no longer true gets the new state and a message", async ({ page, running, signIn }) => {
  const subject = "Who takes this one?";
  await running.send({ subject });
  // Her page hears of no change, as on a line that comes and goes.
  await page.route("**/live?*", (route) => route.abort());
  const ines = await signIn("Ines Varga");
  await ines.getByRole("link", { name: subject }).click();
  await ines.getByRole("toolbar", { name: "Decide" }).waitFor();
  const tobias = await signIn("Tobias Lund");
  await tobias.getByRole("link", { name: subject }).click();
  await tobias.getByRole("toolbar", { name: "Decide" }).waitFor();
  await tobias.keyboard.press("s");
  await expect(noticesOf(tobias).getByText(`Settled: ${subject}`)).toBeVisible();

  await ines.keyboard.press("b");
  await expect(noticesOf(ines).getByText("Not done: Tobias Lund settled it meanwhile.")).toBeVisible();
  await expect(
    ines.getByRole("navigation", { name: "Conversations" }).getByRole("link", { name: subject }),
  ).toBeHidden();
  await ines.getByRole("link", { name: /^Settled/ }).click();
  await expect(ines.getByRole("link", { name: subject })).toBeVisible();
});

test("a lost line is told, and what is decided meanwhile is kept and sent when it is back", async ({
  page,
  running,
  signIn,
}) => {
  const subject = "Line is down";
  const tobias = await signIn("Tobias Lund");
  const ines = await signIn("Ines Varga");
  await running.send({ subject });
  await page.getByRole("link", { name: subject }).focus();
  await expect(ines.getByRole("link", { name: subject })).toBeVisible();
  await tobias.keyboard.press("u");
  await expect(noticesOf(page).getByText(`Within days: ${subject}`)).toBeVisible();
  await page.context().setOffline(true);
  await tobias.keyboard.press("b");
  await expect(
    noticesOf(page).getByText(`Your change is kept and will be sent when it returns: Moved to bin: ${subject}`),
  ).toBeVisible();
  await expect(page.getByText("Connection lost.", { exact: true })).toBeVisible();
  await expect(page.getByRole("link", { name: subject })).toBeHidden();
  await expect(ines.getByRole("link", { name: subject })).toBeVisible();
  await page.context().setOffline(false);
  await expect(noticesOf(page).getByText(`Moved to bin: ${subject}`, { exact: true })).toBeVisible();
  await expect(page.getByText("Connection lost.", { exact: true })).toBeHidden();
  await expect(ines.getByRole("link", { name: subject })).toBeHidden();
});

test("forms say beside the field what is wrong and keep what was typed", async ({ page, signIn, running }) => {
  await page.goto("/sign-in");
  await page.getByRole("textbox", { name: "Name" }).fill("ines");
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByText("Write your password.")).toBeVisible();
  await expect(page.getByRole("textbox", { name: "Name" })).toHaveValue("ines");
  await page.getByRole("textbox", { name: "Password" }).fill("wrong");
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("alert")).toHaveText("Wrong name or password. Check both.");

  const subject = "Wrong address";
  await signIn("Petra Rask");
  await running.send({ subject });
  await page.getByRole("link", { name: subject }).click();
  await page.getByRole("button", { name: /^Answer/ }).click();
  await page.getByRole("combobox", { name: "To" }).fill("vane at home");
  await page.getByRole("button", { name: /^Send(?! later)/ }).click();
  await expect(page.getByText("Not an address: vane at home.")).toBeVisible();
  await expect(page.getByText("Write something first.")).toBeVisible();
  await page.getByRole("textbox", { name: "Text" }).fill("Kept through a reload.");
  await page.reload();
  await expect(page.getByRole("textbox", { name: "Text" })).toHaveText("Kept through a reload.");
  await expect(page.getByRole("list", { name: "To" })).toContainText("vane at home");
});

test("everything is decided by key, from the list", async ({ running, signIn }) => {
  const ines = await signIn("Ines Varga");
  const subjects = ["Key one", "Key two", "Key three"];
  for (const subject of subjects) await running.send({ subject, from: "Hester Quill <wardens@stbrannoc.example>" });
  const row = (subject: string) => ines.getByRole("link", { name: subject });
  for (const subject of subjects) await expect(row(subject)).toBeVisible();

  await row("Key three").focus();
  await ines.keyboard.press("s");
  await expect(noticesOf(ines).getByText("Settled: Key three")).toBeVisible();
  await expect(row("Key three")).toBeHidden();
  await row("Key two").focus();
  await ines.keyboard.press("l");
  await ines.getByRole("button", { name: /in 5 working days/ }).click();
  await expect(noticesOf(ines).getByText("Resting: Key two")).toBeVisible();
  await row("Key one").focus();
  await ines.keyboard.press("w");
  await ines.getByRole("button", { name: "without a date" }).click();
  await expect(noticesOf(ines).getByText("Waiting for reply: Key one")).toBeVisible();
  await expect(row("Key one")).toBeHidden();
  await ines.keyboard.press("z");
  await expect(row("Key one")).toBeVisible();
  await row("Key one").focus();
  await ines.keyboard.press("n");
  await ines.getByRole("textbox", { name: "Note" }).fill("Ask Col first");
  await ines.keyboard.press("Control+Enter");
  await ines.keyboard.press("Enter");
  await expect(ines.getByText("Ask Col first")).toBeVisible();
  await ines.keyboard.press("b");
  await expect(noticesOf(ines).getByText("Moved to bin: Key one")).toBeVisible();
  await ines.keyboard.press("?");
  await expect(ines.getByRole("dialog", { name: "Keys that work here" })).toContainText("Waiting for reply");
});

test("on a phone one reads, assigns, settles and answers", async ({ page, running, signIn }) => {
  await page.setViewportSize({ width: 390, height: 780 });
  const subject = "From a pocket";
  await signIn("Col Whitaker");
  await running.send({ subject });
  await page.getByRole("link", { name: subject }).click();
  await page
    .getByRole("toolbar", { name: "Decide" })
    .getByRole("button", { name: /^Assign/ })
    .click();
  await page.getByRole("option", { name: /Col Whitaker/ }).click();
  await expect(noticesOf(page).getByText(`Assigned to Col Whitaker: ${subject}`)).toBeVisible();
  await page.getByRole("link", { name: /^Our move/ }).click();
  await page.getByRole("link", { name: subject }).click();
  await page.getByRole("button", { name: /^Answer/ }).click();
  await page.getByRole("textbox", { name: "Text" }).fill("On my way.");
  await page.getByRole("radio", { name: "Settle it" }).click();
  await page.getByRole("button", { name: /^Send(?! later)/ }).click();
  await expect(page.getByRole("heading", { name: "Settled" })).toBeVisible();
  const overflow = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
  expect(overflow).toBeLessThanOrEqual(0);
});
