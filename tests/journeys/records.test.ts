import { seriousProblems } from "@tests/support/accessibility";
import { expect, noticesOf, test } from "@tests/support/office-in-browser";
import { filesInZip } from "@tests/support/zips";

test("a record is opened, asks for particulars of what is filed, is written about, found, and taken out", async ({
  running,
  signIn,
}) => {
  const ines = await signIn("Ines Varga", "/office/record-types");
  await ines.getByRole("button", { name: "New type" }).click();
  const type = ines.getByRole("form", { name: "New type" });
  await type.getByLabel("Name", { exact: true }).fill("Case");
  await type.getByLabel("Code pattern").fill("C-{nn}");
  await expect(type.getByText("The first of today would be C-01.", { exact: false })).toBeVisible();
  await type.getByRole("button", { name: "Add a field" }).click();
  await type.getByLabel("Name of field 1").fill("Paper");
  await type.getByLabel("needed").check();
  await type.getByRole("button", { name: "Save type" }).click();
  await expect(type.getByText(/“Client” begin with C, too/)).toBeVisible();
  await type.getByLabel("Code pattern").fill("K-{nn}");
  await type.getByRole("button", { name: "Save type" }).click();
  await expect(ines.getByText("K-{nn}, as in K-01")).toBeVisible();

  // Several letters are filed on a new record with one sheet.
  for (const at of [1, 2]) {
    const from = `Bellfounder <casting${at}@bell.example>`;
    await running.send({ from, subject: `Casting ${at}`, body: "The mould is dry." });
  }
  await ines.goto("/office/to-sort");
  await expect(ines.getByRole("link", { name: "Casting 2" })).toBeVisible();
  for (const at of [1, 2]) {
    await ines.getByRole("link", { name: `Casting ${at}` }).hover();
    await ines.getByRole("checkbox", { name: new RegExp(`Casting ${at}`) }).check();
  }
  await ines.keyboard.press("f");
  const picker = ines.getByRole("dialog", { name: "File to a record" });
  await picker.getByPlaceholder("Type a reference code or a title").fill("Bell of Sorrel");
  await picker.getByRole("option", { name: /New case/ }).click();
  const sheet = ines.getByRole("dialog", { name: "File to K-01" });
  await expect(sheet.getByText("the same for both", { exact: false })).toBeVisible();
  await sheet.getByRole("button", { name: /^File/ }).click();
  await expect(sheet.getByText("“Paper” is needed here.")).toBeVisible();
  await sheet.getByLabel("Paper").fill("delivery note");
  await sheet.getByRole("button", { name: /^File/ }).click();
  await expect(noticesOf(ines).getByText(/Filed to K-01/)).toBeVisible();

  await ines.goto("/office/records/K-01");
  await expect(ines.getByRole("region", { name: "Settled" }).getByRole("article")).toHaveCount(2);
  await ines.getByRole("link", { name: "As a table" }).click();
  await expect(ines.getByRole("row", { name: /Casting 1.*delivery note.*Ines Varga.*by hand/ })).toBeVisible();

  // She writes from the record; whoever answers in a thread of his own is proposed for it.
  await ines.getByRole("link", { name: "Write…" }).click();
  const letter = ines.getByRole("form", { name: "A new message" });
  await letter.getByRole("button", { name: "Bellfounder" }).first().click();
  await letter.getByLabel("Subject").fill("When may we hear it? [K-01]");
  await letter.getByRole("textbox", { name: "Text" }).fill("When will it ring?");
  await letter.getByRole("button", { name: /Send and file/ }).click();
  await sheet.getByLabel("Paper").fill("letter");
  await sheet.getByRole("button", { name: /^File/ }).click();
  const docket = ines.getByRole("complementary", { name: "Docket" });
  await expect(docket.getByRole("heading", { name: "Waiting for reply" })).toBeVisible();
  await expect(docket.getByRole("link", { name: /K-01/ })).toBeVisible();
  await running.send({
    from: "Apprentice <boy@elsewhere.example>",
    subject: "The bell [K-01]",
    body: "It rings on Friday.",
  });
  await ines.goto("/office/to-sort");
  await ines.getByRole("link", { name: "The bell [K-01]" }).click();
  await expect(docket.getByText(/K-01 Bell of Sorrel/)).toBeVisible();

  await ines.goto("/office/records/K-01");
  await ines.getByRole("button", { name: "Export as ZIP" }).click();
  const zipExports = ines.getByRole("region", { name: "Exports" });
  await expect(zipExports.getByText("packed", { exact: true })).toBeVisible();
  const [download] = await Promise.all([
    ines.waitForEvent("download"),
    zipExports.getByRole("link", { name: "Download K-01" }).click(),
  ]);
  expect(download.suggestedFilename()).toBe("K-01.zip");
  await zipExports.getByRole("button", { name: "Dismiss" }).click();
  await expect(zipExports).toBeHidden();
  await ines.goto("/office/import?as=record");
  await ines.getByLabel("File").setInputFiles(await download.path());
  await expect(ines.getByRole("radio", { name: /As a record/ })).toBeChecked();
  await ines.getByRole("button", { name: "Import" }).click();
  const imported = ines.getByRole("list", { name: "Imports" }).getByRole("listitem").first();
  await expect(imported).toContainText("3 read: 0 new, 3 already here");
  await expect(imported.getByRole("link", { name: /K-01/ })).toBeVisible();
  const { readFile } = await import("node:fs/promises");
  const files = [...(await filesInZip(await readFile(await download.path()))).keys()];
  expect(files.filter((name) => name.startsWith("messages/"))).toHaveLength(3);
  expect(files).toEqual(expect.arrayContaining(["record.csv", "index.csv"]));
});

