import { seriousProblems } from "@tests/support/accessibility";
import { withFiles } from "@tests/support/mail";
import { expect, noticesOf, type Page, test } from "@tests/support/office-in-browser";

const pick = async (page: Page, text: string) => {
  const picker = page.getByRole("dialog", { name: /to a record|to my arrangement/ });
  await picker.getByPlaceholder("Type a reference code or a title").fill(text);
  // The list becomes shorter as one types, under the pointer as well.
  await expect(picker.getByRole("option").first()).toHaveText(new RegExp(`^${text}`));
  await picker.getByRole("option", { name: new RegExp(`^${text}`) }).click();
};

test("a day's post is filed: by its code with one key, twelve at once, an attachment alone, and with the answer", async ({
  running,
  signIn,
}) => {
  const ines = await signIn("Ines Varga");

  await test.step("what names a record is filed there with one key", async () => {
    await running.send({
      from: "Joiner <joiner@pine.example>",
      subject: "Stop knobs [P-26-027]",
      body: "They are turned.",
    });
    await expect(ines.getByRole("link", { name: "Stop knobs [P-26-027]" })).toBeVisible();
    await ines.keyboard.press("o");
    await expect(ines.getByRole("main").getByRole("heading", { name: "Stop knobs [P-26-027]" })).toBeVisible();
    const proposed = ines
      .getByRole("complementary", { name: "Docket" })
      .getByRole("button", { name: /P-26-027 Veldt/ });
    await expect(proposed).toContainText(/names|code/);
    await ines.keyboard.press((await proposed.getAttribute("aria-keyshortcuts")) ?? "");
    await expect(noticesOf(ines).getByText(/Filed to P-26-027/)).toBeVisible();
  });

  await test.step("twelve at once, with what the record asks for on one sheet", async () => {
    const subjects = Array.from({ length: 12 }, (_, at) => `Claim ${String.fromCharCode(65 + at)}`);
    for (const subject of subjects) await running.send({ from: "Dean <dean@claims.example>", subject });
    await ines.goto("/office/to-sort");
    for (const subject of subjects) {
      await ines.getByRole("link", { name: subject, exact: true }).hover();
      await ines.getByRole("checkbox", { name: new RegExp(subject) }).check();
    }
    await ines.keyboard.press("f");
    await pick(ines, "G-26-01");
    const sheet = ines.getByRole("dialog", { name: "File to G-26-01" });
    await expect(sheet.getByText("the same for all 12", { exact: false })).toBeVisible();
    await expect(sheet.getByLabel("Part of the instrument")).toBeFocused();
    await sheet.getByLabel("Part of the instrument").fill("great bellows");
    await ines.keyboard.press("Enter");
    await expect(noticesOf(ines).getByText(/Filed to G-26-01/)).toBeVisible();
    await ines.goto("/office/records/G-26-01?part=filings");
    await expect(ines.getByRole("row", { name: /great bellows/ })).toHaveCount(12);

    // One of them was wrong: it is put right, taken back, and put right again.
    await ines.getByRole("button", { name: "Change the particulars of Claim C" }).click();
    const change = ines.getByRole("dialog", { name: "Details for G-26-01" });
    await expect(change.getByLabel("Part of the instrument")).toHaveValue("great bellows");
    await change.getByLabel("Part of the instrument").fill("");
    await ines.keyboard.press("Enter");
    await expect(change.getByText("“Part of the instrument” is needed here.")).toBeVisible();
    await change.getByLabel("Part of the instrument").fill("console");
    await ines.keyboard.press("Enter");
    await expect(ines.getByRole("row", { name: /Claim C.*console/ })).toBeVisible();
    await noticesOf(ines).getByRole("button", { name: "Undo" }).last().click();
    await expect(ines.getByRole("row", { name: /great bellows/ })).toHaveCount(12);
  });

  await test.step("an attachment alone", async () => {
    await running.send({ subject: "Two papers", ...withFiles(["offer.txt", "terms.txt"]) });
    await ines.goto("/office/to-sort");
    await ines.getByRole("link", { name: "Two papers", exact: true }).click();
    await ines.getByRole("button", { name: "File offer.txt alone" }).click();
    await pick(ines, "P-26-027");
    await expect(ines.getByRole("list", { name: "Filed alone" })).toContainText("offer.txt alone on P-26-027");
    await expect(ines.getByRole("complementary", { name: "Docket" })).toContainText("not filed");
  });

  await test.step("and the whole with the answer", async () => {
    await ines.getByRole("button", { name: /^Answer/ }).click();
    await ines.getByRole("textbox", { name: "Text" }).fill("Both are here, and the fair copy is attached.");
    const warning = ines.getByText("Nothing is attached, and it says");
    await expect(warning).toBeVisible();
    await ines.getByRole("button", { name: "file it as well…" }).click();
    await pick(ines, "P-26-031");
    await expect(ines.getByText("and file it to P-26-031")).toBeVisible();
    await ines.getByLabel("attach files…").setInputFiles({
      name: "fair copy.txt",
      mimeType: "text/plain",
      buffer: Buffer.from("The fair copy."),
    });
    const attached = ines.getByRole("list", { name: "Attached" });
    await expect(attached.getByText("fair copy.txt")).toBeVisible();
    await expect(warning).toBeHidden();
    // What is written is kept through a reload, and what is attached with it; it opens where it was.
    await ines.reload();
    await expect(attached.getByText("fair copy.txt")).toBeVisible();
    await ines.getByRole("button", { name: "attach from P-26-031…" }).click();
    await expect(ines.getByRole("dialog").getByText("There is no document yet.")).toBeVisible();
    // Esc closes what is on top: the picker, and only then the answer, which is kept.
    await ines.keyboard.press("Escape");
    await expect(ines.getByRole("dialog")).toBeHidden();
    await ines.getByRole("textbox", { name: "Text" }).press("Escape");
    await expect(ines.getByRole("form", { name: "Answer" })).toBeHidden();
    await ines.getByRole("button", { name: /^Answer/ }).click();
    await expect(attached.getByText("fair copy.txt")).toBeVisible();
    await ines.getByRole("radio", { name: "Settle it" }).click();
    await ines.getByRole("button", { name: /^Send(?! later)/ }).click();
    await expect(ines.getByRole("complementary", { name: "Docket" })).toContainText("P-26-031");
    await expect(ines.getByRole("main").getByRole("button", { name: "View fair copy.txt" })).toBeVisible();
    await ines.goto("/office/records/P-26-031?part=documents");
    await expect(ines.getByRole("link", { name: /^Download fair copy.txt/ })).toBeVisible();
    await ines.goto("/office/records/P-26-027");
    await expect(ines.getByRole("region", { name: "Filed alone" })).toContainText("offer.txt");
    await ines.getByRole("link", { name: "Documents" }).click();
    await expect(ines.getByRole("link", { name: /^Download offer.txt/ })).toBeVisible();
    await expect(ines.getByRole("link", { name: /^Download terms.txt/ })).toBeHidden();
  });
});

