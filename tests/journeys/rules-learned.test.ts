import { seriousProblems } from "@tests/support/accessibility";
import { expect, test } from "@tests/support/office-in-browser";

test("a lead chooses three of a kind, and the rule that they have in common is tried, saved and run over what is there", async ({
  running,
  signIn,
}) => {
  for (let at = 0; at < 5; at += 1)
    await running.send({ from: "watch@bellows.example", subject: `Humidity report ${at}`, body: `All is dry, ${at}.` });
  const ines = await signIn("Ines Varga", "/office/to-sort");
  const reports = ines.getByRole("checkbox", { name: /Select Humidity report/ });
  await expect(reports).toHaveCount(5);
  for (const at of [0, 1, 2]) await ines.getByRole("checkbox", { name: `Select Humidity report ${at}` }).check();
  await ines.getByRole("link", { name: "Make a rule" }).click();
  const editor = ines.getByRole("main", { name: "Rule from 3 conversations" });
  const proposals = editor.getByRole("radiogroup", { name: "What they have in common" });
  await expect(proposals.getByRole("radio").first()).toBeChecked();
  await expect(proposals.getByText("takes 3 of 3 examples").first()).toBeVisible();
  await expect(editor.getByRole("status")).toHaveText(/^5 of all \d+ messages$/);
  expect(await seriousProblems(ines)).toEqual([]);
  await editor.getByLabel("Name").fill("Humidity");
  await editor.getByRole("button", { name: "Add what it does" }).click();
  await ines.getByRole("menuitem", { name: "settle it" }).click();
  await editor.getByRole("button", { name: "Save, and run over what is there" }).click();
  await expect(ines.getByRole("main", { name: "Rules" }).getByText("Humidity", { exact: true })).toBeVisible();
  const run = ines.getByRole("region", { name: "Decisions under way" });
  await expect(run.getByText("Rule “Humidity” over what is there")).toBeVisible();
  await run.getByRole("button", { name: "Undo 5" }).waitFor();
  await ines.goto("/office/settled");
  await expect(reports).toHaveCount(5);
  await run.getByRole("button", { name: "Undo 5" }).click();
  await expect(reports).toHaveCount(0);
  await ines.goto("/office/to-sort");
  await expect(reports).toHaveCount(5);
});
