import { readFileSync } from "node:fs";
import { seriousProblems } from "@tests/support/accessibility";
import { expect, noticesOf, test } from "@tests/support/office-in-browser";

test("a lead makes a rule, tries it, and it does its work on the next message; the journal says why", async ({
  running,
  signIn,
}) => {
  const ines = await signIn("Ines Varga");
  await ines.keyboard.press(".");
  await ines.getByPlaceholder("What to do, or where to go").fill("rules");
  await ines.getByRole("option", { name: "Rules", exact: true }).click();
  const rules = ines.getByRole("main", { name: "Rules" });
  await rules.getByRole("link", { name: "New rule" }).click();
  const editor = ines.getByRole("main", { name: "New rule" });
  await editor.getByLabel("Name").fill("Bells");
  const add = async (what: string) => {
    await editor.getByRole("button", { name: "Add a condition" }).first().click();
    await ines.getByRole("menuitem", { name: what }).click();
  };
  await add("Words in the subject or text");
  await editor.getByRole("textbox", { name: "Values" }).fill("great bell");
  await ines.keyboard.press("Enter");
  await add("From or to somebody");
  await editor.getByRole("textbox", { name: "Addresses" }).fill("bellfounder");
  await editor.getByRole("button", { name: "Save rule" }).click();
  await expect(editor.getByText("“bellfounder” is neither an address nor an @domain.")).toBeVisible();
  await expect(editor.getByText("great bell", { exact: true })).toBeVisible();
  await editor.getByRole("button", { name: "Remove condition 2" }).click();
  await editor.getByRole("button", { name: "Save rule" }).click();
  await expect(editor.getByText("Add what the rule does.")).toBeVisible();
  await editor.getByRole("button", { name: "Add what it does" }).click();
  await ines.getByRole("menuitem", { name: "change a category" }).click();
  await editor.getByRole("combobox", { name: "has the category" }).click();
  await ines.getByRole("option", { name: "Access" }).click();
  await expect(editor.getByRole("status")).toHaveText(/^\d+ of all \d+ messages$/);
  await expect(editor.getByText("A message with “great bell” in the subject: adds Access.")).toBeVisible();
  expect(await seriousProblems(ines)).toEqual([]);
  await editor.getByRole("button", { name: "Save rule" }).click();
  await expect(rules.getByText("A message with “great bell” in the subject: adds Access.")).toBeVisible();
  // What arrives is asked by rules that are at most two seconds old.
  await expect(async () => {
    await running.send({ subject: "The great bell is cracked" });
    await ines.goto("/office/journal?by=tray");
    await expect(
      ines.getByText("The rule “Bells” added Access (with “great bell” in the subject)").first(),
    ).toBeVisible({
      timeout: 1_000,
    });
  }).toPass({ timeout: 60_000 });
  // Why it was for that message, and why the others were not, stands behind the message itself.
  await ines.getByRole("link", { name: "The great bell is cracked" }).first().click();
  await ines
    .getByRole("button", { name: /^More about the message of/ })
    .first()
    .click();
  await ines.getByRole("menuitem", { name: "Rules: why, why not" }).click();
  const why = ines.getByRole("main", { name: "Why, why not" });
  await expect(why.getByRole("listitem", { name: "Bells", exact: true })).toContainText("is for it");
  await expect(why.getByRole("listitem", { name: "Trade newsletters" })).toContainText("is not for it");
  for (const word of ["great", "bell"])
    await expect(why.getByRole("article").getByText(word, { exact: true })).toBeVisible();
  expect(await seriousProblems(ines)).toEqual([]);
  await why.getByRole("link", { name: "To the conversation" }).click();
  await expect(ines.getByRole("heading", { name: "The great bell is cracked" })).toBeVisible();
  await ines.goto("/office/rules");
  await rules.getByRole("button", { name: "Remove Bells" }).click();
  await expect(rules.getByText("Bells", { exact: true })).toBeHidden();
  await noticesOf(ines).getByRole("button", { name: "Undo" }).click();
  await expect(rules.getByText("Bells", { exact: true })).toBeVisible();
  await rules.getByRole("checkbox", { name: "Bells is on" }).click();
  await expect(rules.getByText("· off")).toBeVisible();
});

test("a script of a mail server becomes rules, switched off, and rules become a script again", async ({ signIn }) => {
  const ines = await signIn("Ines Varga", "/office/rules");
  const rules = ines.getByRole("main", { name: "Rules" });
  await rules.getByRole("link", { name: "Bring in a script" }).click();
  const form = ines.getByRole("main", { name: "Bring in a script" });
  const script = form.getByRole("textbox", { name: "Or its lines" });
  await script.fill('require "fileinto";\n# Zither letters\nif header :contains "subject" "zither { keep; }');
  await form.getByRole("button", { name: "Preview" }).click();
  await expect(form.getByText("Line 3, column 31: The text has no end.")).toBeVisible();
  await script.fill(
    'require "fileinto";\n# Zither letters\nif header :contains "subject" "zither" { fileinto "Access"; reject "No."; }',
  );
  await form.getByRole("button", { name: "Preview" }).click();
  await expect(form.getByRole("listitem").filter({ hasText: "Zither letters" })).toContainText("will be created");
  await expect(form.getByText("Nothing that rules do is “reject”.")).toBeVisible();
  expect(await seriousProblems(ines)).toEqual([]);
  await form.getByRole("button", { name: "Take 1 rule in" }).click();
  await expect(form.getByRole("listitem").filter({ hasText: "Zither letters" })).toContainText("created");
  await form.getByRole("link", { name: "Rules" }).click();
  await expect(rules.getByRole("checkbox", { name: "Zither letters is on" })).not.toBeChecked();
  const [saved] = await Promise.all([
    ines.waitForEvent("download"),
    rules.getByRole("link", { name: "Save as a script" }).click(),
  ]);
  expect(saved.suggestedFilename()).toBe("office-rules.sieve");
  expect(readFileSync(await saved.path(), "utf8")).toContain(
    '# Zither letters\nif allof (false, header :contains "subject" "zither") {\n  fileinto :create "Access";\n}\n',
  );
});

test("a contact is kept with all her addresses, and found by any of them", async ({ signIn }) => {
  const tobias = await signIn("Tobias Lund", "/office/contacts");
  const contacts = tobias.getByRole("main", { name: "Contacts" });
  await contacts.getByRole("button", { name: "New contact" }).click();
  const form = tobias.getByRole("form", { name: "New contact" });
  await form.getByLabel("Name").fill("Wilf Pargeter");
  await form.getByLabel("Addresses").fill("verger@stalder.example, otto@quayle.example");
  await form.getByRole("button", { name: "Save contact" }).click();
  await expect(form.getByText("otto@quayle.example is Otto Quayle’s already.")).toBeVisible();
  await form.getByLabel("Addresses").fill("verger@stalder.example, wilf@pargeter.example");
  await form.getByRole("button", { name: "Save contact" }).click();
  await expect(noticesOf(tobias).getByText("Wilf Pargeter saved")).toBeVisible();
  await contacts.getByRole("searchbox", { name: "Find a contact" }).fill("wilf@");
  await expect(contacts.getByRole("listitem")).toHaveCount(1);
  expect(await seriousProblems(tobias)).toEqual([]);
  await contacts.getByRole("button", { name: "Remove Wilf Pargeter" }).click();
  await expect(contacts.getByText("No contacts match.")).toBeVisible();
  await noticesOf(tobias).getByRole("button", { name: "Undo" }).click();
  await expect(contacts.getByRole("listitem")).toHaveText(/Wilf Pargeter/);
});
