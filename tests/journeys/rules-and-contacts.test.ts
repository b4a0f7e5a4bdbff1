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
  await rules.getByRole("button", { name: "New rule" }).click();
  const form = ines.getByRole("form", { name: "New rule" });
  await form.getByLabel("Name").fill("Bells");
  await form.getByRole("textbox", { name: "Words in the subject" }).fill("great bell");
  await form.getByRole("textbox", { name: "From" }).fill("bellfounder");
  await form.getByRole("button", { name: "Save rule" }).click();
  await expect(form.getByText("“bellfounder” is neither an address nor an @domain.")).toBeVisible();
  await expect(form.getByRole("textbox", { name: "Words in the subject" })).toHaveValue("great bell");
  await form.getByRole("textbox", { name: "From" }).fill("");
  await form.getByRole("button", { name: "Save rule" }).click();
  await expect(form.getByText("Say what it does.")).toBeVisible();
  await form.getByLabel("Add categories: find a category").fill("access");
  await form.getByRole("checkbox", { name: "Access" }).check();
  await form.getByRole("button", { name: "Test" }).click();
  await expect(form.getByRole("status")).toHaveText(/^\d+ of the newest \d+ messages$/);
  expect(await seriousProblems(ines)).toEqual([]);
  await form.getByRole("button", { name: "Save rule" }).click();
  await expect(rules.getByText("A message with “great bell” in the subject: adds Access.")).toBeVisible();
  // What arrives is asked by rules that are at most two seconds old.
  await expect(async () => {
    await running.send({ subject: "The great bell is cracked" });
    await ines.goto("/office/journal?by=tray");
    await expect(ines.getByText("The rule “Bells” added Access (“great bell” in the subject)").first()).toBeVisible({
      timeout: 1_000,
    });
  }).toPass({ timeout: 60_000 });
  await ines.goto("/office/rules");
  await rules.getByRole("button", { name: "Remove Bells" }).click();
  await expect(rules.getByText("Bells", { exact: true })).toBeHidden();
  await noticesOf(ines).getByRole("button", { name: "Undo" }).click();
  await expect(rules.getByText("Bells", { exact: true })).toBeVisible();
  await rules.getByRole("checkbox", { name: "Bells is on" }).click();
  await expect(rules.getByText("· off")).toBeVisible();
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
