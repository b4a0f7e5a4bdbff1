import { seriousProblems } from "@tests/support/accessibility";
import { expect, noticesOf, type Page, test } from "@tests/support/office-in-browser";

test("a first message to somebody new is begun, written, filed and sent by keyboard alone, from any page", async ({
  signIn,
}) => {
  const ines = await signIn("Ines Varga", "/office/settled");
  const letter = ines.getByRole("form", { name: "A new message" });
  await ines.keyboard.press("W");
  await expect(letter.getByRole("combobox", { name: "To" })).toBeFocused();
  await ines.keyboard.type("Petra Neumark <petra@neumark.example>");
  await ines.keyboard.press("Tab");
  await ines.keyboard.press("Tab");
  await ines.keyboard.type("A pipe of unknown make");
  await ines.keyboard.press("Tab");
  await expect(letter.getByRole("textbox", { name: "Text" })).toBeFocused();
  await ines.keyboard.type("We found it in the loft. Could you look at it?");
  expect(await seriousProblems(ines)).toEqual([]);

  await test.step("left by Esc, it is found among the drafts", async () => {
    await expect(letter.getByText("Draft saved")).toBeVisible();
    await ines.keyboard.press("Escape");
    await expect(ines.getByRole("main", { name: "Settled" })).toBeVisible();
    await ines.goto("/office/drafts");
    const draft = ines.getByRole("region", { name: "Yours" }).getByRole("listitem").filter({ hasText: "unknown make" });
    await expect(draft).toContainText("to Petra Neumark <petra@neumark.example> · We found it in the loft.");
    expect(await seriousProblems(ines)).toEqual([]);
    await draft.getByRole("link").click();
    await expect(letter.getByLabel("Subject")).toHaveValue("A pipe of unknown make");
    await expect(letter.getByRole("textbox", { name: "Text" })).toContainText("We found it in the loft.");
  });

  await letter.getByRole("textbox", { name: "Text" }).press("Control+Enter");
  await expect(noticesOf(ines).getByText("On its way")).toBeVisible();
  await expect(ines.getByRole("heading", { name: "A pipe of unknown make" })).toBeVisible();
  await ines.goto("/office/waiting");
  await expect(ines.getByRole("link", { name: "A pipe of unknown make" })).toBeVisible();
  await ines.keyboard.press("W");
  await expect(letter.getByRole("combobox", { name: "To" })).toBeFocused();
  await expect(letter.getByRole("list", { name: "To" }).getByRole("listitem")).toHaveCount(0);
});

test("an answer goes on in another browser; where both were written on, both are shown, and one goes on", async ({
  running,
  signIn,
}) => {
  const subject = "Which bellows leak";
  await running.send({ subject, body: "Two of them leak. Which ones do you come for?" });
  const ines = await signIn("Ines Varga");
  await ines.getByRole("link", { name: subject }).click();
  await ines.waitForURL(/to-sort\/./);
  const url = ines.url();
  const text = (page: Page) => page.getByRole("form", { name: "Answer" }).getByRole("textbox", { name: "Text" });
  await ines.keyboard.press("r");
  await text(ines).pressSequentially("We come for the great ones");
  await expect(ines.getByText("Draft saved")).toBeVisible();

  await test.step("a reload opens it where it was", async () => {
    await ines.reload();
    await expect(text(ines)).toHaveText("We come for the great ones");
  });

  const telephone = await signIn("Ines Varga", "/office/to-sort");
  await expect(telephone.getByRole("listitem").filter({ hasText: subject })).toContainText("Draft");
  await telephone.goto(url);
  const draft = telephone.getByRole("region", { name: "Your draft" });
  await test.step("the other browser goes on with it", async () => {
    await expect(draft).toContainText("We come for the great ones");
    await draft.getByRole("button", { name: "Continue" }).click();
    await text(telephone).press("End");
    await text(telephone).pressSequentially(" on Friday");
    await expect(telephone.getByText("Draft saved")).toBeVisible();
  });

  await test.step("what is typed in the first does not write over it", async () => {
    await text(ines).press("End");
    await text(ines).pressSequentially(" next week");
    const both = ines.getByRole("region", { name: "Two versions of this draft" });
    await expect(both.getByRole("region", { name: "On this device" })).toContainText("great ones next week");
    await expect(both.getByRole("region", { name: "Saved from elsewhere" })).toContainText("great ones on Friday");
    expect(await seriousProblems(ines)).toEqual([]);
    await both.getByRole("button", { name: "Continue with the version: Saved from elsewhere" }).click();
    await expect(both).toBeHidden();
    await expect(text(ines)).toHaveText("We come for the great ones on Friday");
  });

  await test.step("it is discarded, brought back, and gone once it is sent", async () => {
    await ines.keyboard.press("Escape");
    const left = ines.getByRole("region", { name: "Your draft" });
    const discarded = ines.waitForResponse(/own-drafts/);
    await left.getByRole("button", { name: "Discard" }).click();
    await expect(left).toBeHidden();
    await discarded;
    await ines.goto("/office/drafts");
    await ines.getByRole("button", { name: `Bring back the draft Re: ${subject}` }).click();
    await ines
      .getByRole("region", { name: "Yours" })
      .getByRole("link", { name: `Re: ${subject}` })
      .click();
    await left.getByRole("button", { name: "Continue" }).click();
    await ines.getByRole("button", { name: /^Send(?! later)/ }).click();
    await expect(text(ines)).toBeHidden();
    await telephone.goto("/office/drafts");
    await expect(telephone.getByText(`Re: ${subject}`)).toBeHidden();
  });
});

