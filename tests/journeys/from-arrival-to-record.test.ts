import { expect, noticesOf, test } from "@tests/support/office-in-browser";

test("a message arrives, is assigned, answered, comes back, is filed, settled, found, and the last steps undone", async ({
  running,
  signIn,
}) => {
  const subject = "Tremulant beats unevenly";
  const ines = await signIn("Ines Varga");
  const tobias = await signIn("Tobias Lund");
  await tobias.getByRole("link", { name: /^Our move/ }).click();
  const tobiasList = tobias.getByRole("main", { name: "Our move" });
  await expect(tobiasList).toBeVisible();

  await test.step("it arrives live in To sort", async () => {
    await running.send({
      from: "Perpetua Vane <perpetua.vane@vanehouse.example>",
      subject,
      body: "The tremulant of the practice organ limps.",
    });
    await expect(ines.getByRole("link", { name: subject })).toBeVisible();
  });

  await test.step("assigned to Tobias, whose own browser shows it", async () => {
    await ines.getByRole("link", { name: subject }).click();
    await expect(ines.getByRole("heading", { name: subject })).toBeVisible();
    await ines.keyboard.press("a");
    await ines.getByPlaceholder("Type a colleague's name").fill("tob");
    await ines.keyboard.press("Enter");
    await expect(noticesOf(ines).getByText(`Assigned to Tobias Lund: ${subject}`)).toBeVisible();
    await expect(tobias.getByRole("link", { name: subject })).toBeVisible();
  });

  await test.step("categorised", async () => {
    await tobias.getByRole("link", { name: subject }).click();
    await tobias
      .getByRole("toolbar", { name: "Decide" })
      .getByRole("button", { name: /^Assign/ })
      .waitFor();
    await tobias.keyboard.press("c");
    await tobias.getByPlaceholder("Type a category's name or code").fill("wind");
    await tobias.keyboard.press("Enter");
    await tobias.getByRole("button", { name: "Done" }).click();
    await expect(tobias.getByRole("complementary", { name: "Docket" })).toContainText("Wind and blowers");
  });

  const docket = tobias.getByRole("complementary", { name: "Docket" });

  await test.step("answered, expecting a reply: it waits, with the reason", async () => {
    await tobias.getByRole("button", { name: /^Answer/ }).click();
    await tobias.getByRole("textbox", { name: "Text" }).fill("Would Thursday at ten suit you?");
    await expect(tobias.getByRole("list", { name: "To" })).toHaveText("Perpetua Vane");
    await expect(tobias.getByRole("radio", { name: "Wait for a reply" })).toBeChecked();
    await tobias.getByRole("button", { name: /^Send(?! later)/ }).click();
    await expect(docket).toContainText("Waiting for reply");
    await expect(docket).toContainText("your answer asked for a reply by");
  });

  await test.step("the reply brings it back to Our move, with the same owner", async () => {
    await expect(docket.getByRole("heading", { name: "Our move" })).toBeVisible();
    await expect(docket).toContainText("Perpetua Vane wrote");
    await expect(docket).toContainText("you");
    await expect(tobias.getByText("The key is with my neighbour at number 9.")).toBeVisible();
  });

  await test.step("filed to a record and settled", async () => {
    await tobias.keyboard.press("f");
    await tobias.getByPlaceholder("Type a reference code or a title").fill("vane");
    await tobias.getByRole("option", { name: /C-033/ }).click();
    await expect(noticesOf(tobias).getByText(`Filed to C-033 and settled: ${subject}`)).toBeVisible();
  });

  await test.step("found by search", async () => {
    await tobias.keyboard.press("/");
    await tobias.keyboard.type("tremulant limps");
    await tobias.keyboard.press("Enter");
    await expect(tobias.getByRole("heading", { name: "1 conversation has “tremulant limps”" })).toBeVisible();
    await expect(tobias.getByRole("link", { name: subject })).toBeVisible();
  });

  await test.step("and on the record's page with the messages of both sides", async () => {
    await tobias.getByRole("link", { name: "Records" }).click();
    await tobias.getByRole("link", { name: "Perpetua Vane, practice organ" }).click();
    const filed = tobias.getByRole("article", { name: subject });
    await expect(filed).toContainText("The tremulant of the practice organ limps.");
    await expect(filed).toContainText("Would Thursday at ten suit you?");
    await expect(filed).toContainText("The key is with my neighbour at number 9.");
  });

  await test.step("the last steps are undone, one key each", async () => {
    await tobias.getByRole("article", { name: subject }).getByRole("link", { name: subject }).click();
    await expect(docket.getByRole("heading", { name: "Settled" })).toBeVisible();
    await tobias.keyboard.press("z");
    await expect(noticesOf(tobias).getByText("Undone: filed it to C-033 and settled it.")).toBeVisible();
    await expect(docket).toContainText("not filed");
    await expect(docket.getByRole("heading", { name: "Our move" })).toBeVisible();
    await tobias.keyboard.press("z");
    await expect(noticesOf(tobias).getByText("Undone: added Wind and blowers.")).toBeVisible();
    await ines.keyboard.press("z");
    await expect(noticesOf(ines).getByText("Undone: assigned it to Tobias Lund.")).toBeVisible();
    await expect(docket).toContainText("nobody");
  });
});

