import { seriousProblems } from "@tests/support/accessibility";
import { expect, noticesOf, test } from "@tests/support/office-in-browser";

test("a list is left with one request, and everything of it is settled", async ({ running, signIn }) => {
  const ines = await signIn("Ines Varga");
  const headers = {
    "List-Id": "Pallet letters <pallets.example>",
    "List-Unsubscribe": "<https://pallets.example/leave?n=12>",
    "List-Unsubscribe-Post": "List-Unsubscribe=One-Click",
  };
  for (const subject of ["Pallet letter one", "Pallet letter two"])
    await running.send({ from: "Pallets <letters@pallets.example>", subject, headers });
  await ines.getByRole("link", { name: "Pallet letter two", exact: true }).click();
  await ines.getByRole("button", { name: "Unsubscribe…" }).click();
  const dialog = ines.getByRole("dialog", { name: "Unsubscribe from this list?" });
  await expect(dialog).toContainText("One request to pallets.example does it at once");
  await expect(dialog.getByRole("checkbox", { name: "Settle all 2 open of this list" })).toBeChecked();
  await dialog.getByRole("button", { name: "Unsubscribe" }).click();
  await expect(noticesOf(ines).getByText("Unsubscribed")).toBeVisible();
  expect(running.leavings).toContain("pallets.example/leave?n=12 List-Unsubscribe=One-Click");
  const run = ines.getByRole("region", { name: "Decisions under way" });
  await expect(run).toContainText("2 of 2");
  const docket = ines.getByRole("complementary", { name: "Docket" });
  await expect(docket.getByRole("heading", { name: "Settled" })).toBeVisible();
  await expect(docket).toContainText("You unsubscribed from pallets.example");
  await run.getByRole("button", { name: "Undo 2" }).click();
  await expect(docket.getByRole("heading", { name: "To sort" })).toBeVisible();
});

test("older mail is settled in one go by keyboard, after a look at what it is, and undone", async ({ signIn }) => {
  const sunniva = await signIn("Sunniva Dale", "/parts/to-sort");
  await sunniva.getByRole("main", { name: "To sort" }).waitFor();
  await sunniva.keyboard.press(".");
  await sunniva.getByPlaceholder("What to do, or where to go").fill("older");
  await sunniva.getByRole("option", { name: "Older mail" }).waitFor();
  await sunniva.keyboard.press("Enter");
  const page = sunniva.getByRole("main", { name: "Older mail" });
  const prices = page.getByRole("listitem", { name: "Metal prices" });
  await expect(prices).toContainText("Mail of a list: nobody there waits for an answer.");
  const number = Number(/Settle (\d+)/.exec((await prices.getByRole("button").textContent()) ?? "")?.[1]);
  expect(number).toBeGreaterThan(10);
  await prices.getByRole("link").press("Enter");
  await expect(sunniva.getByRole("button", { name: /^Remove filter list prices/ })).toBeVisible();
  await expect(
    sunniva.getByRole("main", { name: "To sort" }).getByRole("link", { name: /^Metal prices/ }),
  ).not.toHaveCount(0);
  await sunniva.goBack();
  await prices.getByRole("button").press("Enter");
  const dialog = sunniva.getByRole("dialog", { name: `Settle ${number} conversations?` });
  await expect(dialog.getByRole("button", { name: `Settle ${number}` })).toBeFocused();
  await sunniva.keyboard.press("Enter");
  const run = sunniva.getByRole("region", { name: "Decisions under way" });
  await expect(run).toContainText(`${number} of ${number}`);
  await expect(prices).toBeHidden();
  await run.getByRole("button", { name: `Undo ${number}` }).press("Enter");
  await expect(prices).toBeVisible();
});

