import { seriousProblems } from "@tests/support/accessibility";
import { expect, noticesOf, test } from "@tests/support/office-in-browser";

test.use({ office: "put ahead" });

test("a colleague is away: who writes to them is answered each time, with a copy to whoever covers; lists and machines never are", async ({
  running,
  signIn,
}) => {
  const client = { from: "Mirren Aske <mirren@askehall.example>", sender: "mirren@askehall.example" };
  const col = await signIn("Col Whitaker");
  await running.send({ ...client, subject: "A cracked bellows rib", body: "It leaks by the hour." });
  await col.goto("/office/to-sort");
  await col.getByRole("link", { name: /A cracked bellows rib/ }).click();
  await col.getByRole("heading", { name: "A cracked bellows rib" }).waitFor();
  const taken = col.waitForResponse((response) => response.url().includes("/decide") && response.ok());
  await col.keyboard.press("t");
  await taken;

  await col.goto("/office/away");
  const day = (ahead: number) => new Date(Date.now() + ahead * 86_400_000).toISOString().slice(0, 10);
  await col.getByRole("textbox", { name: "First day" }).fill(day(0));
  await col.getByRole("textbox", { name: "Last day" }).fill(day(3));
  await col.getByRole("combobox", { name: "Who covers Ottermoor Organ Works" }).click();
  await col.getByRole("option", { name: "Petra Rask" }).click();
  await col.getByRole("button", { name: "Plan", exact: true }).click();
  await expect(col.getByRole("region", { name: "My time off" })).toContainText("Petra Rask covers");

  const ines = await signIn("Ines Varga", "/office/automatic-answers");
  await ines.getByRole("link", { name: "New automatic answer" }).click();
  const editor = ines.getByRole("main", { name: "New automatic answer" });
  await editor.getByLabel("Name").fill("Col is away");
  await editor.getByRole("combobox", { name: "When" }).click();
  await ines.getByRole("option", { name: "while somebody is away" }).click();
  await editor.getByRole("combobox", { name: "Colleague" }).click();
  await ines.getByRole("option", { name: "Col Whitaker" }).click();
  const text = editor.getByRole("textbox", { name: "Text 1" });
  await text.fill("[colleague] is away until [when]. Please turn to [cover].");
  await editor.getByRole("checkbox", { name: /^Copy to whoever covers/ }).check();
  await editor.getByRole("combobox", { name: "How often" }).click();
  await ines.getByRole("option", { name: "each time they write" }).click();
  await expect(editor.getByRole("status")).toContainText(/of \d+ messages/);
  await editor.getByRole("button", { name: "Save answer" }).click();
  await expect(editor.getByText("[when] is filled by nothing. Use [back], [colleague] or [cover].")).toBeVisible();
  await text.fill("[colleague] is away until [back]. Please turn to [cover].");
  expect(await seriousProblems(ines)).toEqual([]);
  await editor.getByRole("button", { name: "Save answer" }).click();
  const list = ines.getByRole("main", { name: "Automatic answers" });
  await expect(
    list.getByText("while Col Whitaker is away · each time they write · none went in two weeks"),
  ).toBeVisible();

  // What arrives is asked by answers that are at most two seconds old.
  const answered = ines.getByRole("article").filter({ hasText: "Col Whitaker is away until" });
  // One that came too early gets none, and is given the time to: a third answer within the hour would be one too many.
  await expect(async () => {
    await running.send({ ...client, subject: "The rib again", body: "Worse by now." });
    await ines.goto("/office/to-sort");
    await ines
      .getByRole("link", { name: /The rib again/ })
      .first()
      .click();
    await expect(answered.first()).toBeVisible({ timeout: 15_000 });
  }).toPass({ timeout: 90_000 });
  await expect(answered.first()).toContainText("Please turn to Petra Rask.");
  await expect(answered.first()).toContainText("Petra Rask");
  await running.send({ ...client, subject: "And the pallets", body: "They stick." });
  await ines.goto("/office/to-sort");
  await ines.getByRole("link", { name: /And the pallets/ }).click();
  await expect(answered).toHaveCount(1);

  // A list that the client writes through, and the automatic answer of another office.
  await running.send({
    ...client,
    subject: "Rib news of the month",
    headers: { "List-Id": "<ribs.askehall.example>" },
  });
  await running.send({ ...client, subject: "We are closed", headers: { "Auto-Submitted": "auto-replied" } });
  for (const subject of ["Rib news of the month", "We are closed"]) {
    await ines.goto("/office/to-sort");
    await ines.getByRole("link", { name: new RegExp(subject) }).click();
    await ines.getByRole("heading", { name: subject }).waitFor();
    await expect(answered).toHaveCount(0);
  }

  await ines.goto("/office/automatic-answers");
  await list.getByRole("checkbox", { name: "Col is away is on" }).click();
  await expect(noticesOf(ines).getByText("Automatic answer switched off")).toBeVisible();
  await list.getByRole("button", { name: "Remove Col is away" }).click();
  await noticesOf(ines).getByRole("button", { name: "Undo" }).click();
  await expect(list.getByText("Col is away (off)")).toBeVisible();
});

