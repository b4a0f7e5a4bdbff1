import { inEnglish } from "@tests/support/english";
import { expect, letPass, noticesOf, test } from "@tests/support/office-in-browser";
import { DAY, instant, later } from "~/core/kernel/instant";
import { dayInWords } from "~/core/time/day-words";

const SUBJECT = "Metal for the new rank";
const ZONE = "Europe/London";

test.use({ office: "put ahead" });

test("three suppliers are asked: two answer, one is away, is overdue, is reminded and answers from his telephone", async ({
  running,
  signIn,
}) => {
  const tobias = await signIn("Tobias Lund");
  await running.send({
    from: "Halloran Valves <counter@halloranvalves.example>",
    subject: SUBJECT,
    body: "Your list.",
  });
  await tobias.getByRole("link", { name: SUBJECT }).click();
  const docket = tobias.getByRole("complementary", { name: "Docket" });
  await expect(docket.getByRole("heading", { name: "To sort" })).toBeVisible();
  await tobias.keyboard.press("t");
  await expect(
    noticesOf(tobias)
      .getByText(/Tobias Lund|you/)
      .first(),
  ).toBeVisible();
  await tobias.goto("/office/our-move");
  await tobias.getByRole("link", { name: SUBJECT }).click();
  await expect(docket.getByRole("img", { name: "Tobias Lund" })).toBeVisible();

  await tobias.keyboard.press("r");
  const answer = tobias.getByRole("form", { name: "Answer" });
  const suppliers = "counter@halloranvalves.example, sales@ambroseleather.example, corvin@spelterworks.example";
  await answer.getByRole("button", { name: /^Without / }).click();
  await answer.getByRole("combobox", { name: "To" }).fill(suppliers);
  await answer.getByRole("textbox", { name: "Text" }).fill("What would 200 kilograms cost, rolled to 1.2 mm?");
  await expect(answer.getByRole("list", { name: "To" }).getByRole("listitem")).toHaveCount(3);
  await answer.getByRole("radiogroup", { name: "Reply expected by" }).getByRole("radio").first().click();
  // What the text asks is read while this list is open; whoever finds it shut opens it again.
  const fromWhom = answer.getByRole("combobox", { name: "From whom" });
  const each = tobias.getByRole("option", { name: "from each of them" });
  await expect(async () => {
    // An open list hides everything else.
    if (!(await each.isVisible())) await fromWhom.click({ timeout: 5_000 });
    await each.click({ timeout: 5_000 });
  }).toPass();
  await expect(fromWhom).toHaveText("from each of them");
  await answer.getByRole("button", { name: /^Send(?! later)/ }).click();
  const asked = instant(Date.now());

  // Two of the three answer; the third has a machine say until when he is away.
  await expect(docket.getByText(/2 of 3 have answered, still Corvin Spelter/)).toBeVisible({ timeout: 30_000 });
  const back = inEnglish(dayInWords(later(asked, 4 * DAY), asked, ZONE));
  await expect(docket.getByText(new RegExp(`by ${back}.*moved to when they are back`))).toBeVisible();
  await tobias.goto("/office/horizon");
  const horizon = tobias.getByRole("main", { name: "Waiting for reply" });
  const row = horizon.getByRole("listitem").filter({ hasText: SUBJECT });
  await expect(row.getByText(back)).toBeVisible();

  await letPass(tobias, "Demo: advance three days");
  await expect(row.getByText("tomorrow")).toBeVisible();
  // Whatever day of the week it was: a weekend is not over anything.
  await letPass(tobias, "Demo: advance three days");
  await letPass(tobias, "Demo: advance three days");
  await expect(row.getByText(/over/).first()).toBeVisible();

  await tobias.goto("/office/loose-ends");
  const overdue = tobias.getByRole("region", { name: "Overdue without a reminder" });
  const end = overdue.getByRole("listitem").filter({ hasText: SUBJECT });
  await end.getByRole("button", { name: /^Remind/ }).click();
  const dialog = tobias.getByRole("dialog", { name: /^Remind/ });
  await expect(dialog.getByLabel("What they read")).toHaveValue(/may I come back to my message/);
  await dialog.getByRole("button", { name: "Send the reminder" }).click();
  await expect(end).toBeHidden();
  await tobias.goto("/office/horizon");
  await expect(row).toBeVisible();
  await letPass(tobias, "Demo: advance to the next opening");

  // The reminder goes in working hours; he answers it from another address, which his contact has.
  await expect(row).toBeHidden({ timeout: 30_000 });
  await tobias.goto("/office/our-move");
  await tobias.getByRole("link", { name: new RegExp(SUBJECT) }).click();
  await expect(docket.getByRole("heading", { name: "Our move" })).toBeVisible();
  await expect(docket.getByText("answered", { exact: true })).toBeVisible();
  await expect(docket.getByRole("img", { name: "Tobias Lund" })).toBeVisible();
  await expect(tobias.getByText(/it went under while I was away/).first()).toBeVisible();
});
