import { seriousProblems } from "@tests/support/accessibility";
import { expect, noticesOf, type Page, test } from "@tests/support/office-in-browser";

const care = (page: Page) => page.getByRole("main", { name: "Categories" });
const names = (page: Page) => care(page).getByRole("listitem").getByRole("link").filter({ hasNotText: /^\d+$/ });

async function menuOf(page: Page, category: string, item: string): Promise<void> {
  await care(page)
    .getByRole("button", { name: `What to do with ${category}`, exact: true })
    .click();
  await page.getByRole("menuitem", { name: item }).click();
}

test("a lead makes a category with what is wrong beside its fields, and everybody has it at once", async ({
  running,
  signIn,
}) => {
  const ines = await signIn("Ines Varga");
  const tobias = await signIn("Tobias Lund");
  await ines.keyboard.press(".");
  await ines.getByPlaceholder("What to do, or where to go").fill("categories");
  await ines.getByRole("option", { name: "Categories", exact: true }).click();
  await care(ines).getByRole("button", { name: "New category" }).click();
  const form = ines.getByRole("complementary", { name: "Category" });
  await form.getByLabel("Name").fill("  ");
  await form.getByRole("button", { name: "Create" }).click();
  await expect(form.getByText("It needs a name.")).toBeVisible();
  await form.getByLabel("Name").fill("invoices");
  await form.getByLabel("Code").fill("TU");
  await form.getByLabel("Key, after g").fill("t");
  await form.getByLabel("Common to all trays").check();
  await form.getByRole("button", { name: "Create" }).click();
  await expect(form.getByText("“Invoices” is there already.")).toBeVisible();
  await expect(form.getByText("“Tuning” has this code.")).toBeVisible();
  await expect(form.getByText("“Tuning” has this key.")).toBeVisible();
  // Nothing typed is lost.
  await expect(form.getByLabel("Code")).toHaveValue("TU");
  await form.getByLabel("Name").fill("Bell frames");
  await form.getByLabel("Code").fill("");
  await form.getByLabel("Key, after g").fill("f");
  await form.getByRole("radio", { name: "plum" }).check();
  await form.getByRole("button", { name: "Create" }).click();
  await expect(noticesOf(ines).getByText("Created: Bell frames")).toBeVisible();
  await expect(names(ines).filter({ hasText: "Bell frames" })).toContainText("BF");
  // The other has it without having loaded anything: by its key, in the list that she looks at.
  await running.send({ subject: "The frame of the great bell" });
  await tobias.getByRole("link", { name: "The frame of the great bell" }).click();
  await tobias.getByRole("toolbar", { name: "Decide" }).waitFor();
  await tobias.keyboard.press("g");
  await tobias
    .getByRole("dialog", { name: "Category by key" })
    .getByRole("button", { name: /Bell frames/ })
    .waitFor();
  await tobias.keyboard.press("f");
  await expect(noticesOf(tobias).getByText(/^Bell frames added/)).toBeVisible();
  await expect(tobias.getByRole("complementary").getByText("Bell frames", { exact: true })).toBeVisible();
  // Renamed, it is called so everywhere.
  await menuOf(ines, "Bell frames", "Change…");
  await form.getByLabel("Name").fill("Bells and frames");
  await form.getByRole("button", { name: "Save" }).click();
  await expect(tobias.getByRole("complementary").getByText("Bells and frames", { exact: true })).toBeVisible();
});

test("a category is put in its place by hand, retired, merged and brought back, each undone", async ({ signIn }) => {
  const ines = await signIn("Ines Varga", "/office/categories");
  const at = async (name: string) => (await names(ines).allTextContents()).findIndex((text) => text.includes(name));
  const before = await at("Console");
  await menuOf(ines, "Console", "Move up");
  await expect.poll(() => at("Console")).toBe(before - 1);
  await noticesOf(ines).getByRole("button", { name: "Undo" }).click();
  await expect.poll(() => at("Console")).toBe(before);
  await ines.getByRole("button", { name: "Close" }).first().click();
  const pipework = care(ines).getByRole("listitem").filter({ hasText: "Pipework" });
  await pipework.dragTo(care(ines).getByRole("listitem").filter({ hasText: "Timber" }));
  await expect(noticesOf(ines).getByText("Moved")).toBeVisible();
  await names(ines).filter({ hasText: "Pipework" }).click();
  await expect(ines.getByRole("main", { name: "Pipework" }).getByText("Timber ›")).toBeVisible();
  await ines.goBack();

  await menuOf(ines, "Leather", "Retire");
  await expect(names(ines).filter({ hasText: "Leather, retired" })).toHaveCount(1);
  await menuOf(ines, "Leather", "Reactivate");
  await expect(names(ines).filter({ hasText: "Leather, retired" })).toHaveCount(0);

  const open = await care(ines)
    .getByRole("link", { name: /open with Delivery/ })
    .textContent();
  await menuOf(ines, "Delivery", "Merge or delete…");
  const dialog = ines.getByRole("dialog", { name: "Merge or delete Delivery" });
  await expect(dialog.getByRole("listitem").filter({ hasText: "conversations" })).toContainText(/\d+/);
  const announced = await dialog.getByRole("listitem").first().textContent();
  await dialog.getByRole("combobox", { name: "Replace with" }).click();
  await ines.getByRole("option", { name: "Contracts" }).click();
  await expect(dialog.getByText("The one under it moves under that one.")).toBeVisible();
  await dialog.getByRole("button", { name: "Merge" }).click();
  await expect(
    noticesOf(ines).getByText(`Merged, with ${/\d+/.exec(announced ?? "")?.[0]} conversations`),
  ).toBeVisible();
  await expect(names(ines).filter({ hasText: "Delivery" })).toHaveCount(0);
  await ines
    .getByRole("complementary", { name: "Lately changed" })
    .getByRole("button", { name: "Undo: You merged “Delivery” into “Contracts”" })
    .click();
  await expect(names(ines).filter({ hasText: "Delivery" })).toHaveCount(1);
  await expect(care(ines).getByRole("link", { name: /open with Delivery/ })).toHaveText(open ?? "");
});

