import { readFileSync } from "node:fs";
import { expect, noticesOf, test } from "@tests/support/office-in-browser";

test("one comes in as somebody of the demo, goes between the trays, and out again", async ({ page }) => {
  await page.goto("/sign-in");
  await page.getByRole("button", { name: "Mattis Orne" }).click();
  await expect(page.getByRole("main", { name: "To sort" })).toBeVisible();
  await page.getByRole("button", { name: /office@ottermoor.example/ }).click();
  await page.getByRole("menuitem", { name: "parts@ottermoor.example" }).click();
  await expect(page.getByRole("link", { name: "Bushing cloth, a darker red" })).toBeVisible();
  await expect(page.getByRole("link", { name: "Practice organ, middle C sticks" })).toBeHidden();
  await page.getByRole("button", { name: "Signed in as Mattis Orne" }).click();
  await page.getByRole("menuitem", { name: "Sign out" }).click();
  await expect(page.getByRole("heading", { name: /everybody knows whose move/ })).toBeVisible();
  await page.goto("/parts/to-sort");
  await expect(page).toHaveURL(/sign-in\?next=%2Fparts%2Fto-sort/);
  await page.getByRole("textbox", { name: "Name" }).fill("mattis");
  await page.getByRole("textbox", { name: "Password" }).fill("ottermoor");
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page).toHaveURL(/parts\/to-sort$/);
});

test("the register is searched as one types, and a record shows what belongs to it", async ({ page, signIn }) => {
  await signIn("Petra Rask");
  await page.getByRole("link", { name: "Records" }).click();
  await expect(page.getByRole("link", { name: "Abbey of Sorrel", exact: true })).toBeVisible();
  await page.getByRole("searchbox", { name: "Find a record" }).fill("p-26-0");
  await expect(page.getByRole("link", { name: "Abbey of Sorrel", exact: true })).toBeHidden();
  await page.getByRole("link", { name: "Quayle, new blower" }).click();
  await expect(page.getByRole("heading", { name: "Quayle, new blower" })).toBeVisible();
  await expect(page.getByRole("article", { name: "Blower hum in the vestry" })).toContainText("send a recording");
  await page.getByRole("link", { name: "C-019 Otto Quayle, house organ" }).click();
  await expect(page.getByText("Nothing is filed here yet.")).toBeVisible();
});

test("search says when there is nothing, and marks what there is", async ({ page, signIn }) => {
  await signIn("Petra Rask");
  const field = page.getByRole("searchbox", { name: "Search this tray" });
  await field.fill("xylophone");
  await field.press("Enter");
  await expect(page.getByRole("heading", { name: "Nothing in this tray has “xylophone”" })).toBeVisible();
  await field.fill('"two grades"');
  await field.press("Enter");
  await expect(page.getByRole("link", { name: "Chamois for the bellows, two grades" })).toBeVisible();
  await expect(page.locator("mark").first()).toHaveText("two");
});

test("an attachment is downloaded with a safe name and the same bytes", async ({ page, signIn }) => {
  await signIn("Mattis Orne", "/parts/to-sort");
  await page.getByRole("link", { name: "Re: your invoice (urgent)" }).click();
  const downloading = page.waitForEvent("download");
  await page.getByRole("link", { name: "Download invoice.pdf.exe" }).click();
  const download = await downloading;
  expect(download.suggestedFilename()).toBe("invoice.pdf.exe");
  expect(readFileSync(await download.path(), "utf8").trim()).toBe("not a program");
});

test("mail that could not be parsed is shown raw, flagged, and can be had as it came", async ({ page, signIn }) => {
  await signIn("Sunniva Dale");
  await page.getByRole("link", { name: "you have been chosen" }).click();
  await expect(page.getByText(/it has no usable Message-ID/)).toBeVisible();
  const downloading = page.waitForEvent("download");
  await page.getByRole("link", { name: "Raw message" }).click();
  expect((await downloading).suggestedFilename()).toMatch(/^message-.*\.eml$/);
});

test("what is not there is told, with a way back", async ({ page, signIn }) => {
  await signIn("Col Whitaker");
  for (const [path, words] of [
    ["/nowhere/to-sort", "There is no such tray"],
    ["/office/nonsense", "There is no such standing"],
    ["/office/to-sort/not-an-id", "This conversation is not in this tray"],
    ["/office/records/X-1", "There is no record of this code"],
  ] as const) {
    await page.goto(path);
    await expect(page.getByText(words)).toBeVisible();
  }
  await page.getByRole("link", { name: "Back to the tray" }).click();
  await expect(page.getByRole("main", { name: "To sort" })).toBeVisible();
});

test("a step long ago is undone from the journal", async ({ page, signIn }) => {
  await signIn("Ines Varga", "/office/our-move");
  await page.getByRole("link", { name: "Humidity readings, nave and gallery" }).click();
  const docket = page.getByRole("complementary", { name: "Docket" });
  await expect(docket).toContainText("P-25-088");
  await docket
    .getByRole("listitem")
    .filter({ hasText: "filed it to P-25-088" })
    .getByRole("button", { name: "undo" })
    .click();
  await expect(noticesOf(page).getByText("Undone: filed it to P-25-088.")).toBeVisible();
  await expect(docket).toContainText("not filed");
  await expect(docket).toContainText("You took back: filed it to P-25-088");
});

test("an empty standing says what would come there", async ({ page, signIn }) => {
  await signIn("Ines Varga", "/parts/junk");
  await expect(page.getByRole("heading", { name: "No junk" })).toBeVisible();
});

test("one changes one's password, and is signed out wherever else one was", async ({ signIn }) => {
  const [page, elsewhere] = [await signIn("Sunniva Dale"), await signIn("Sunniva Dale")];
  await page.goto("/office/account");
  const sessions = page.getByRole("region", { name: "Sessions" }).getByRole("listitem");
  // Whoever was there before on this server may have left more.
  await expect.poll(() => sessions.count()).toBeGreaterThan(1);
  const change = async (old: string, next: string) => {
    await page.getByLabel("Current password").fill(old);
    await page.getByLabel("New password").fill(next);
    await page.getByRole("button", { name: "Change password" }).click();
  };
  await change("ottermoor", "1234567890");
  await expect(page.getByText("among the first that are tried")).toBeVisible();
  await change("not mine at all", "bellows and reeds");
  await expect(page.getByText("That is not your password.")).toBeVisible();
  await change("ottermoor", "bellows and reeds");
  await expect(noticesOf(page).getByText(/Password changed/)).toBeVisible();
  await expect(sessions).toHaveCount(1);
  await elsewhere.goto("/office/account");
  await elsewhere.getByRole("textbox", { name: "Name" }).fill("sunniva");
  await elsewhere.getByRole("textbox", { name: "Password" }).fill("bellows and reeds");
  await elsewhere.getByRole("button", { name: "Sign in" }).click();
  await expect(elsewhere.getByRole("main", { name: "Account and sessions" })).toBeVisible();
  await page.goto("/office/account");
  await expect(sessions).toHaveCount(2);
  await page.getByRole("button", { name: "End all others" }).click();
  await expect(sessions).toHaveCount(1);
  await elsewhere.reload();
  await expect(elsewhere.getByRole("button", { name: "Sign in" })).toBeVisible();
});