test("a record whose time is over is looked at, held, and disposed of with a certificate", async ({ signIn }) => {
  const ines = await signIn("Ines Varga", "/office/retention");
  const due = ines.getByRole("region", { name: "Due for review" });
  await expect(due).toContainText("6 months after its closing by its own policy, Small repairs");
  await ines.getByRole("button", { name: "Review disposal of P-25-004" }).click();
  const sheet = ines.getByRole("region", { name: "Disposal of P-25-004" });
  await expect(sheet.getByRole("list", { name: "To be disposed of" }).getByRole("listitem")).toHaveCount(2);

  // Somebody needs it meanwhile: it is held, and does not go.
  const mattis = await ines.context().newPage();
  await mattis.goto("/office/records/P-25-004");
  await mattis.getByRole("button", { name: "Place on hold", exact: true }).click();
  await expect(mattis.getByText("Say why; whoever comes to it later has to know.")).toBeVisible();
  await mattis.getByLabel("Reason for a hold").fill("The wardens ask");
  await mattis.getByRole("button", { name: "Place on hold", exact: true }).click();
  await expect(mattis.getByText("On hold", { exact: false }).first()).toBeVisible();
  await sheet.getByRole("button", { name: "Dispose of it…" }).click();
  await sheet.getByRole("button", { name: "Dispose of P-25-004 permanently" }).click();
  await expect(sheet.getByText("The term of P-25-004 is not over, or something holds it.")).toBeVisible();
  await mattis.getByRole("button", { name: "End the hold: The wardens ask" }).click();
  await expect(mattis.getByRole("button", { name: "End the hold: The wardens ask" })).toBeHidden();

  await sheet.getByRole("button", { name: "Check again" }).click();
  await expect(sheet.getByText("The term of P-25-004 is not over", { exact: false })).toBeHidden();
  await sheet.getByRole("button", { name: "Dispose of P-25-004 permanently" }).click();
  // It goes in the background, with the next step of a server.
  await expect(ines.getByRole("region", { name: "Disposed of" })).toContainText(
    /P-25-004.*2 conversations, 5 messages/s,
    { timeout: 90_000 },
  );
  await mattis.reload();
  await expect(mattis.getByText("There is no record of this code.")).toBeVisible();
});

