import { expect, noticesOf, test } from "@tests/support/office-in-browser";

const mbox = (count: number) =>
  Array.from(
    { length: count },
    (_, at) =>
      `From x Tue Nov 24 08:00:00 2026\nFrom: Old Friend <friend@old.example>\nTo: office@ottermoor.example\nSubject: Long ago ${at}\nMessage-ID: <ago-${at}@old.example>\nDate: Mon, 03 Mar 2025 10:00:00 +0000\n\nWords of long ago.\n\n`,
  ).join("");

test("an answer is taken back in time and is a draft again", async ({ running, signIn }) => {
  const subject = "Too quick an answer";
  const ines = await signIn("Ines Varga");
  await running.send({ from: "Nobody Home <quiet@nowhere.example>", subject });
  await ines.getByRole("link", { name: subject }).click();
  await ines.getByRole("button", { name: /^Answer/ }).click();
  await ines.getByRole("textbox", { name: "Text" }).fill("We come on Tuesday, no, Thursday.");
  await ines.getByRole("button", { name: /^Send(?! later)/ }).click();
  await ines.getByRole("button", { name: "Take back" }).click();
  await expect(noticesOf(ines).getByText("Taken back: it is a draft again.")).toBeVisible();
  await expect(ines.getByRole("textbox", { name: "Text" })).toContainText("We come on Tuesday, no, Thursday.");
  await expect(
    ines.getByRole("complementary", { name: "Docket" }).getByRole("heading", { name: "To sort" }),
  ).toBeVisible();
});

test("a message is split off as a matter of its own, and joined again", async ({ running, signIn }) => {
  const ines = await signIn("Ines Varga");
  const first = await running.send({ subject: "Shutters of the swell", id: "shutters-1@v.example" });
  await running.send({ subject: "By the way, an invoice of March", inReplyTo: first, id: "shutters-2@v.example" });
  await ines.getByRole("link", { name: "Shutters of the swell" }).click();
  const messages = ines.getByRole("article");
  await expect(messages).toHaveCount(2);
  await messages
    .nth(1)
    .getByRole("button", { name: /^More about the message/ })
    .click();
  await ines.getByRole("menuitem", { name: "Split off with its answers" }).click();
  await expect(ines.getByRole("heading", { level: 1, name: "By the way, an invoice of March" })).toBeVisible();
  await expect(messages).toHaveCount(1);

  await ines
    .getByRole("navigation", { name: "Conversations" })
    .getByRole("link", { name: "Shutters of the swell" })
    .click();
  await expect(ines.getByRole("heading", { level: 1, name: "Shutters of the swell" })).toBeVisible();
  await ines.getByRole("button", { name: "More about this conversation" }).click();
  await ines.getByRole("menuitem", { name: /^Merge with another conversation/ }).click();
  await ines.getByPlaceholder(/^Type words of its subject/).fill("invoice of March");
  await ines.getByRole("option", { name: /invoice of March/ }).click();
  await expect(noticesOf(ines).getByText("Merged. Undo is in the journal.")).toBeVisible();
  await expect(messages).toHaveCount(2);
});

test("old mail is imported with progress, and a second time adds nothing", async ({ page, signIn }) => {
  await signIn("Ines Varga");
  await page.getByRole("button", { name: "Signed in as Ines Varga" }).click();
  await page.getByRole("menuitem", { name: "Settings" }).click();
  await page.getByRole("main", { name: "All settings" }).getByRole("link", { name: "Import mail" }).click();
  await page.getByRole("button", { name: "Import", exact: true }).click();
  await expect(page.getByText("Choose a file first.")).toBeVisible();
  const file = { name: "old.mbox", mimeType: "application/mbox", buffer: Buffer.from(mbox(150)) };
  const imports = page.getByRole("list", { name: "Imports" });
  for (const said of ["150 read: 150 new, 0 already here", "150 read: 0 new, 150 already here"]) {
    await page.getByLabel("File").setInputFiles(file);
    await page.getByRole("button", { name: "Import", exact: true }).click();
    await expect(imports.getByRole("listitem").first()).toContainText("Done");
    await expect(imports.getByRole("listitem").first()).toContainText(said);
  }
});

test("attachments are looked at in place and had as a zip; pictures from elsewhere come only when asked for", async ({
  page,
  running,
  signIn,
}) => {
  const asked: string[] = [];
  await page.route("https://pictures.example/**", (route) => {
    asked.push(route.request().url());
    return route.fulfill({ contentType: "image/png", body: Buffer.from("") });
  });
  const subject = "Readings and a letter";
  await signIn("Ines Varga");
  await running.send({
    subject,
    headers: { "MIME-Version": "1.0", "Content-Type": "multipart/mixed; boundary=m" },
    body: [
      "--m\r\nContent-Type: text/html; charset=utf-8\r\n",
      '<p>Look at <a href="https://harm.example/x">www.isterbank.example</a><img src="https://pictures.example/a.png" alt="A picture"></p>',
      "--m\r\nContent-Type: text/plain; name=readings.txt\r\nContent-Disposition: attachment; filename=readings.txt\r\n",
      "41 42 40",
      "--m\r\nContent-Type: application/octet-stream; name=plan.dwg\r\nContent-Disposition: attachment; filename=plan.dwg\r\n",
      "plan",
      "--m--",
    ].join("\r\n"),
  });
  await page.getByRole("link", { name: subject }).click();
  await page.getByRole("button", { name: "View readings.txt" }).click();
  const dialog = page.getByRole("dialog", { name: "readings.txt" });
  await expect(dialog.frameLocator("iframe").getByText("41 42 40")).toBeVisible();
  await page.keyboard.press("Escape");
  const download = page.waitForEvent("download");
  await page.getByRole("link", { name: "All 2 as a zip" }).click();
  expect((await download).suggestedFilename()).toBe("attachments.zip");

  await page.getByRole("button", { name: "Show as text" }).click();
  await expect(page.getByText("Look at www.isterbank.example")).toBeVisible();
  await page.keyboard.press("p");
  const frame = page.frameLocator("iframe");
  await expect(frame.getByText("leads to harm.example")).toBeVisible();
  await expect(frame.getByText("A picture")).toBeVisible();
  expect(asked).toEqual([]);
  await page.getByRole("button", { name: "Show them once" }).click();
  await expect.poll(() => asked).toEqual(["https://pictures.example/a.png"]);
});

test("a word without an end, in a text without one, is opened as any other, and its rest is there when asked for", async ({
  running,
  signIn,
}) => {
  const page = await signIn("Ines Varga");
  const body = `Before it.\n\n${"x".repeat(400_000)}\n\nAfter it.`;
  await running.send({ subject: "One word", from: "Vane <vane@vanehouse.example>", body });
  await page.getByRole("link", { name: "One word" }).click();
  const message = page.getByRole("article", { name: /Vane/ });
  await expect(message.getByText("Before it.")).toBeVisible();
  await expect(message.getByText("After it.")).toBeHidden();
  for (let part = 0; part < 4; part += 1) {
    await expect(message.getByText(/more characters/)).toBeVisible();
    await message.getByRole("button", { name: "Show the rest" }).click();
  }
  await expect(message.getByText("After it.")).toBeVisible();
  await expect(message.getByRole("button", { name: "Show the rest" })).toBeHidden();
});
