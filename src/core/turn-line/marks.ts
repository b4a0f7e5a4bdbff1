import type { ConversationFacts } from "../standing/derive-standing";
import { moveEffect } from "../turns/move-effect";

/** What a mark stands for: t they wrote, w we wrote, m a machine wrote, b a bounce, n a note of ours. */
export type MarkKind = "t" | "w" | "m" | "b" | "n";

/** One mark of the drawing: when (milliseconds of UTC) and what; kept short, as every row of a list carries a few. */
export type Mark = readonly [at: number, kind: MarkKind];

// More than these cannot be told apart on 140 pixels.
const MAX_MARKS = 24;

/** The marks of a conversation in order of time, the newest `MAX_MARKS` of them. */
export function turnMarks(facts: ConversationFacts): Mark[] {
  const messages = facts.messages.map((message): Mark => {
    const effect = moveEffect(message);
    if (effect === "bounced") return [message.at, "b"];
    if (effect === "none" && message.kind !== "list") return [message.at, "m"];
    return [message.at, message.direction === "out" ? "w" : "t"];
  });
  const notes = facts.entries.filter((entry) => entry.effect.kind === "noted").map((entry): Mark => [entry.at, "n"]);
  return [...messages, ...notes].toSorted((a, b) => a[0] - b[0]).slice(-MAX_MARKS);
}
