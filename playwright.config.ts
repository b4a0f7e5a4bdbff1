import { defineConfig } from "@playwright/test";

const CHROMIUM_FLAGS =
  "--headless --no-sandbox --disable-gpu --disable-quic --no-first-run --disable-background-networking --disable-component-update --disable-sync";

export default defineConfig({
  testDir: "tests/journeys",
  fullyParallel: true,
  workers: 2,
  // A machine that others use as well takes three times as long as usual in a bad hour.
  timeout: 240_000,
  expect: { timeout: 30_000 },
  forbidOnly: true,
  reporter: [["line"], ["json"]],
  outputDir: ".tray/journeys",
  globalSetup: "./tests/support/journeys-setup.ts",
  use: {
    viewport: { width: 1280, height: 800 },
    locale: "en-GB",
    timezoneId: "Europe/London",
    // A trace of every step costs a quarter of the time: ask for one with --trace retain-on-failure.
    screenshot: "only-on-failure",
    launchOptions: { executablePath: "/usr/bin/chromium-headless-shell", args: CHROMIUM_FLAGS.split(" ") },
  },
});
