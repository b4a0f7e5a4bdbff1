import { DAY } from "../../../core/kernel/instant";
import { ageInWords } from "../../../core/time/age-in-words";
import type { Desk } from "../../../operations/index.server";
import type { Reading } from "../base/row-view.server";
import { speak } from "../base/say.server";

const OLD_AFTER = 5 * DAY;

/** The desks of a tray, with what is to do in one figure and the oldest of it in words. */
export function overviewView(desks: readonly Desk[], { now }: Reading) {
  return desks.map(({ toSort, ourMove, oldestSince, ...desk }) => ({
    ...desk,
    todo: toSort + ourMove,
    oldest: oldestSince === null ? "" : speak(ageInWords(now - oldestSince)),
    isOld: oldestSince !== null && now - oldestSince > OLD_AFTER,
  }));
}

export type DeskView = ReturnType<typeof overviewView>[number];
