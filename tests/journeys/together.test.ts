import { seriousProblems } from "@tests/support/accessibility";
import { expect, noticesOf, type Page, test } from "@tests/support/office-in-browser";

const openFrom = async (page: Page, subject: string) => {
  await page.getByRole("link", { name: subject }).click();
  await expect(page.getByRole("heading", { name: subject })).toBeVisible();
};
const presence = (page: Page) => page.getByRole("status", { name: "Who else is here" });

test("two have one conversation open: they see each other, a note names one, a draft is checked and sent", async ({
  running,
  signIn,
}) => {
  const subject = "Ciphers in the swell";
  const [ines, tobias] = [await signIn("Ines Varga"), await signIn("Tobias Lund")];
  await running.send({ from: "Perpetua Vane <vane@away.example>", subject, body: "It sounds by itself." });
  await openFrom(ines, subject);
  await tobias.goto(ines.url());

  await test.step("each sees that the other looks, and writes", async () => {
    await expect(presence(ines)).toContainText("Tobias Lund is looking at this");
    await expect(presence(tobias)).toContainText("Ines Varga is looking at this");
    await tobias.getByRole("button", { name: /^Answer/ }).click();
    await expect(presence(ines)).toContainText("Tobias Lund is writing an answer");
  });

  await test.step("who sends while the other writes is warned, keeps her text, and may insist", async () => {
    await ines.getByRole("button", { name: /^Answer/ }).click();
    await ines.getByRole("textbox", { name: "Text" }).fill("We come on Tuesday.");
    await ines.getByRole("button", { name: /^Send(?! later)/ }).click();
    await expect(ines.getByRole("alert")).toContainText("Tobias Lund is writing an answer at this moment.");
    await expect(ines.getByRole("button", { name: "Send all the same" })).toBeVisible();
    await expect(ines.getByRole("textbox", { name: "Text" })).toHaveText("We come on Tuesday.");
    await ines.keyboard.press("Escape");
    await tobias.getByRole("button", { name: /^Close/ }).click();
    await expect(presence(ines)).toContainText("Tobias Lund is looking at this");
  });

  await test.step("a note names Tobias, who is told of it wherever he is", async () => {
    await tobias.goto("/office/our-move");
    await ines
      .getByRole("toolbar", { name: "Decide" })
      .getByRole("button", { name: /^Assign/ })
      .waitFor();
    await ines.keyboard.press("n");
    const field = ines.getByRole("textbox", { name: "Note" });
    await field.pressSequentially("@tob");
    await expect(ines.getByRole("option", { name: /Tobias Lund/ })).toBeVisible();
    await ines.keyboard.press("Enter");
    await expect(field).toHaveValue("@Tobias Lund ");
    await field.pressSequentially("please check:\n- the slider\n- the pallet");
    await ines.keyboard.press("Control+Enter");
    const note = ines.getByRole("region", { name: "Note by You" });
    await expect(note.getByRole("listitem")).toHaveText(["the slider", "the pallet"]);
    await expect(tobias.getByRole("link", { name: /Notifications: \d+ unread/ })).toBeVisible();
  });

  await test.step("the note is written anew", async () => {
    await ines.getByRole("button", { name: "Edit" }).click();
    await ines.getByRole("textbox", { name: "Note" }).fill("@Tobias Lund please check the slider only");
    await ines.getByRole("button", { name: /^Save/ }).click();
    await expect(ines.getByRole("region", { name: "Note by You" })).toContainText("edited");
  });

  await test.step("the draft goes to Tobias, comes back with a note, goes again, and he sends it", async () => {
    await ines.getByRole("button", { name: /^Answer/ }).click();
    await ines.getByRole("button", { name: "Hand over to a colleague…" }).click();
    await ines.getByRole("button", { name: "Hand over", exact: true }).click();
    await expect(ines.getByText("Choose who is to check it.")).toBeVisible();
    const give = async (word: string) => {
      await ines.getByRole("combobox", { name: "Who is to check and send it" }).click();
      await ines.getByRole("option", { name: "Tobias Lund" }).click();
      await ines.getByLabel("Internal note").fill(word);
      await ines.getByRole("button", { name: "Hand over", exact: true }).click();
    };
    await give("Is Tuesday right?");
    await expect(ines.getByRole("region", { name: "Draft by You" })).toContainText("for Tobias Lund to check and send");
    await tobias.getByRole("link", { name: /Notifications/ }).click();
    await tobias.getByRole("main", { name: "Notifications" }).getByRole("link", { name: subject }).first().click();
    const draft = tobias.getByRole("region", { name: "Draft by Ines Varga" });
    await expect(draft).toContainText("Is Tuesday right?");
    await draft.getByRole("button", { name: "Return with a note" }).click();
    await draft.getByRole("button", { name: "Return", exact: true }).click();
    await expect(draft.getByText("Say what is to be changed.")).toBeVisible();
    await draft.getByLabel("What is to be changed").fill("Wednesday, please");
    await draft.getByRole("button", { name: "Return", exact: true }).click();
    await expect(ines.getByRole("region", { name: "Draft by You" })).toContainText("Wednesday, please");
    await ines.getByRole("button", { name: "Continue" }).click();
    await ines.getByRole("textbox", { name: "Text" }).fill("We come on Wednesday.");
    await ines.getByRole("button", { name: "Hand over to a colleague…" }).click();
    await give("Now?");
    await tobias.getByRole("button", { name: "Check and send" }).click();
    await expect(tobias.getByRole("textbox", { name: "Text" })).toHaveText("We come on Wednesday.");
    await tobias.getByRole("button", { name: /^Approve and send/ }).click();
    await expect(noticesOf(tobias).getByText(/It goes in/)).toBeVisible();
    await expect(ines.getByRole("article", { name: /^Tobias Lund/ })).toContainText("We come on Wednesday.");
    await expect(ines.getByRole("region", { name: /^Draft by/ })).toHaveCount(0);
  });
});

