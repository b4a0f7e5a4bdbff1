import { assertNever } from "../kernel/assert-never";
import type { MessageKind } from "../message/mail-message";

/** How a message changes the turn: by whom it is real, or nothing at all. */
export type MoveEffect = "they-wrote" | "we-wrote" | "bounced" | "none";

/** What a message does to the turn. A bounce counts only when it comes in; a machine's message never does, whoever's machine it is. */
export function moveEffect(move: { readonly direction: "in" | "out"; readonly kind: MessageKind }): MoveEffect {
  switch (move.kind) {
    case "person":
    case "calendar":
      return move.direction === "in" ? "they-wrote" : "we-wrote";
    case "bounce":
      return move.direction === "in" ? "bounced" : "none";
    case "automatic":
    case "delivery-report":
    case "list":
      return "none";
    default:
      return assertNever(move.kind);
  }
}