test("a record is known to those only whom its list names", async ({ signIn }) => {
  const ines = await signIn("Ines Varga", "/office/records?new");
  const form = ines.getByRole("form", { name: "New record" });
  await form.getByLabel("Title").fill("A quiet matter");
  await form.getByRole("textbox", { name: "Parent" }).fill("X-9");
  await form.getByLabel("only these people").check();
  await form.getByRole("button", { name: "Create record" }).click();
  await expect(form.getByText("There is no record X-9.")).toBeVisible();
  await expect(form.getByLabel("Title")).toHaveValue("A quiet matter");
  await form.getByRole("textbox", { name: "Parent" }).fill("C-008");
  await form.getByRole("button", { name: "Create record" }).click();
  await expect(ines.getByRole("heading", { name: "A quiet matter" })).toBeVisible();
  const card = ines.getByRole("complementary", { name: "What the register says" });
  await expect(card.getByText(/Ines Varga\s+and nobody else/)).toBeVisible();
  const path = new URL(ines.url()).pathname;

  const petra = await signIn("Petra Rask", path);
  await expect(petra.getByText("There is no record of this code.")).toBeVisible();
  await petra.goto("/office/records?text=quiet");
  await expect(petra.getByText("No record has “quiet” in its code or title.")).toBeVisible();

  await card.getByRole("button", { name: "Close record" }).click();
  await expect(card.getByRole("button", { name: "Reopen record" })).toBeVisible();
  await expect(card.getByText(/Ines Varga closed it/)).toBeVisible();
});

test("the screens of records have no serious problem of accessibility, also on a phone", async ({ signIn }) => {
  const ines = await signIn("Ines Varga");
  const check = async (path: string, ready: string) => {
    await ines.goto(path);
    await ines.getByText(ready).first().waitFor();
    expect(await seriousProblems(ines), path).toEqual([]);
  };
  await check("/office/records?new", "Access");
  await check("/office/records/P-26-012?part=filings", "Consent for the case");
  await check("/office/write?record=P-26-012", "in the subject lets an answer find the record");
  await ines.setViewportSize({ width: 390, height: 844 });
  await check("/office/records/P-26-012", "Export");
  await check("/office/record-types", "P-{yy}-{nnn}");
});
