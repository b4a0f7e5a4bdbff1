import { seriousProblems } from "@tests/support/accessibility";
import { expect, noticesOf, type Page, test } from "@tests/support/office-in-browser";

const textOf = (page: Page) => page.getByRole("textbox", { name: "Text", exact: true });

/** Puts a blank where the cursor is, and the cursor behind it. */
async function putsIn(page: Page, blank: string): Promise<void> {
  await page.getByRole("button", { name: "Insert a blank" }).click();
  await page.getByRole("menuitem", { name: blank, exact: true }).click();
  await expect(page.getByRole("group", { name: "The blank" })).toBeVisible();
  await page.keyboard.press("ArrowRight");
}

test("a template with five blanks is written; two fill themselves, sending is refused and leads to the third", async ({
  running,
  signIn,
}) => {
  const subject = "The key of the gallery";
  await running.send({ from: "Mirren Aske <mirren@askehall.example>", subject, body: "When do you bring it back?" });
  const ines = await signIn("Ines Varga", "/office/templates");
  await test.step("it is written, refused where something is missing, and kept", async () => {
    await ines.getByRole("link", { name: "New template" }).click();
    await ines.getByLabel("Name").fill("Key comes back");
    await ines.getByLabel("Key (optional)").fill("visit");
    await textOf(ines).click();
    await putsIn(ines, "greeting");
    await ines.keyboard.type(", it comes by ");
    await putsIn(ines, "what?");
    await ines.keyboard.type(" in ");
    await putsIn(ines, "how many?");
    await ines.keyboard.type(" days, to ");
    await putsIn(ines, "which one?");
    await ines.keyboard.press("ArrowLeft");
    const blank = ines.getByRole("group", { name: "The blank" });
    await blank.getByLabel("What belongs there").fill("which door?");
    await blank.getByLabel("Choices, with | between them").fill("the vestry | the porter");
    await textOf(ines).press("Control+End");
    await ines.keyboard.type(". ");
    await putsIn(ines, "your name");
    await ines.getByRole("checkbox", { name: "Wait for a reply" }).check();
    await ines.getByRole("checkbox", { name: "Tuning", exact: true }).check();
    expect(await seriousProblems(ines)).toEqual([]);
    await ines.getByRole("button", { name: "Save template" }).click();
    await expect(ines.getByText("That is the key of “Appointment on site”.")).toBeVisible();
    await ines.getByLabel("Key (optional)").fill("key");
    await ines.getByRole("button", { name: "Save template" }).click();
    await expect(noticesOf(ines).getByText("Template saved")).toBeVisible();
    await expect(ines.getByRole("listitem").filter({ hasText: "Key comes back" })).toContainText("5 blanks · not used");
  });

  const answer = ines.getByRole("form", { name: "Answer" });
  const blank = (label: string) => answer.getByRole("group", { name: label });
  await test.step("what is known stands there; the rest is filled from the keyboard", async () => {
    await ines.goto("/office/to-sort");
    await ines.getByRole("link", { name: subject }).click();
    await ines.getByRole("heading", { name: subject }).waitFor();
    await ines.keyboard.press("r");
    await expect(textOf(ines)).toBeFocused();
    await ines.keyboard.press("Alt+t");
    await ines.getByPlaceholder("Type a key or a part of the name").fill("key");
    await ines.keyboard.press("Enter");
    await expect(textOf(ines)).toHaveText(
      "Dear Mirren Aske, it comes by what? in how many? days, to which door?. Ines Varga",
    );
    await expect(blank("what?")).toBeVisible();
    // Nothing is half under the foot of the form.
    await answer.getByRole("combobox", { name: "Expires" }).evaluate((field) => field.scrollIntoView({ block: "end" }));
    expect(await seriousProblems(ines)).toEqual([]);
    await ines.keyboard.type("the van");
    await ines.keyboard.press("Tab");
    await expect(blank("how many?")).toContainText("2 blanks are left.");
    // No number, and not taken for one.
    await ines.keyboard.type("x3");
    await ines.keyboard.press("Control+Enter");
    await expect(answer.getByText("“which door?” is not filled yet.")).toBeVisible();
    await expect(blank("which door?")).toContainText("1 blank is left.");
    await ines.keyboard.press("2");
    await expect(textOf(ines)).toHaveText("Dear Mirren Aske, it comes by the van in 3 days, to the porter. Ines Varga");
  });

  await test.step("a reload keeps it, and it goes with its habits", async () => {
    await expect(ines.getByText("Draft saved")).toBeVisible();
    await ines.reload();
    await expect(textOf(ines)).toContainText("to the porter.");
    await expect(answer.getByText("Adds the category")).toBeVisible();
    await textOf(ines).press("Control+Enter");
    await expect(ines.getByRole("article").filter({ hasText: "to the porter." })).toBeVisible();
    await ines.goto("/office/waiting");
    await expect(ines.getByRole("listitem").filter({ hasText: subject })).toContainText("TU");
    await ines.goto("/office/templates");
    const listed = ines.getByRole("listitem").filter({ hasText: "Key comes back" });
    await expect(listed).toContainText("used once, last today, by Ines Varga");
    await listed.getByRole("button", { name: "Remove Key comes back" }).click();
    await expect(listed).toBeHidden();
    await noticesOf(ines).getByRole("button", { name: "Undo" }).click();
    await expect(listed).toBeVisible();
  });
});

test("on a phone an answer begins with a template; a passage is taken in, a day is chosen", async ({
  running,
  signIn,
}) => {
  const subject = "The swell on the left sticks";
  await running.send({ from: "Perpetua Vane <perpetua.vane@vanehouse.example>", subject, body: "When do you come?" });
  const ines = await signIn("Ines Varga");
  await ines.setViewportSize({ width: 390, height: 844 });
  await ines.getByRole("link", { name: subject }).click();
  await ines.getByRole("button", { name: /^Answer/ }).click();
  const answer = ines.getByRole("form", { name: "Answer" });
  await answer.getByRole("button", { name: /^Template/ }).click();
  await ines.getByRole("option", { name: /Appointment on site/ }).click();
  await expect(textOf(ines)).toContainText("Dear Perpetua Vane,");
  await answer.getByRole("group", { name: "which day?" }).getByRole("button").first().click();
  await expect(answer.getByText("3 blanks are left.")).toBeVisible();
  await answer.getByRole("button", { name: "Take it in" }).click();
  await expect(answer.getByRole("button", { name: "Take it in" })).toBeHidden();
  await expect(textOf(ines)).toContainText("please tell the sacristan.");
  expect(await seriousProblems(ines)).toEqual([]);
});