test("a message that comes while one answers is said beside the draft, and before it goes", async ({
  running,
  signIn,
}) => {
  const subject = "The east window";
  const ines = await signIn("Ines Varga");
  const id = await running.send({ from: "Hester Quill <hester@away.example>", subject, body: "Does light harm it?" });
  await openFrom(ines, subject);
  await ines.getByRole("button", { name: /^Answer/ }).click();
  await ines.getByRole("textbox", { name: "Text" }).fill("Only the morning sun.");
  const more = { subject: `Re: ${subject}`, inReplyTo: id, body: "It is curtained by now." };
  await running.send({ from: "Hester Quill <hester@away.example>", ...more });
  await expect(ines.getByRole("alert")).toContainText("Hester Quill wrote while you were writing.");
  await expect(ines.getByText("It is curtained by now.")).toBeVisible();
  await ines.getByRole("button", { name: /^Send(?! later)/ }).click();
  await expect(ines.getByText(/Read it above, then send yours all the same/)).toBeVisible();
  await ines.getByRole("button", { name: "I have read it" }).click();
  await ines
    .getByRole("button", { name: /^Send(?! later)/ })
    .first()
    .click();
  await expect(noticesOf(ines).getByText(/It goes in/)).toBeVisible();
});

test("what is nobody's is compared and given: by the docket, in turn, with a word, and to who covers", async ({
  running,
  signIn,
}) => {
  const subject = "A stop that sticks";
  const ines = await signIn("Ines Varga");
  await running.send({ from: "Otto Quayle <otto.q@away.example>", subject, body: "The flute." });
  // Where what has an owner stays in the list.
  await ines.goto("/office/open");
  await openFrom(ines, subject);
  const docket = ines.getByRole("complementary", { name: "Docket" });
  const could = docket.getByRole("region", { name: "Suggested owners" });
  await expect(could.getByRole("listitem")).toHaveCount(3);
  await expect(could).not.toContainText("Mattis");
  await could
    .getByRole("button", { name: /^Assign to/ })
    .nth(1)
    .click();
  await expect(could).toHaveCount(0);
  const assigning = async () => {
    await ines
      .getByRole("button", { name: /^Assign/ })
      .first()
      .waitFor();
    await ines.keyboard.press("a");
    await ines.getByPlaceholder("Type a colleague's name").waitFor();
  };
  await assigning();
  await ines.getByLabel("Internal note").fill("You know the flute");
  await ines.getByRole("option", { name: /Mattis Orne/ }).click();
  await expect(ines.getByRole("alert")).toContainText("Col Whitaker covers.");
  await ines.getByRole("button", { name: "Assign to Col Whitaker" }).click();
  await expect(docket).toContainText("Col Whitaker");
  await expect(ines.getByRole("region", { name: "Note by You" })).toContainText("You know the flute");
  await ines.keyboard.press("T");
  await expect(docket.getByRole("img", { name: "no owner" })).toBeVisible();
  await assigning();
  await ines.getByRole("option", { name: /Workshop/ }).click();
  await expect(noticesOf(ines).getByText(`In turn to Workshop: ${subject}`)).toBeVisible();
  await expect(docket.getByRole("img", { name: /^(Tobias|Col|Petra)/ }).first()).toBeVisible();
  await ines.keyboard.press("t");
  await expect(docket.getByRole("img", { name: "Ines Varga" }).first()).toBeVisible();
});