test("an automatic reply changes nothing but is shown, then the real one counts", async ({ running, signIn }) => {
  const subject = "Consent for the bell chamber";
  const ines = await signIn("Ines Varga");
  await running.send({ from: "Leocadia Thrane <casework@calder.example>", subject });
  await ines.getByRole("link", { name: subject }).click();
  await ines.getByRole("button", { name: /^Answer/ }).click();
  await ines.getByRole("textbox", { name: "Text" }).fill("The drawings follow.");
  await ines.getByRole("button", { name: /^Send(?! later)/ }).click();
  const docket = ines.getByRole("complementary", { name: "Docket" });
  await expect(ines.getByText("automatic reply", { exact: true })).toBeVisible();
  await expect(docket.getByRole("heading", { name: "Waiting for reply" })).toBeVisible();
  await expect(docket.getByRole("heading", { name: "Our move" })).toBeVisible();
  await expect(ines.getByText("Back at my desk.")).toBeVisible();
});

test("mail that cannot be delivered comes back at once and says so", async ({ running, signIn }) => {
  const subject = "The chapel store again";
  const ines = await signIn("Ines Varga");
  await running.send({ from: "Sexton of Old Wyke <sexton@oldwyke.example>", subject });
  await ines.getByRole("link", { name: subject }).click();
  await ines.getByRole("button", { name: /^Answer/ }).click();
  await ines.getByRole("textbox", { name: "Text" }).fill("Who has the key?");
  await ines.getByRole("button", { name: /^Send(?! later)/ }).click();
  const docket = ines.getByRole("complementary", { name: "Docket" });
  await expect(docket).toContainText("our message could not be delivered to sexton@oldwyke.example");
  await expect(docket.getByRole("heading", { name: "Our move" })).toBeVisible();
  await expect(ines.getByText("could not be delivered", { exact: true })).toBeVisible();

  await test.step("in one step it goes to another address, and a reply is awaited from there", async () => {
    await ines.getByRole("button", { name: "To another address…" }).click();
    const dialog = ines.getByRole("dialog", { name: "Send to another address" });
    await dialog.getByLabel("Address").fill("sexton at old wyke");
    await dialog.getByRole("button", { name: "Send" }).click();
    await expect(dialog.getByText(/not an address/i)).toBeVisible();
    await dialog.getByLabel("Address").fill("sales@ambroseleather.example");
    await dialog.getByRole("button", { name: "Send" }).click();
    await expect(dialog).toBeHidden();
    await expect(ines.getByRole("article", { name: /^You/ })).toHaveCount(2);
    await expect(docket.getByRole("heading", { name: "Waiting for reply" })).toBeVisible();
  });

  await test.step("what was written begins a new message as well", async () => {
    await ines
      .getByRole("button", { name: /^More about the message of You/ })
      .first()
      .click();
    await ines.getByRole("menuitem", { name: "Edit as new" }).click();
    const letter = ines.getByRole("form", { name: "A new message" });
    await expect(letter.getByRole("textbox", { name: "Text" })).toHaveText("Who has the key?");
    await expect(letter.getByRole("list", { name: "To" })).toHaveText("Sexton of Old Wyke");
  });
});
