import { chromium } from "@playwright/test";
const base = process.env.BASE ?? "http://localhost:3000";
const [who, ...steps] = process.argv.slice(2);
const size = (process.env.SIZE ?? "1280x800").split("x").map(Number);
const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: "--headless --no-sandbox --disable-gpu --disable-quic --no-first-run --disable-background-networking --disable-component-update --disable-sync".split(" ") });
const page = await browser.newPage({ viewport: { width: size[0], height: size[1] }, colorScheme: process.env.DARK ? "dark" : "light" });
page.on("console", (m) => ["error","warning"].includes(m.type()) && console.log("console:", m.text().slice(0, 400)));
page.on("pageerror", (e) => console.log("pageerror:", e.message.slice(0, 400)));
await page.goto(base + "/sign-in");
if (who !== "-") await page.getByRole("button", { name: new RegExp(who) }).click(), await page.waitForURL(/to-sort/);
for (const s of steps) {
  const i = s.indexOf(":"); const [k, v] = [s.slice(0, i), s.slice(i + 1)];
  if (k === "go") await page.goto(base + v);
  if (k === "key") await page.keyboard.press(v);
  if (k === "type") await page.keyboard.type(v);
  if (k === "click") await page.getByRole("link", { name: new RegExp(v) }).or(page.getByRole("button", { name: new RegExp(v) })).first().click();
  if (k === "wait") await page.waitForTimeout(Number(v));
  if (k === "shot") { await page.waitForLoadState("load"); await page.waitForTimeout(350); await page.screenshot({ path: v }); }
}
await browser.close();