test("one is away and covered, comes back, and is told what happened", async ({ running, signIn }) => {
  const subject = "Lift key for the tower";
  const [sunniva, petra] = [await signIn("Sunniva Dale"), await signIn("Petra Rask")];
  await running.send({ from: "Sexton <sexton@away.example>", subject, body: "It is with the warden." });
  await openFrom(sunniva, subject);
  await sunniva.keyboard.press("t");
  await sunniva.goto("/office/away");
  await sunniva.getByRole("button", { name: "Plan", exact: true }).click();
  await expect(sunniva.getByText("Choose the first day.")).toBeVisible();
  const day = (ahead: number) => new Date(Date.now() + ahead * 86_400_000).toISOString().slice(0, 10);
  const [first, last] = ["First day", "Last day"].map((name) => sunniva.getByRole("textbox", { name }));
  await first?.fill("today");
  await expect(sunniva.getByText(/^\w{3} \d+ \w{3} 20\d\d$/)).toBeVisible();
  await last?.fill("whenever");
  await expect(sunniva.getByText("That is no date I know.", { exact: false })).toBeVisible();
  await last?.fill(day(-3));
  await sunniva.getByRole("button", { name: "Plan", exact: true }).click();
  await expect(sunniva.getByText("It ends before it begins.")).toBeVisible();
  await sunniva.getByRole("button", { name: "Calendar: Last day" }).click();
  await sunniva.getByRole("grid").waitFor();
  await sunniva.keyboard.press("Escape");
  await expect(sunniva.getByRole("grid")).toBeHidden();
  await last?.fill(day(4));
  await sunniva.getByRole("combobox", { name: "Who covers Ottermoor Organ Works" }).click();
  await sunniva.getByRole("option", { name: "Petra Rask" }).click();
  await sunniva.getByRole("button", { name: "Plan", exact: true }).click();
  await expect(sunniva.getByRole("region", { name: "My time off" })).toContainText("Petra Rask covers");

  await petra.goto("/office/our-move");
  await petra.getByRole("main", { name: "Our move" }).waitFor();
  await petra.waitForFunction(() => document.documentElement.dataset.ready === "true");
  await petra.keyboard.press("M");
  await expect(petra.getByRole("button", { name: "Remove filter mine" })).toBeVisible();
  const row = petra.getByRole("listitem").filter({ hasText: subject });
  await expect(row.getByRole("img", { name: "Sunniva Dale, covered by you" }).first()).toBeVisible();
  await openFrom(petra, subject);
  await expect(petra.getByRole("complementary", { name: "Docket" })).toContainText("you cover");
  await petra.getByRole("button", { name: /^Answer/ }).click();
  await petra.getByRole("textbox", { name: "Text" }).fill("Thank you, we ask there.");
  await petra.getByRole("radio", { name: "Settle it" }).click();
  await petra.getByRole("button", { name: /^Send(?! later)/ }).click();
  await expect(noticesOf(petra).getByText(/It goes in/)).toBeVisible();

  await sunniva.getByRole("button", { name: "End it" }).click();
  await sunniva.getByRole("link", { name: "What happened while you were away" }).click();
  const told = sunniva.getByRole("main", { name: "While I was away" });
  await expect(told.getByRole("listitem").filter({ hasText: subject })).toContainText("answered once");
  await told.getByRole("button", { name: "I have read it" }).click();
  await expect(sunniva.getByRole("main", { name: "All that is open" })).toBeVisible();
  await expect(sunniva.getByRole("link", { name: "What happened while you were away" })).toHaveCount(0);
});

