import { seriousProblems } from "@tests/support/accessibility";
import { expect, letPass, noticesOf, test } from "@tests/support/office-in-browser";

// Whose clock goes ahead has an office of her own.
test.use({ office: "put ahead" });

test("mass mail is held for the round at 11, two let in early, an exception comes straight through", async ({
  running,
  signIn,
}) => {
  const ines = await signIn("Ines Varga");
  // Eight in the morning of a working day.
  await letPass(ines, "Demo: advance to the next opening");
  await ines.goto("/office/rounds");
  const rounds = ines.getByRole("main", { name: "Rounds" });
  await rounds.getByRole("button", { name: "New round" }).click();
  const form = rounds.getByRole("form", { name: "New round" });
  await form.getByLabel("Name").fill("Lists");
  await form.getByLabel("Times on working days").fill("noon");
  await form.getByRole("button", { name: "Save" }).click();
  await expect(form.getByText("“noon” is no time of day. Write it as 11:00.")).toBeVisible();
  await form.getByLabel("Times on working days").fill("11:00");
  await form.getByRole("button", { name: "Save" }).click();
  const kept = rounds.getByRole("listitem").filter({ hasText: /^Lists/ });
  await expect(kept).toContainText("Holds nothing; next today 11:00. No rule holds mail for it yet.");

  await ines.goto("/office/rules/new");
  const editor = ines.getByRole("main", { name: "New rule" });
  await editor.getByLabel("Name").fill("All-day list");
  await editor.getByRole("button", { name: "Add a condition" }).first().click();
  await ines.getByRole("menuitem", { name: "From or to somebody" }).click();
  await editor.getByRole("textbox", { name: "Addresses" }).fill("@ping.example");
  await ines.keyboard.press("Enter");
  await editor.getByRole("button", { name: "Add an exception" }).click();
  await editor.getByRole("group", { name: "Except" }).getByRole("textbox", { name: "Values" }).fill("outage");
  await ines.keyboard.press("Enter");
  await editor.getByRole("button", { name: "Add what it does" }).click();
  await ines.getByRole("menuitem", { name: "hold for the round" }).click();
  await editor.getByRole("combobox", { name: "Round" }).click();
  await ines.getByRole("option", { name: "Lists" }).click();
  await expect(editor.getByText("holds it for the round “Lists”.")).toBeVisible();
  await editor.getByRole("button", { name: "Save rule" }).click();
  await expect(ines.getByRole("main", { name: "Rules" }).getByText("All-day list")).toBeVisible();

  const send = (subject: string) => running.send({ from: "Bellows List <list@ping.example>", subject });
  // What arrives is asked by rules that are at most two seconds old.
  await expect(async () => {
    await send("Digest, to begin with");
    await ines.goto("/office/held");
    await expect(ines.getByRole("link", { name: /Digest, to begin with/ }).first()).toBeVisible({ timeout: 1_000 });
  }).toPass({ timeout: 60_000 });
  for (const subject of ["Digest one", "Digest two", "Digest three", "Outage of the list"]) await send(subject);
  const held = ines.getByRole("main", { name: "Held" });
  await expect(held.getByRole("link", { name: /Digest three/ })).toBeVisible();
  await expect(held.getByRole("link", { name: /Outage of the list/ })).toBeHidden();
  expect(await seriousProblems(ines)).toEqual([]);

  // Two of them now: one with its key, one with the button of what is selected.
  await held.getByRole("link", { name: /Digest one/ }).focus();
  await ines.keyboard.press("I");
  await expect(noticesOf(ines).getByText("Let in")).toBeVisible();
  await held.getByRole("checkbox", { name: "Select Digest two" }).click();
  await ines
    .getByRole("toolbar", { name: /Decide about/ })
    .getByRole("button", { name: /Let in/ })
    .click();
  await expect(held.getByRole("link", { name: /Digest two/ })).toBeHidden();

  await ines.goto("/office/to-sort");
  const sorting = ines.getByRole("main", { name: "To sort" });
  for (const subject of ["Digest one", "Digest two", "Outage of the list"])
    await expect(sorting.getByRole("link", { name: new RegExp(subject) })).toBeVisible();
  await expect(sorting.getByRole("link", { name: /Digest three/ })).toBeHidden();
  for (let hours = 0; hours < 3; hours += 1) await letPass(ines, "Demo: advance one hour");
  await expect(sorting.getByRole("link", { name: /Digest three/ })).toBeVisible();
  await expect(ines.getByRole("link", { name: /^Held for rounds/ })).toBeHidden();
  await sorting.getByRole("link", { name: /Digest three/ }).click();
  await expect(ines.getByText(/let in with the round “Lists”/)).toBeVisible();
});