test("what is typed while the server is away is kept, and reaches it when it is back", async ({ running, signIn }) => {
  const subject = "Stops that whistle";
  await running.send({ subject, body: "Three of them whistle." });
  const ines = await signIn("Ines Varga");
  await ines.getByRole("link", { name: subject }).click();
  await ines.keyboard.press("r");
  const text = ines.getByRole("form", { name: "Answer" }).getByRole("textbox", { name: "Text" });
  await ines.route("**/own-drafts/*", (route) => route.abort());
  await text.pressSequentially("Which three?");
  await expect(ines.getByText("The server does not answer. What you type is kept on this device.")).toBeVisible();
  await ines.unrouteAll({ behavior: "ignoreErrors" });
  await expect(ines.getByText("Draft saved")).toBeVisible();

  // A page that is left at once sends on its last words.
  const url = ines.url();
  await text.press("End");
  await text.pressSequentially(" And since when?");
  await ines.goto("about:blank");
  const other = await signIn("Ines Varga", url);
  const draft = other.getByRole("region", { name: "Your draft" });
  await expect(async () => {
    await other.reload();
    await expect(draft).toContainText("Which three? And since when?", { timeout: 1_000 });
  }).toPass();
});

test("an address in a letter, and one on any page of the browser, begin a message", async ({ running, signIn }) => {
  const subject = "Whom to ask about bellows";
  await running.send({ subject, body: "Please write to leather.desk@tannery.example about it." });
  const ines = await signIn("Ines Varga");
  await ines.getByRole("link", { name: subject }).click();
  await ines.getByRole("link", { name: "leather.desk@tannery.example" }).click();
  const letter = ines.getByRole("form", { name: "A new message" });
  await expect(letter.getByRole("list", { name: "To" })).toHaveText("leather.desk@tannery.example");
  await ines.goBack();
  await expect(ines.getByRole("heading", { name: subject })).toBeVisible();

  await test.step("a passage that is selected is what one answers to", async () => {
    await ines.getByRole("article").getByText("Please write to").selectText();
    await ines.keyboard.press("r");
    const text = ines.getByRole("form", { name: "Answer" }).getByRole("textbox", { name: "Text" });
    await expect(text.getByRole("blockquote")).toHaveText("Please write to leather.desk@tannery.example about it.");
    await expect(text).toBeFocused();
    await ines.keyboard.type("We did.");
    await expect(text.getByText("We did.", { exact: true })).toBeVisible();
    await expect(text.getByRole("blockquote")).not.toContainText("We did.");
  });

  const asked = "mailto:tannery@tannery.example?subject=Two%20hides&body=In%20white%2C%20please.";
  await ines.goto(`/office/write?${new URLSearchParams({ mailto: asked })}`);
  await expect(letter.getByLabel("Subject")).toHaveValue("Two hides");
  await expect(letter.getByRole("textbox", { name: "Text" })).toHaveText("In white, please.");

  await ines.goto("/office/preferences");
  await ines.getByRole("button", { name: "Begin messages here" }).click();
  await expect(noticesOf(ines).getByText("The browser asks whether it may, unless it does so already")).toBeVisible();
});