test("somebody is invited, comes in, is named where she may not look, owns something, and is shut out", async ({
  browser,
  running,
  signIn,
}) => {
  const ines = await signIn("Ines Varga", "/parts/members");
  await ines.getByRole("button", { name: "Create link" }).click();
  const link = await ines.getByLabel("The link").inputValue();
  const runa = await (await browser.newContext({ baseURL: running.url })).newPage();
  await runa.goto(link);
  await runa.getByRole("button", { name: "Join" }).click();
  await expect(runa.getByText("Choose a password.")).toBeVisible();
  await runa.getByLabel("Your name").fill("Runa Holt");
  await runa.getByLabel("Initials for your stamp").fill("rh");
  await runa.getByLabel("Sign-in name").fill("tobias");
  await runa.getByLabel("Password").fill("a long password");
  await runa.getByRole("button", { name: "Join" }).click();
  await expect(runa.getByText("Somebody signs in by that name; choose another.")).toBeVisible();
  await runa.getByLabel("Sign-in name").fill("runa");
  await runa.getByLabel("Password").fill("a long password");
  await runa.getByRole("button", { name: "Join" }).click();
  await expect(runa.getByRole("main", { name: "To sort" })).toBeVisible();
  await ines.goto(link);
  await expect(ines.getByText("This invitation is not valid.")).toBeVisible();

  await test.step("a note in the office that names her says so before it is posted", async () => {
    await ines.goto("/office/our-move");
    await ines.getByRole("link", { name: "Consignment 2645" }).click();
    await ines
      .getByRole("toolbar", { name: "Decide" })
      .getByRole("button", { name: /^Assign/ })
      .waitFor();
    await ines.keyboard.press("n");
    await ines.getByRole("textbox", { name: "Note" }).fill("@Runa Holt, is it there?");
    await expect(ines.getByText(/Runa Holt cannot look into this tray/)).toBeVisible();
    await ines.keyboard.press("Control+Enter");
    await expect(ines.getByRole("textbox", { name: "Note" })).toHaveValue("@Runa Holt, is it there?");
    await ines.keyboard.press("Escape");
  });

  await test.step("she takes something, and is shut out once it is somebody's", async () => {
    const subject = "Felt in two colours";
    await running.send({ to: "parts@ottermoor.example", subject, body: "Red or green?" });
    await openFrom(runa, subject);
    await runa.keyboard.press("t");
    await expect(runa.getByRole("complementary", { name: "Docket" })).toContainText("you");
    await ines.goto("/parts/members");
    await ines.getByRole("button", { name: "Remove access of Runa Holt" }).click();
    await ines.getByRole("button", { name: "Remove access and hand over" }).click();
    await expect(ines.getByText("Choose who takes over.")).toBeVisible();
    await ines.getByRole("combobox", { name: "Hand over to" }).click();
    await ines.getByRole("option", { name: "Col Whitaker" }).click();
    await ines.getByRole("button", { name: "Remove access and hand over" }).click();
    await expect(noticesOf(ines).getByText("Access removed; 1 conversation handed over")).toBeVisible();
    await expect(ines.getByRole("combobox", { name: "Role of Runa Holt" })).toHaveCount(0);
    await runa.goto("/parts/to-sort");
    await expect(runa.getByRole("button", { name: "Sign in" })).toBeVisible();
    await ines.goto("/parts/overview");
    await expect(ines.getByRole("row", { name: /Col Whitaker/ })).toBeVisible();
  });

  await test.step("she is given access back, and all of it stands in the access log", async () => {
    await ines.goto("/parts/members");
    await ines.getByRole("button", { name: "Restore access of Runa Holt" }).click();
    await expect(noticesOf(ines).getByText("Access restored")).toBeVisible();
    await expect(ines.getByRole("combobox", { name: "Role of Runa Holt" })).toBeVisible();
    await runa.getByRole("textbox", { name: "Name" }).fill("runa");
    await runa.getByRole("textbox", { name: "Password" }).fill("a long password");
    await runa.getByRole("button", { name: "Sign in" }).click();
    await expect(runa.getByRole("main", { name: "To sort" })).toBeVisible();
    await ines.getByRole("navigation", { name: "Settings" }).getByRole("link", { name: "Access log" }).click();
    const entries = ines.getByRole("list", { name: "Entries" }).getByRole("listitem");
    await expect(entries.filter({ hasText: "Ines Varga restored the access of Runa Holt" })).toBeVisible();
    await ines.getByRole("combobox", { name: "Kind" }).click();
    await ines.getByRole("option", { name: "sign-ins and passwords" }).click();
    await expect(entries.filter({ hasText: /Runa Holt signed in.*127\.0\.0\.1/ }).first()).toBeVisible();
    await expect(entries.filter({ hasText: "restored the access of Runa Holt" })).toHaveCount(0);
  });
});