test("a member arranges her records, and finds them on the shelf and in the picker", async ({ running, signIn }) => {
  const tobias = await signIn("Tobias Lund", "/office/arrangement");
  await tobias.getByRole("button", { name: "New folder" }).click();
  await tobias.getByRole("button", { name: "Name New folder" }).click();
  const itsName = tobias.getByRole("textbox", { name: "Its name" });
  await itsName.fill("This week");
  await tobias.keyboard.press("Enter");
  await expect(itsName).toBeHidden();
  await tobias.getByRole("button", { name: "Add a record to This week" }).click();
  await pick(tobias, "P-26-031");
  await tobias.getByRole("button", { name: "Name Thornwick swell box" }).click();
  await itsName.fill("The box");
  await tobias.keyboard.press("Enter");
  await expect(tobias.getByRole("link", { name: "The box" })).toBeVisible();
  // Each step is kept before the next can be taken.
  await expect(tobias.getByRole("button", { name: "Undo" })).toBeEnabled();
  await tobias.reload();
  await expect(tobias.getByRole("link", { name: "The box" })).toBeVisible();

  // On the shelf it takes what is chosen, or is opened.
  await running.send({ subject: "For the box" });
  await tobias.goto("/office/to-sort");
  await tobias.getByRole("link", { name: "For the box", exact: true }).hover();
  await tobias.getByRole("checkbox", { name: /For the box/ }).check();
  await tobias.keyboard.press("f");
  const filing = tobias.getByRole("dialog", { name: "File to a record" });
  await expect(filing.getByRole("option").first()).toContainText("The box");
  await tobias.keyboard.press("Escape");
  await tobias.getByRole("button", { name: "My records" }).click();
  await tobias.getByRole("menuitem", { name: /The box/ }).click();
  await tobias.getByRole("button", { name: "File, and leave it where it is" }).click();
  await expect(noticesOf(tobias).getByText(/Filed to P-26-031/)).toBeVisible();
  await tobias.getByRole("button", { name: "My records" }).click();
  await tobias.getByRole("menuitem", { name: /The box/ }).click();
  await expect(tobias.getByRole("heading", { name: "Thornwick swell box" })).toBeVisible();
});

test("the screens for keeping records have no serious problem of accessibility, also on a phone", async ({
  signIn,
}) => {
  const ines = await signIn("Ines Varga");
  const check = async (path: string, ready: string) => {
    await ines.goto(path);
    await ines.getByText(ready).first().waitFor();
    for (const width of [390, 1280]) {
      await ines.setViewportSize({ width, height: 800 });
      expect(await seriousProblems(ines), `${path} at ${width}`).toEqual([]);
    }
  };
  await check("/office/retention", "Policies");
  await check("/office/arrangement", "Before the year ends");
  await check("/office/import?as=record", "As a record");
  await check("/office/records/P-26-012?part=documents", "Add a file, or a message as .eml");
  await check("/office/records/P-26-012?part=activity", "Messages by month");
});
