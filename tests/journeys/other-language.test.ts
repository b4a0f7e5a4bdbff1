import { expect, type Page, test } from "@tests/support/office-in-browser";
import "~/texts/en/index";
import type { listTexts } from "~/texts/en/list";
import type { officeTexts } from "~/texts/en/office";
import type { shellTexts } from "~/texts/en/shell";
import { type Say, sayIn } from "~/texts/say";
import { OWN_SETTINGS, pagesFor, TRAY_SETTINGS } from "~/web/screens/shell/tray-pages";

// A language that nobody speaks: every letter of a text of ours has an accent, and it is a third longer.
const ACCENTED = "en-XA";
const MIRRORED = "en-XB";
const say = sayIn(ACCENTED) as Say<typeof shellTexts & typeof listTexts & typeof officeTexts>;

const isWiderThanItsWindow = (page: Page) =>
  page.evaluate(() => document.documentElement.scrollWidth > window.innerWidth + 1);

test.describe("accented and longer", () => {
  test.use({ locale: ACCENTED });

  test("every page of settings speaks it, in its title, index and heading, and fits a window and a phone", async ({
    signIn,
  }) => {
    const ines = await signIn("Ines Varga", "/office/settings");
    await expect(ines.locator("html")).toHaveAttribute("lang", ACCENTED);
    await expect(ines).toHaveTitle(`${say("shell.settings")} · Common Tray`);
    for (const { path, name } of pagesFor([...TRAY_SETTINGS, ...OWN_SETTINGS], true)) {
      await ines
        .getByRole("navigation", { name: say("shell.settings") })
        .getByRole("link", { name: say(name), exact: true })
        .click();
      await expect(ines).toHaveURL(new RegExp(`/office/${path}$`));
      await expect(ines.getByRole("heading", { level: 1 })).toHaveText(/^[^a-zA-Z]+$/);
      expect([path, await isWiderThanItsWindow(ines)]).toEqual([path, false]);
      await ines.setViewportSize({ width: 390, height: 780 });
      expect([path, "on a phone", await isWiderThanItsWindow(ines)]).toEqual([path, "on a phone", false]);
      await ines.setViewportSize({ width: 1280, height: 800 });
    }
  });

  test("what the server answers is said in it as well", async ({ signIn }) => {
    const ines = await signIn("Ines Varga", "/office/tray-settings");
    await ines.getByRole("checkbox").first().waitFor();
    const open = ines.getByRole("checkbox", { checked: true });
    while ((await open.count()) > 0) await open.first().click();
    await ines.getByRole("button", { name: sayIn(ACCENTED)("common.save", {}) }).click();
    await expect(ines.getByText(say("office.thisTrayWouldNeverBe"))).toBeVisible();
  });
});

test.describe("mirrored", () => {
  test.use({ locale: MIRRORED });

  test("the sheet runs from right to left, and its turn lines with it", async ({ signIn }) => {
    const ines = await signIn("Ines Varga", "/office/our-move");
    await expect(ines.locator("html")).toHaveAttribute("dir", "rtl");
    const who = await ines.getByText(say("list.who"), { exact: true }).boundingBox();
    const owner = await ines.getByText(say("list.now"), { exact: true }).boundingBox();
    const earlier = await ines.getByText(say("list.earlier"), { exact: true }).boundingBox();
    expect(who?.x).toBeGreaterThan(owner?.x ?? Number.NaN);
    expect(earlier?.x).toBeGreaterThan(owner?.x ?? Number.NaN);
    expect(await isWiderThanItsWindow(ines)).toBe(false);
    await ines.keyboard.press("j");
    await ines.keyboard.press("Enter");
    await expect(ines.getByRole("toolbar").first()).toBeVisible();
    expect(await isWiderThanItsWindow(ines)).toBe(false);
  });
});

test.describe("a language that the tray does not speak", () => {
  test.use({ locale: "tlh" });

  test("is answered in English", async ({ signIn }) => {
    const ines = await signIn("Ines Varga", "/office/settings");
    await expect(ines.locator("html")).toHaveAttribute("lang", "en");
    await expect(ines.getByRole("heading", { name: "All settings" })).toBeVisible();
  });
});
