import type { Undone } from "../../../operations/index.server";
import type { UndoOutcome } from "../../screens/deciding/decision-outcome";
import { speak } from "../base/say.server";

/** What undoing came to, or doing again, in words: also what was left, as somebody decided anew since. */
export function undoneInWords(done: "undone" | "redone", { count, what, left }: Undone): UndoOutcome {
  const kept = left.length === 0 ? "" : speak("deciding.leftAsItIsSince", { left: { all: left, by: "comma" } });
  return count === 0
    ? { ok: false, problem: speak("deciding.nothingWas", { done, kept }) }
    : { ok: true, message: speak("deciding.wasDone", { done, what, kept }) };
}