test("on a phone a message about a record is begun with its people and filed elsewhere on the way", async ({
  signIn,
}) => {
  const ines = await signIn("Ines Varga", "/office/write?record=P-26-012");
  await ines.setViewportSize({ width: 390, height: 844 });
  const letter = ines.getByRole("form", { name: "A new message" });
  await expect(letter.getByLabel("Subject")).toHaveValue(" [P-26-012]");
  await letter.getByRole("button", { name: "Do not file it to P-26-012" }).click();
  await expect(letter.getByLabel("Subject")).toHaveValue("");
  await letter.getByRole("button", { name: "file it as well…" }).click();
  await ines.getByPlaceholder("Type a reference code or a title").fill("P-26-031");
  await ines.getByRole("option", { name: /Thornwick swell box/ }).click();
  await expect(letter.getByLabel("Subject")).toHaveValue(" [P-26-031]");
  await expect(letter.getByRole("button", { name: "Send and file" })).toBeVisible();
  expect(await seriousProblems(ines)).toEqual([]);
});

test("recipients are completed, pasted and taken out by key; what is worth knowing is said before it goes", async ({
  signIn,
}) => {
  const ines = await signIn("Ines Varga", "/office/write");
  const letter = ines.getByRole("form", { name: "A new message" });
  const [to, list] = [letter.getByRole("combobox", { name: "To" }), letter.getByRole("list", { name: "To" })];
  await test.step("the best for what is typed is taken by Enter, also before it is there", async () => {
    await expect(to).toBeFocused();
    await ines.keyboard.type("leocadia", { delay: 5 });
    await ines.keyboard.press("Enter");
    await expect(list).toHaveText("Leocadia Thrane");
    await ines.keyboard.type("pe");
    // She may have written from elsewhere too by now.
    await expect(letter.getByRole("option", { name: /Perpetua Vane perpetua/ })).toBeVisible();
    await ines.keyboard.press("ArrowDown");
    await ines.keyboard.press("Escape");
    await expect(letter).toBeVisible();
    expect(await seriousProblems(ines)).toEqual([]);
  });
  await test.step("a list is pasted, and the last one is taken out again", async () => {
    await to.fill("");
    await to.fill("Otto Quayle <otto@quayle.example>; casework@calder.exemple, nobody at home,");
    await expect(list.getByRole("listitem")).toHaveText([
      "Leocadia Thrane",
      "Otto Quayle",
      "casework@calder.exemple",
      "nobody at home",
    ]);
    await to.press("Backspace");
    await expect(list.getByRole("listitem")).toHaveCount(3);
  });
  await test.step("an address that looks like a known one is told, and the known one taken instead", async () => {
    const before = letter.getByRole("region", { name: "Before it goes" });
    await expect(before).toContainText("casework@calder.exemple was never written with and looks like");
    expect(await seriousProblems(ines)).toEqual([]);
    await before.getByRole("button", { name: "take that one" }).click();
    await expect(before).toBeHidden();
    await expect(list.getByRole("listitem")).toHaveText(["Leocadia Thrane", "Otto Quayle"]);
  });
  await test.step("who is in Bcc gets it, and is named to us only", async () => {
    await letter.getByRole("button", { name: "add hidden copies (Bcc)" }).click();
    await expect(letter.getByRole("combobox", { name: "Bcc" })).toBeFocused();
    await ines.keyboard.type("sales@ambroseleather.example");
    await letter.getByLabel("Subject").fill("To three at once");
    await letter.getByRole("textbox", { name: "Text" }).fill("We close over the holidays.");
    await letter.getByRole("textbox", { name: "Text" }).press("Control+Enter");
    await expect(noticesOf(ines).getByText("On its way")).toBeVisible();
    await expect(ines.getByRole("article", { name: /^You/ })).toContainText(
      "hidden copy to sales@ambroseleather.example",
    );
    // Ambrose answers what reached him, without having been named in it.
    await expect(ines.getByText("We can hold the heavier grade for you")).toBeVisible({ timeout: 60_000 });
  });
});
