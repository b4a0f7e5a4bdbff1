import { seriousProblems } from "@tests/support/accessibility";
import { expect, letPass, noticesOf, type Page, test } from "@tests/support/office-in-browser";

// Whose clock goes ahead has an office of her own.
test.use({ office: "of letters" });

/** Opens the answer to a conversation of a list, and writes it. */
async function writes(page: Page, subject: string, text: string) {
  await page.getByRole("link", { name: subject }).click();
  await page.getByRole("button", { name: /^Answer/ }).click();
  await page.getByRole("textbox", { name: "Text" }).fill(text);
  await expect(page.getByText("Draft saved")).toBeVisible();
}

test("a letter waits for their morning in another zone; an answer comes first, and its writer is asked", async ({
  running,
  signIn,
}) => {
  const petra = await signIn("Petra Rask");
  const kenji = { from: "Kenji Aoyama <kenji@aoyama.example>", sender: "kenji@aoyama.example" };
  // Ahead of us by nine hours.
  const date = new Date(Date.now() + 9 * 3_600_000).toUTCString().replace("GMT", "+0900");
  const id = await running.send({ ...kenji, subject: "Reeds for the regal", date });

  await test.step("the start of their day is offered by the clock of their letter, and chosen", async () => {
    await writes(petra, "Reeds for the regal", "We can send them on Thursday.");
    await petra.getByRole("button", { name: "Send later…" }).click();
    const dialog = petra.getByRole("dialog", { name: "Send later" });
    await expect(dialog.getByRole("button", { name: /^start of Kenji Aoyama’s day \(UTC\+09:00\)/i })).toBeVisible();
    expect(await seriousProblems(petra)).toEqual([]);
    await dialog.getByLabel("When it goes").fill("yesterday");
    await petra.keyboard.press("Enter");
    await expect(dialog).toBeVisible();
    await dialog.getByRole("button", { name: /^start of Kenji Aoyama’s day/i }).click();
    await expect(noticesOf(petra).getByText(/^It goes /)).toBeVisible();
  });

  const letter = petra.getByRole("region", { name: /^To go later/ });
  await test.step("until then the conversation rests, the letter stands in it and in one list by day", async () => {
    await expect(letter).toContainText("We can send them on Thursday.");
    await expect(petra.getByRole("complementary", { name: "Docket" })).toContainText("Resting");
    await petra.reload();
    await expect(letter).toContainText(/^Goes /);
    await expect(petra.getByRole("form", { name: "Answer" })).toBeHidden();
    await petra.goto("/office/going-later");
    const list = petra.getByRole("main", { name: "To go later" });
    await expect(list.getByRole("link", { name: "Re: Reeds for the regal" })).toBeVisible();
    expect(await seriousProblems(petra)).toEqual([]);
  });

  await test.step("an answer holds it and says so; let go, it goes at its time", async () => {
    await running.send({ ...kenji, subject: "Re: Reeds for the regal", inReplyTo: id, date });
    const list = petra.getByRole("main", { name: "To go later" });
    await expect(async () => {
      await petra.reload();
      await expect(list.getByText("Kenji Aoyama wrote before it went. It waits for you.")).toBeVisible({
        timeout: 1_000,
      });
    }).toPass();
    await petra.goto("/office/notifications");
    await expect(petra.getByText("Kenji Aoyama wrote before your letter went: it waits for you")).toBeVisible();
    await petra.goto("/office/going-later");
    await list.getByRole("button", { name: "Let it go then" }).click();
    await expect(noticesOf(petra).getByText("It goes when it was to")).toBeVisible();
    await letPass(petra, "Demo: advance three days");
    await expect(async () => {
      await petra.reload();
      await expect(list.getByRole("region", { name: "Went lately" })).toContainText("Reeds for the regal", {
        timeout: 1_000,
      });
    }).toPass();
    await list.getByRole("link", { name: "Re: Reeds for the regal" }).click();
    await expect(petra.getByRole("article", { name: /^You/ })).toContainText("We can send them on Thursday.");
    await expect(petra.getByRole("complementary", { name: "Docket" })).toContainText("Waiting for reply");
  });
});

