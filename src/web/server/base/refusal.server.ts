import { refusalInWords } from "../../../operations/index.server";
import { speak } from "./say.server";

/** Why something was refused, in the language of whoever asks. */
export function refusalSaid(refusal: Parameters<typeof refusalInWords>[0]): string {
  return speak(refusalInWords(refusal));
}
