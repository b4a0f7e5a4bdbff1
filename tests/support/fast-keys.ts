import { setTimeout as pause } from "node:timers/promises";
import type { Page } from "@playwright/test";

/** Presses the keys of a text, one each so many milliseconds, however long the page takes over each of them. */
export async function typeOn(page: Page, text: string, everyMs: number): Promise<void> {
  const keyboard = await page.context().newCDPSession(page);
  const pressed: Promise<unknown>[] = [];
  for (const key of text) {
    const about = { key, text: key, unmodifiedText: key };
    pressed.push(keyboard.send("Input.dispatchKeyEvent", { ...about, type: "keyDown" }));
    pressed.push(keyboard.send("Input.dispatchKeyEvent", { key, type: "keyUp" }));
    await pause(everyMs);
  }
  await Promise.all(pressed);
  await keyboard.detach();
}