test("a letter is called off, written on as a draft, and goes only where nobody has answered", async ({
  running,
  signIn,
}) => {
  const petra = await signIn("Petra Rask");
  const id = await running.send({ subject: "A stop that ciphers" });

  await test.step("taken back at once it is the draft that it was", async () => {
    await writes(petra, "A stop that ciphers", "Did you try the other rank?");
    await petra.getByRole("button", { name: "Send later…" }).click();
    await petra
      .getByRole("dialog")
      .getByRole("button", { name: /in 5 working days/i })
      .click();
    await noticesOf(petra).getByRole("button", { name: "Undo" }).click();
    await expect(petra.getByRole("region", { name: "Your draft" })).toContainText("Did you try the other rank?");
    await expect(petra.getByRole("complementary", { name: "Docket" })).toContainText("To sort");
    await petra.getByRole("region", { name: "Your draft" }).getByRole("button", { name: "Continue" }).click();
    await expect(petra.getByRole("textbox", { name: "Text" })).toHaveText("Did you try the other rank?");
  });

  await test.step("only without an answer: the answer makes it needless", async () => {
    // By key, from within the text.
    await petra.getByRole("textbox", { name: "Text" }).press("Alt+l");
    const dialog = petra.getByRole("dialog", { name: "Send later" });
    await dialog.getByRole("checkbox", { name: "Only if nobody has answered by then" }).check();
    await dialog.getByLabel("When it goes").fill("in 2 working days");
    await expect(async () => {
      await petra.keyboard.press("Enter");
      await expect(dialog).toBeHidden({ timeout: 1_000 });
    }).toPass();
    await expect(petra.getByRole("region", { name: /^To go later/ })).toContainText("only without an answer by then");
    await running.send({ subject: "Re: A stop that ciphers", inReplyTo: id });
    await petra.goto("/office/going-later");
    await expect(async () => {
      await petra.reload();
      await expect(petra.getByText("not needed: they answered")).toBeVisible({ timeout: 1_000 });
    }).toPass();
  });
});

test("on a phone a first message is planned, changed to another time, and changed itself", async ({ page, signIn }) => {
  await page.setViewportSize({ width: 390, height: 780 });
  const sunniva = await signIn("Sunniva Dale", "/office/write");
  const letter = sunniva.getByRole("form", { name: "A new message" });
  await letter.getByRole("combobox", { name: "To" }).fill("Otto Quayle <otto@quayle.example>,");
  await letter.getByLabel("Subject").fill("The bench in the vestry");
  await letter.getByRole("textbox", { name: "Text" }).fill("It is ready.");
  const sendsIn = async (days: RegExp) => {
    await letter.getByRole("button", { name: "Send later…" }).click();
    await sunniva.getByRole("dialog").getByRole("button", { name: days }).click();
  };
  await sendsIn(/in 10 working days/i);
  await expect(letter.getByText("The reply is expected before it would go.")).toBeVisible();
  await letter.getByRole("radio", { name: "no date" }).click();
  await sendsIn(/in 5 working days/i);
  await expect(noticesOf(sunniva).getByText(/^It goes /)).toBeVisible();
  await sunniva.goto("/office/going-later");
  const row = sunniva.getByRole("listitem").filter({ hasText: "The bench in the vestry" });
  await row.getByRole("button", { name: "Another time…" }).click();
  await sunniva
    .getByRole("dialog")
    .getByRole("button", { name: /in 10 working days/i })
    .click();
  await expect(noticesOf(sunniva).getByText("It goes at the new time")).toBeVisible();
  expect(await seriousProblems(sunniva)).toEqual([]);
  await row.getByRole("button", { name: "Change it" }).click();
  await expect(letter.getByRole("textbox", { name: "Text" })).toHaveText("It is ready.");
});

test("a series of three around a day is stopped by an answer in the middle", async ({ running, signIn }) => {
  const petra = await signIn("Petra Rask");
  const id = await running.send({ subject: "The organ fair" });
  await test.step("it is planned before a day, each with its date, and stands in the list", async () => {
    await writes(petra, "The organ fair", "The fair is near: will you come?");
    await petra.getByRole("radio", { name: "no date" }).click();
    await petra.getByRole("button", { name: "Send later…" }).click();
    const dialog = petra.getByRole("dialog", { name: "Send later" });
    await dialog.getByRole("checkbox", { name: /^Several times/ }).check();
    await dialog.getByLabel("Around which day").fill("in 4 working days");
    await expect(async () => {
      await dialog.getByRole("button", { name: "Choose" }).click();
      await expect(dialog.getByRole("checkbox", { name: "a month before" })).toBeDisabled({ timeout: 1_000 });
    }).toPass();
    await dialog.getByRole("checkbox", { name: "the day before" }).uncheck();
    for (const name of ["on the day", "a week after", "a month after"])
      await dialog.getByRole("checkbox", { name }).check();
    expect(await seriousProblems(petra)).toEqual([]);
    await dialog.getByRole("button", { name: "Plan 3 letters" }).click();
    await expect(noticesOf(petra).getByText(/letters go, the first/)).toBeVisible();
    await petra.goto("/office/going-later");
    await expect(petra.getByText(/· 1 of 3 · only without an answer/)).toBeVisible();
  });
  await test.step("the first goes; an answer comes, and the others are not needed", async () => {
    for (let times = 0; times < 3; times += 1) await letPass(petra, "Demo: advance three days");
    await petra.goto("/office/going-later");
    await expect(async () => {
      await petra.reload();
      await expect(petra.getByRole("region", { name: "Went lately" }).getByText(/· 1 of 3/)).toBeVisible({
        timeout: 1_000,
      });
    }).toPass();
    await running.send({ subject: "Re: The organ fair", inReplyTo: id });
    await expect(async () => {
      await petra.reload();
      await expect(petra.getByText("not needed: they answered")).toHaveCount(2, { timeout: 1_000 });
    }).toPass();
  });
});
