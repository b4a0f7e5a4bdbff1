import { seriousProblems } from "@tests/support/accessibility";
import { expect, test } from "@tests/support/office-in-browser";

test.use({ office: "with much mail" });

const DAYS = 1_000;
const AT_ONCE = 25;

test("a lead chooses three daily reports; the rule they have in common is tried, saved, run over a thousand, undone, and has its page", async ({
  running,
  signIn,
}) => {
  test.setTimeout(180_000);
  const report = (day: number) =>
    running.send({ from: "watch@bellows.example", subject: `Humidity report ${day}`, body: `All is dry, ${day}.` });
  for (let day = 0; day < DAYS - AT_ONCE; day += AT_ONCE)
    await Promise.all(Array.from({ length: AT_ONCE }, (_, at) => report(day + at)));
  // One after the other, so that it is known which are the newest.
  for (let day = DAYS - AT_ONCE; day < DAYS; day++) await report(day);
  const ines = await signIn("Ines Varga", "/office/to-sort");
  const reports = ines.getByRole("checkbox", { name: /Select Humidity report/ });
  await expect(reports.nth(2)).toBeVisible();
  for (const at of [0, 1, 2]) await reports.nth(at).check();
  await ines.getByRole("link", { name: "Make a rule" }).click();
  const editor = ines.getByRole("main", { name: /^Rule from [32] conversations$/ });
  const proposals = editor.getByRole("radiogroup", { name: "What they have in common" });
  await expect(proposals.getByRole("radio").first()).toBeChecked();
  await expect(proposals.getByText("takes 3 of 3 examples").first()).toBeVisible();
  await expect(editor.getByRole("status")).toHaveText(/^1,000 of the newest 1,?000 messages$/);

  // Two are pointed at as not meant, one of them an example, and taken back.
  await editor.getByLabel("Name").fill("Humidity");
  const pointAt = async (words: string, day: number) =>
    await editor.getByRole("button", { name: `${words}: Humidity report ${day}` }).click();
  const notMeant = editor.getByRole("region", { name: "Not meant" });
  await pointAt("Not meant", 990);
  await expect(notMeant.getByRole("listitem")).toHaveText([/Humidity report 990/]);
  await expect(proposals.getByText("takes 3 of 3 examples").first()).toBeVisible();
  await pointAt("Not meant", DAYS - 1);
  await expect(proposals.getByText("takes 2 of 2 examples").first()).toBeVisible();
  expect(await seriousProblems(ines)).toEqual([]);
  await pointAt("Meant after all", DAYS - 1);
  await expect(notMeant.getByRole("listitem")).toHaveText([/Humidity report 990/]);
  await pointAt("Meant after all", 990);
  await expect(notMeant).toBeHidden();
  await expect(editor.getByRole("status")).toHaveText(/^1,000 of the newest 1,?000 messages$/);
  await expect(editor.getByLabel("Name")).toHaveValue("Humidity");
  await editor.getByRole("button", { name: "Try on everything that came" }).click();
  await expect(editor.getByRole("status")).toHaveText(/^1,000 of all 1,?\d+ messages$/);
  expect(await seriousProblems(ines)).toEqual([]);
  await editor.getByRole("button", { name: "Add what it does" }).click();
  await ines.getByRole("menuitem", { name: "settle it" }).click();
  await editor.getByRole("button", { name: "Save, and run over what is there" }).click();
  const rules = ines.getByRole("main", { name: "Rules" });
  await expect(rules.getByText("Humidity", { exact: true })).toBeVisible();
  const run = ines.getByRole("region", { name: "Decisions under way" });
  await expect(run.getByText("Rule “Humidity” over what is there")).toBeVisible();
  await expect(run.getByRole("progressbar").first()).toBeVisible();
  await expect(run.getByRole("button", { name: /^Undo 1,?000$/ })).toBeVisible({ timeout: 60_000 });
  await ines.goto("/office/settled");
  await expect(reports.first()).toBeVisible();

  await ines.goto("/office/rules");
  await rules.getByRole("link", { name: "What “Humidity” did" }).click();
  const history = ines.getByRole("main", { name: "What “Humidity” did" });
  const ever = history.getByRole("row", { name: /^Ever/ });
  await expect(ever).toHaveText(/^Ever1,?0000$/);
  await expect(history.getByRole("listitem").filter({ hasText: "settled it" })).toContainText("1,000 conversations");
  expect(await seriousProblems(ines)).toEqual([]);
  const versions = history.getByRole("region", { name: "Versions" });
  await versions.getByRole("button", { name: "Undo what version 1 did" }).click();
  await versions.getByLabel("Since (empty: all of it)").fill("");
  await versions.getByRole("button", { name: "Undo it" }).click();
  await expect(run.getByText("Undone")).toBeVisible();
  await expect(async () => {
    await ines.reload();
    await expect(ever).toHaveText(/^Ever1,?0001,?000 \(100%\)$/, { timeout: 1_000 });
  }).toPass({ timeout: 60_000 });
  await ines.goto("/office/to-sort");
  await expect(reports.first()).toBeVisible();

  // Changed by somebody else, it has a version of its own; what it did before belongs to the first.
  await ines.goto("/office/rules");
  await rules.getByRole("checkbox", { name: "Humidity is on" }).click();
  await expect(rules.getByText("· off")).toBeVisible();
  await rules.getByRole("link", { name: "What “Humidity” did" }).click();
  await expect(versions.getByText("You switched it off")).toBeVisible();
  await expect(versions.getByText("Did nothing.")).toBeVisible();
});
