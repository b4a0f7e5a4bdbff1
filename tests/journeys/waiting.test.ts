import { seriousProblems } from "@tests/support/accessibility";
import { expect, noticesOf, test } from "@tests/support/office-in-browser";

test("what is written asks and promises: a reply is awaited by its day, a follow-up is set, and the answer closes it", async ({
  running,
  signIn,
}) => {
  const ines = await signIn("Ines Varga");
  await running.send({
    from: "Perpetua Vane <perpetua.vane@vanehouse.example>",
    subject: "The key of the loft",
    body: "Is the loft dry? We will come back to you next week about the floor.",
  });
  await ines.getByRole("link", { name: "The key of the loft" }).click();
  const docket = ines.getByRole("complementary", { name: "Docket" });
  await expect(docket.getByRole("button", { name: /^Wait for it until/ })).toBeVisible();
  await ines.keyboard.press("r");
  const answer = ines.getByRole("form", { name: "Answer" });
  await answer.getByRole("radio", { name: "Settle it" }).click();
  const says = answer.getByRole("list", { name: "What it says" });
  await answer
    .getByRole("textbox", { name: "Text" })
    .fill("I will send the plan by Friday noon. Could you tell us where the key is?");
  await says.getByRole("button", { name: "Wait for a reply" }).click();
  await expect(answer.getByRole("radio", { name: "Wait for a reply" })).toBeChecked();
  await expect(answer.getByRole("textbox", { name: "Text" })).toBeFocused();
  // None of the days offered is meant.
  await answer.getByRole("button", { name: "another…" }).click();
  await answer.getByRole("textbox", { name: "Date" }).fill("in 3 working days");
  await expect(answer.getByText(/^That is .*17:00/)).toBeVisible();
  await ines.keyboard.press("Enter");
  const by = answer.getByRole("radiogroup", { name: "Reply expected by" });
  await expect(by.getByRole("radio", { name: /17:00$/ })).toBeChecked();
  await says.getByRole("checkbox", { name: /Follow-up for me/ }).check();
  await answer.getByRole("combobox", { name: "From whom" }).click();
  await ines.getByRole("option", { name: "from anybody at vanehouse.example" }).click();
  await answer.getByRole("textbox", { name: "Text" }).focus();
  // From anywhere in the text, which stays as it is.
  await ines.keyboard.press("ArrowLeft");
  await ines.keyboard.press("Control+Enter");
  const sent = ines.getByText("Could you tell us where the key is?").first();
  await expect(sent).toHaveText(/noon\. Could you tell us where the key is\?$/, { useInnerText: true });
  await expect(docket.getByText("anybody at vanehouse.example")).toBeVisible();
  await expect(docket.getByText("I will send the plan by Friday noon.")).toBeVisible();
  // She answers by herself, some seconds later.
  await expect(docket.getByRole("heading", { name: "Our move" })).toBeVisible({ timeout: 30_000 });
  await expect(docket.getByText("answered", { exact: true })).toBeVisible();
  await docket.getByRole("button", { name: "that was no answer yet" }).click();
  await expect(docket.getByRole("heading", { name: "Waiting for reply" })).toBeVisible();
  await docket.getByRole("button", { name: /^Stop waiting for/ }).click();
  await expect(docket.getByText("no longer awaited")).toBeVisible();
  await ines.keyboard.press("v");
  await expect(noticesOf(ines).getByText(/^No answer needed/)).toBeVisible();
});

test("the horizon shows what is late, and reminds of it in working time; a loose end is one no longer", async ({
  signIn,
}) => {
  const tobias = await signIn("Tobias Lund");
  await tobias.getByRole("link", { name: /^Loose ends, \d+/ }).click();
  const ends = tobias.getByRole("main", { name: "Loose ends" });
  const overdue = ends.getByRole("region", { name: "Overdue without a reminder" });
  await overdue.getByRole("listitem").first().waitFor();
  const before = await overdue.getByRole("listitem").count();
  expect(before).toBeGreaterThan(1);
  expect(await seriousProblems(tobias)).toEqual([]);
  await tobias.goto("/office/horizon");
  const horizon = tobias.getByRole("main", { name: "Waiting for reply" });
  await expect(horizon.getByRole("img", { name: /working days? overdue; usually/ }).first()).toBeVisible();
  expect(await seriousProblems(tobias)).toEqual([]);
  const halse = horizon.getByRole("listitem").filter({ hasText: "Declared value, second letter" });
  await halse.getByRole("checkbox").check();
  await horizon.getByRole("button", { name: "Remind…" }).click();
  const dialog = tobias.getByRole("dialog", { name: /^Remind/ });
  await expect(dialog.getByLabel("What they read")).toHaveValue(/may I come back to my message/);
  await dialog.getByRole("combobox", { name: "Language" }).click();
  await tobias.getByRole("option", { name: "German" }).click();
  await expect(dialog.getByLabel("What they read")).toHaveValue(/darf ich an meine Nachricht/);
  await dialog.getByLabel("What they read").fill("");
  await dialog.getByRole("button", { name: "Send the reminder" }).click();
  await expect(dialog.getByText("Write what they are to read.")).toBeVisible();
  await dialog.getByRole("button", { name: "The prepared text again" }).click();
  await dialog.getByLabel(/Again after 3, 7 and 14/).check();
  await dialog.getByRole("button", { name: "Send the reminder" }).click();
  await expect(noticesOf(tobias).getByText("Reminder planned")).toBeVisible();
  await expect(halse.getByText(/^reminder/)).toBeVisible();
  await tobias.goto("/office/loose-ends");
  await expect(overdue.getByRole("listitem")).toHaveCount(before - 1);
  await overdue
    .getByRole("button", { name: /^Not a loose end/ })
    .first()
    .click();
  const why = tobias.getByRole("dialog", { name: "Not a loose end" });
  await why.getByRole("button", { name: "Not a loose end" }).click();
  await expect(why.getByText("Say why, for whoever finds it later.")).toBeVisible();
  await why.getByLabel("Why").fill("they rang");
  await why.getByRole("button", { name: "Not a loose end" }).click();
  await expect(overdue.getByRole("listitem")).toHaveCount(before - 2);
  await noticesOf(tobias).getByRole("button", { name: "Undo" }).first().click();
  await expect(overdue.getByRole("listitem")).toHaveCount(before - 1);
  // In groups by whom we wait for, one call settles them.
  await tobias.goto("/office/horizon?by=person");
  const lane = horizon.getByRole("region", { name: "Otto Quayle" });
  await lane.getByRole("button", { name: "select these" }).click();
  await horizon.getByRole("button", { name: "Stop waiting" }).click();
  await expect(lane).toBeHidden();
});