test("one creates a category while giving it, where that is allowed, and narrows by one with all under it", async ({
  running,
  signIn,
}) => {
  const ines = await signIn("Ines Varga");
  await running.send({ subject: "A clavichord to look at" });
  await ines.getByRole("link", { name: "A clavichord to look at" }).click();
  await ines.getByRole("toolbar", { name: "Decide" }).waitFor();
  await ines.keyboard.press("c");
  await ines.getByPlaceholder(/category/).fill("Clavichords");
  await ines.getByRole("option", { name: "Create “Clavichords” and add it" }).waitFor();
  await ines.keyboard.press("Enter");
  const given = (name: string) => ines.getByRole("option", { name: new RegExp(`${name}.*added`) });
  await expect(given("Clavichords")).toBeVisible();
  await ines.getByPlaceholder(/category/).fill("reminders");
  await ines.keyboard.press("Enter");
  await expect(given("Payment reminders")).toBeVisible();
  // A notice that stands on top does not keep the key from closing it.
  await ines.keyboard.press("Escape");
  await expect(ines.getByRole("dialog")).toHaveCount(0);
  await expect(noticesOf(ines).getByText(/^Payment reminders added/)).toBeVisible();
  await ines.goto("/office/to-sort");
  await ines.getByRole("button", { name: "Category", exact: true }).click();
  await ines.getByRole("option", { name: /^Invoices \d+$/ }).click();
  await expect(ines.getByRole("link", { name: "A clavichord to look at" })).toBeVisible();
});

test("the matrix leads from a number to its list", async ({ signIn }) => {
  const ines = await signIn("Ines Varga", "/office/matrix");
  const cell = ines.getByRole("link", { name: /^Quotes, Ines Varga: \d+$/ });
  const count = Number(await cell.textContent());
  await cell.click();
  await ines.getByRole("main", { name: "All that is open" }).waitFor();
  await expect(ines.getByRole("button", { name: "Remove filter Quotes" })).toBeVisible();
  await expect(ines.getByRole("button", { name: "Remove filter Ines Varga" })).toBeVisible();
  const shown = await ines.request.get(`/office/lists/open/start${new URL(ines.url()).search}`);
  expect((await shown.json()).total).toBe(count);
  await ines.goto("/office/matrix?against=standing");
  await expect(ines.getByRole("columnheader", { name: "Our move" })).toBeVisible();
});

test("categories go out as a table and come in from one, line by line and after a look", async ({ signIn }) => {
  const ines = await signIn("Ines Varga", "/office/categories");
  const [file] = await Promise.all([ines.waitForEvent("download"), ines.getByRole("link", { name: "Export" }).click()]);
  expect(file.suggestedFilename()).toBe("office-categories.csv");
  await ines.getByRole("link", { name: "Import", exact: true }).click();
  await ines.getByRole("button", { name: "Preview" }).click();
  await expect(ines.getByText("Choose a file, or paste its lines.")).toBeVisible();
  await ines
    .getByLabel("Or its lines")
    .fill("path,ink\nSpinets,moss\nSpinets › Strings,\nTuning,brick\nNowhere › Here,");
  await ines.getByRole("button", { name: "Preview" }).click();
  const report = ines.getByRole("region", { name: "Line by line" });
  await expect(report.getByRole("listitem")).toHaveText([
    /2\s*Spinets\s*will be created/,
    /3\s*Spinets › Strings\s*will be created/,
    /4\s*Tuning\s*It is common to all trays and is not changed from here./,
    /5\s*Nowhere › Here\s*There is no “Nowhere” above it./,
  ]);
  await ines.getByRole("button", { name: "Take 2 categories in" }).click();
  await expect(report.getByText("Result")).toBeVisible();
  await report.getByRole("button", { name: "undo the import" }).click();
  await expect(noticesOf(ines).getByText("Undone: took categories in from a file.")).toBeVisible();
});

test("the screens of categories have no serious problem of accessibility, also on a phone", async ({ signIn }) => {
  const ines = await signIn("Ines Varga");
  const check = async (path: string, ready: string) => {
    await ines.goto(path);
    await ines.getByRole("main", { name: ready }).waitFor();
    await ines.waitForLoadState("networkidle");
    expect(await seriousProblems(ines), path).toEqual([]);
  };
  await check("/office/categories", "Categories");
  await check("/office/categories?new=", "Categories");
  await check("/office/matrix", "Matrix of categories");
  await check("/office/categories/import", "Import categories");
  await ines.goto("/office/categories");
  await names(ines).filter({ hasText: "Quotes" }).click();
  await ines.getByRole("img", { name: /In 12 weeks/ }).waitFor();
  await check(new URL(ines.url()).pathname, "Quotes");
  await ines.setViewportSize({ width: 390, height: 800 });
  await ines.goto("/office/categories");
  await expect(names(ines).filter({ hasText: "Quotes" })).toBeVisible();
  expect(await ines.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
});