test("one chooses what one is told, and watches a person, with what is wrong beside it", async ({
  running,
  signIn,
}) => {
  const tobias = await signIn("Tobias Lund");
  await tobias.keyboard.press("q");
  await tobias.getByRole("link", { name: "Notification settings" }).click();
  const settings = tobias.getByRole("region", { name: "Notification settings" });
  await settings.getByLabel("Quiet from").fill("25:00");
  await settings.getByRole("button", { name: "Save" }).click();
  await expect(settings.getByText("Write a time as 08:30.")).toBeVisible();
  await settings.getByLabel("Quiet from").fill("18:00");
  await settings.getByLabel("until").fill("07:00");
  await settings.getByRole("button", { name: "Save" }).click();
  await expect(noticesOf(tobias).getByText("Notification settings saved")).toBeVisible();
  await settings.getByLabel("Address or @domain").fill("nobody");
  await settings.getByRole("button", { name: "Watch" }).click();
  await expect(settings.getByText("Write an address, or @ and a domain.")).toBeVisible();
  await settings.getByLabel("Address or @domain").fill("@watched.example");
  await settings.getByRole("button", { name: "Watch" }).click();
  await expect(settings.getByRole("button", { name: "Stop watching @watched.example" })).toBeVisible();
  const subject = "From one who is watched";
  await tobias.keyboard.press("q");
  const told = tobias.getByRole("main", { name: "Notifications" });
  const first = told.getByRole("listitem").filter({ hasText: subject }).first();
  // What is watched is known a moment later where mail comes in.
  await expect(async () => {
    await running.send({ from: "Wilf <wilf@watched.example>", subject, body: "Hello" });
    await expect(first).toContainText("Wilf wrote, whom you watch", { timeout: 5_000 });
  }).toPass();
  await first.getByRole("link", { name: subject }).click();
  await expect(tobias.getByRole("heading", { name: subject })).toBeVisible();
});

test("a message is passed on outside, and who wrote it is told", async ({ running, signIn }) => {
  const subject = "Is the case listed?";
  const col = await signIn("Col Whitaker");
  await running.send({ from: "Dean Rook <dean@away.example>", subject, body: "The adviser asks." });
  await openFrom(col, subject);
  await col.getByRole("button", { name: "More about this conversation" }).click();
  await col.getByRole("menuitem", { name: "Forward…" }).click();
  const form = col.getByRole("form", { name: "Forward" });
  await expect(form.getByRole("textbox", { name: "Text" })).toContainText("The adviser asks.");
  await form.getByRole("button", { name: /^Forward/ }).click();
  await expect(form.getByText("Somebody has to get it: fill in To.")).toBeVisible();
  await form.getByRole("combobox", { name: "To" }).fill("Leocadia Thrane <casework@away.example>");
  await form.getByRole("checkbox", { name: "With the message itself and its files" }).uncheck();
  await form.getByRole("checkbox", { name: "Tell Dean Rook that it was forwarded" }).check();
  await form.getByRole("button", { name: /^Forward/ }).click();
  await expect(noticesOf(col).getByText(/It goes in/)).toBeVisible();
  await expect(col.getByRole("article", { name: /^You/ })).toHaveCount(2);
  await expect(col.getByRole("complementary", { name: "Docket" })).toContainText("Waiting for reply");
});

test("the screens of working together have no serious problem of accessibility, also on a phone", async ({
  signIn,
}) => {
  const ines = await signIn("Ines Varga");
  const pages = [
    ["notifications", "Notifications"],
    ["away", "Hours and time off"],
    ["members", "Members and groups"],
    ["overview", "Overview"],
  ] as const;
  for (const [path, name] of pages) {
    await ines.goto(`/office/${path}`);
    await ines.getByRole("main", { name }).waitFor();
    expect.soft(await seriousProblems(ines), path).toEqual([]);
    await ines.setViewportSize({ width: 390, height: 800 });
    expect.soft(await ines.evaluate(() => document.documentElement.scrollWidth), path).toBeLessThanOrEqual(390);
    await ines.setViewportSize({ width: 1280, height: 800 });
  }
  await ines.goto("/office/our-move");
  await openFrom(ines, "Blower hum in the vestry");
  await ines.getByRole("region", { name: "Draft by Petra Rask" }).waitFor();
  expect(await seriousProblems(ines)).toEqual([]);
  await ines.keyboard.press("a");
  await ines.getByRole("option", { name: /Mattis Orne/ }).waitFor();
  expect(await seriousProblems(ines)).toEqual([]);
});