test("a junk sender's mail goes away, now and from now on", async ({ running, signIn }) => {
  const col = await signIn("Col Whitaker");
  const from = "Cheap Pipes <sales@cheappipes.example>";
  for (const subject of ["Pipes at a tenth", "Pipes at a hundredth"]) await running.send({ from, subject });
  await col.getByRole("link", { name: "Pipes at a tenth" }).focus();
  await col.keyboard.press("h");
  await expect(noticesOf(col).getByText("Junk: Pipes at a tenth")).toBeVisible();
  await col.goto("/office/junk");
  await col.getByRole("link", { name: "Pipes at a tenth" }).click();
  const others = col.getByRole("region", { name: "Other mail of this sender" });
  await expect(others).toContainText("1 other conversation open");
  await others.getByRole("button", { name: "Junk it too" }).click();
  await others.getByRole("button", { name: "Always junk" }).click();
  await expect(others).toContainText("What comes goes straight to Junk");
  // What arrives is asked by senders that are at most two seconds old.
  await expect(async () => {
    await running.send({ from, subject: "Pipes for nothing" });
    await col.goto("/office/junk");
    const came = col.getByRole("link", { name: "Pipes for nothing", exact: true });
    await expect(came.first()).toBeVisible({ timeout: 5_000 });
  }).toPass({ timeout: 60_000 });
  await expect(col.getByRole("link", { name: "Pipes at a hundredth", exact: true })).toBeVisible();
  await col.goto("/office/search?q=hundredth");
  await expect(col.getByText("Nothing in this tray has “hundredth”")).toBeVisible();
  await col.getByRole("link", { name: "Include Bin and Junk" }).click();
  await expect(col.getByRole("link", { name: "Pipes at a hundredth" })).toBeVisible();
});

test("the hours of a tray are set by who leads it, with what is wrong beside it", async ({ signIn }) => {
  const ines = await signIn("Ines Varga");
  await ines.getByRole("button", { name: "Signed in as Ines Varga" }).click();
  await ines.getByRole("menuitem", { name: "Settings" }).click();
  await ines.getByRole("searchbox", { name: "Find a setting" }).fill("working hours");
  await ines.getByRole("navigation", { name: "Settings" }).getByRole("link", { name: "Hours and holidays" }).click();
  const page = ines.getByRole("main", { name: "Hours and holidays" });
  await page.getByLabel("Saturday", { exact: true }).check();
  await page.getByLabel("Saturday, from").fill("9");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText("Write a time as 08:30.")).toBeVisible();
  await expect(page.getByLabel("Saturday, from")).toHaveValue("9");
  await page.getByLabel("Saturday, from").fill("09:00");
  await page.getByLabel("Saturday, to").fill("12:00");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(noticesOf(ines).getByText("Hours and holidays saved")).toBeVisible();
  const holidays = page.getByRole("list", { name: "Holidays" });
  await page.getByLabel("One more day", { exact: true }).fill("31 Dec 2031");
  await page.getByRole("button", { name: "Add day" }).click();
  await expect(holidays.getByText("Wed 31 Dec 2031")).toBeVisible();
  // What was typed and not added is meant as well.
  await page.getByLabel("One more day", { exact: true }).fill("30 Dec 2031");
  await expect(page.getByText("Tue 30 Dec 2031")).toBeVisible();
  await page.getByRole("button", { name: "Save" }).click();
  await expect(holidays.getByText("Tue 30 Dec 2031")).toBeVisible();
  await ines.reload();
  await expect(page.getByLabel("Saturday, to")).toHaveValue("12:00");
  await expect(holidays.getByText("Wed 31 Dec 2031")).toBeVisible();
  for (const day of ["Tue 30 Dec 2031", "Wed 31 Dec 2031"])
    await page.getByRole("button", { name: `Remove ${day}` }).click();
  await expect(holidays).toBeHidden();
  expect(await seriousProblems(ines)).toEqual([]);
  await page.getByLabel("Saturday", { exact: true }).uncheck();
  await page.getByRole("button", { name: "Save" }).click();
  await expect(noticesOf(ines).getByText("Hours and holidays saved").last()).toBeVisible();
});
