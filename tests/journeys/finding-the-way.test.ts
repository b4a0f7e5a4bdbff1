import { writeFileSync } from "node:fs";
import { expect, type Page, test } from "@tests/support/office-in-browser";
import "~/texts/en/index";
import type { shellTexts } from "~/texts/en/shell";
import { type Say, sayIn } from "~/texts/say";
import { DAY_PAGES, OWN_SETTINGS, type SaidPage, saidPages, TRAY_SETTINGS } from "~/web/screens/shell/tray-pages";

const say = sayIn("en") as Say<typeof shellTexts>;
const dayPages = saidPages(say, DAY_PAGES);
const settings = saidPages(say, [...TRAY_SETTINGS, ...OWN_SETTINGS]);

// Each is another way of saying what has a name of its own.
const OTHER_NAMES =
  /What I am told|Keys and habits|Shut out|choose all \d|Pass it on to somebody|Join another conversation|Take it out|Pack it as a zip|How long they are kept|Known to|Give it \(|It is none|Its day is over|No line to the server|Let three days pass|matters for good|Look in Bin and Junk/;
const SOMEBODY_S_SEX = /\b(?:she|he|hers|herself|himself)\b/i;

/** What can be read on a page, line by line: texts, names of controls, hints. */
const textsOf = (page: Page) =>
  page.evaluate(() => {
    const named = [...document.querySelectorAll("[aria-label], [title], [placeholder]")].flatMap((element) =>
      ["aria-label", "title", "placeholder"].map((name) => element.getAttribute(name) ?? ""),
    );
    // biome-ignore lint/performance/useDomNodeTextContent: only what can be seen, line by line
    return [...new Set([...document.body.innerText.split("\n"), ...named].map((text) => text.trim()))].filter(Boolean);
  });

async function isThere(page: Page, { path, name }: SaidPage) {
  await expect(page).toHaveURL(new RegExp(`/office/${path}(?:\\?|$)`));
  // A list names itself for who does not see the flow bar.
  await expect(page.getByRole("heading", { level: 1 }).or(page.getByRole("main", { name })).first()).toBeAttached();
}

test("every page is found from the keyboard by its name, and by mouse where one looks for it", async ({ signIn }) => {
  const ines = await signIn("Ines Varga");
  // Each text once, with where it was read first.
  const seen = new Map<string, string>();
  const note = async (path: string) => {
    for (const text of await textsOf(ines)) seen.set(text, seen.get(text) ?? path);
  };
  for (const page of dayPages) {
    await ines.getByRole("button", { name: "Go to" }).click();
    await ines.getByRole("menuitem", { name: page.name }).filter({ hasText: page.about }).click();
    await isThere(ines, page);
    await note(page.path);
  }
  await ines.getByRole("button", { name: "Signed in as Ines Varga" }).click();
  await ines.getByRole("menuitem", { name: "Settings" }).click();
  await expect(ines.getByRole("heading", { name: "All settings" })).toBeVisible();
  await note("settings");
  const index = ines.getByRole("navigation", { name: "Settings" });
  for (const page of settings) {
    await index.getByRole("link", { name: page.name, exact: true }).click();
    await isThere(ines, page);
    await expect(index.getByRole("link", { name: page.name, exact: true })).toHaveAttribute("aria-current", "page");
    await note(page.path);
  }
  for (const page of [...dayPages, ...settings]) {
    await ines.keyboard.press(".");
    await ines.getByPlaceholder("What to do, or where to go").fill(`${page.name} ${page.also[0]}`);
    await expect(ines.getByRole("option").first()).toHaveText(page.name);
    await ines.keyboard.press("Enter");
    await isThere(ines, page);
  }
  // For whoever reviews the words.
  writeFileSync(".tray/visible-texts.tsv", [...seen].map(([text, path]) => `${path}\t${text}\n`).join(""));
  expect([...seen.keys()].filter((text) => OTHER_NAMES.test(text))).toEqual([]);
  expect([...seen.keys()].filter((text) => SOMEBODY_S_SEX.test(text))).toEqual([]);
});

test("a setting is found by what people call it, also on a phone", async ({ signIn }) => {
  const ines = await signIn("Ines Varga", "/office/settings");
  await ines.getByRole("searchbox", { name: "Find a setting" }).fill("vacation");
  await expect(
    ines.getByRole("navigation", { name: "Settings" }).getByRole("link", { name: /Hours and time off/ }),
  ).toBeVisible();
  await ines.keyboard.press("Enter");
  await expect(ines.getByRole("main", { name: "Hours and time off" })).toBeVisible();
  await ines.setViewportSize({ width: 390, height: 780 });
  await ines.getByRole("link", { name: "Settings", exact: true }).click();
  const page = ines.getByRole("main", { name: "All settings" });
  await page.getByRole("searchbox", { name: "Find a setting" }).fill("spam senders of nobody");
  await expect(page.getByText("No setting matches.")).toBeVisible();
  await page.getByRole("searchbox", { name: "Find a setting" }).fill("spam");
  await page.getByRole("link", { name: /^Bin, junk and settling/ }).click();
  await expect(ines.getByRole("main", { name: "Bin, junk and settling" })).toBeVisible();
});
