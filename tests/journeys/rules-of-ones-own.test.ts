import { seriousProblems } from "@tests/support/accessibility";
import { asked } from "@tests/support/asked";
import { expect, test } from "@tests/support/office-in-browser";

test("a member who leads nothing makes a rule of her own, is told by it, and nobody else sees it", async ({
  running,
  signIn,
}) => {
  const petra = await signIn("Petra Rask", "/office/rules");
  await petra.getByRole("main", { name: "Rules" }).getByRole("link", { name: "New rule of your own" }).click();
  const editor = petra.getByRole("main", { name: "New rule" });
  await editor.getByLabel("Name").fill("Celestas");
  await editor.getByRole("button", { name: "Add a condition" }).first().click();
  await petra.getByRole("menuitem", { name: "Words in the subject or text" }).click();
  await editor.getByRole("textbox", { name: "Values" }).fill("celesta");
  await petra.keyboard.press("Enter");
  await editor.getByRole("button", { name: "Add what it does" }).click();
  await expect(petra.getByRole("menuitem")).toHaveText(["tell", "have it followed by", "set a follow-up"]);
  await petra.getByRole("menuitem", { name: "tell" }).click();
  await editor.getByRole("combobox", { name: "Member" }).click();
  await petra.getByRole("option", { name: "Tobias Lund" }).click();
  await editor.getByRole("button", { name: "Save rule" }).click();
  await expect(
    editor.getByText("Your own rule can only tell you, have you follow it, or set you a follow-up."),
  ).toBeVisible();
  await editor.getByRole("combobox", { name: "Member" }).click();
  await petra.getByRole("option", { name: "Petra Rask" }).click();
  await editor.getByRole("button", { name: "Save rule" }).click();
  const own = petra.getByRole("list", { name: "Your own rules" });
  await expect(own.getByText("A message with “celesta” in the subject: tells Petra Rask.")).toBeVisible();
  expect(await seriousProblems(petra)).toEqual([]);
  const ines = await signIn("Ines Varga", "/office/rules");
  await expect(ines.getByText("Trade newsletters", { exact: true })).toBeVisible();
  await expect(ines.getByText("Celestas", { exact: true })).toBeHidden();

  // What arrives is asked by rules that are at most two seconds old.
  await expect(async () => {
    await running.send({ subject: "A celesta out of tune" });
    await petra.goto("/office/notifications");
    await expect(
      petra.getByRole("main", { name: "Notifications" }).getByRole("link", { name: "A celesta out of tune" }).first(),
    ).toBeVisible({ timeout: 5_000 });
  }).toPass({ timeout: 60_000 });
});

test("a rule that files asks for the details that its record needs, and keeps them", async ({ running, signIn }) => {
  const kind = { key: "kind", label: "Kind", kind: "choice", required: true, choices: ["Offer", "Invoice"] };
  const hours = { key: "hours", label: "Hours", kind: "number", required: false, choices: [] };
  const fields = [kind, hours].map((field) => ({ ...field, start: "", remembers: false }));
  const ofType = "id = (select type_id from record where code = 'P-26-012')";
  const [before] = await asked(running.databaseUrl, `select fields from record_type where ${ofType}`);
  const ask = (all: unknown) =>
    asked(running.databaseUrl, `update record_type set fields = $1 where ${ofType}`, [JSON.stringify(all)]);
  await ask(fields);
  const ines = await signIn("Ines Varga", "/office/rules/new");
  const editor = ines.getByRole("main", { name: "New rule" });
  await editor.getByLabel("Name").fill("Sorrel case");
  await editor.getByRole("button", { name: "Add a condition" }).first().click();
  await ines.getByRole("menuitem", { name: "Words in the subject or text" }).click();
  await editor.getByRole("textbox", { name: "Values" }).fill("sorrel");
  await ines.keyboard.press("Enter");
  await editor.getByRole("button", { name: "Add what it does" }).click();
  await ines.getByRole("menuitem", { name: "file it to" }).click();
  await editor.getByRole("textbox", { name: "Code of the record" }).fill("P-26-012");
  await editor.getByRole("button", { name: "Save rule" }).click();
  await expect(editor.getByText("P-26-012 asks for details first.")).toBeVisible();
  await editor.getByRole("button", { name: "Details" }).click();
  const sheet = ines.getByRole("dialog", { name: "Details for P-26-012" });
  await sheet.getByRole("radio", { name: "Invoice" }).check();
  await sheet.getByRole("textbox", { name: /^Hours/ }).fill("3");
  await sheet.getByRole("button", { name: "Save" }).click();
  await expect(sheet).toBeHidden();
  await expect(editor.getByRole("button", { name: "Details: Invoice, 3" })).toBeVisible();
  await editor.getByRole("button", { name: "Save rule" }).click();
  const rules = ines.getByRole("main", { name: "Rules" });
  await expect(rules.getByText("with “sorrel” in the subject: files it to P-26-012 (Invoice, 3).")).toBeVisible();
  await rules.getByRole("button", { name: "Remove Sorrel case" }).click();
  // Others go on in the same office.
  await ask(before?.fields ?? []);
});