test("two automatic answerers that face each other stop after one; a newsletter gets none", async ({
  running,
  signIn,
}) => {
  const ines = await signIn("Ines Varga", "/office/automatic-answers");
  await ines.getByRole("link", { name: "New automatic answer" }).click();
  const editor = ines.getByRole("main", { name: "New automatic answer" });
  await editor.getByLabel("Name").fill("Thursdays");
  await editor.getByRole("textbox", { name: "Text 1" }).fill("We read letters on Thursdays.");
  await editor.getByRole("combobox", { name: "How often" }).click();
  await ines.getByRole("option", { name: "each time they write" }).click();
  await editor.getByRole("button", { name: "Save answer" }).click();
  await expect(ines.getByRole("main", { name: "Automatic answers" })).toContainText("Thursdays");

  const ours = ines.getByRole("article").filter({ hasText: "We read letters on Thursdays." });
  const open = async (subject: string) => {
    await ines.goto("/office/to-sort");
    await ines.getByRole("link", { name: subject }).first().click();
    await ines.getByRole("heading", { name: subject }).waitFor();
  };
  const isAnswered = (from: string, subject: string) =>
    expect(async () => {
      await running.send({ from, sender: from, subject, body: "When do you read this?" });
      await open(subject);
      await expect(ours.first()).toBeVisible({ timeout: 10_000 });
    }).toPass({ timeout: 90_000 });
  await isAnswered("first@facing.example", "A first letter");

  // Its mail system answers whatever comes, ours too, which says of itself that it is from a machine.
  const gate = "gatehouse@tollmere.example";
  await running.send({ from: gate, sender: gate, subject: "Key of the gallery", body: "When may we fetch it?" });
  await running.send({
    from: "news@facing.example",
    sender: "news@facing.example",
    subject: "News from the foundries",
    headers: { "List-Unsubscribe": "<mailto:leave@facing.example>", Precedence: "bulk" },
  });
  await open("Key of the gallery");
  const theirs = ines.getByRole("article").filter({ hasText: "The gatehouse is closed" });
  await expect(theirs).toHaveCount(1, { timeout: 60_000 });

  await isAnswered("second@facing.example", "A second letter");
  await open("Key of the gallery");
  await expect(ours).toHaveCount(1);
  await expect(theirs).toHaveCount(1);
  await open("News from the foundries");
  await expect(ours).toHaveCount(0);

  await ines.goto("/office/automatic-answers");
  await ines.getByRole("checkbox", { name: "Thursdays is on" }).click();
  await expect(noticesOf(ines).getByText("Automatic answer switched off")).toBeVisible();
});
