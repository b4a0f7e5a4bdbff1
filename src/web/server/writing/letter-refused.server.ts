import type { Refusal } from "../../../operations/index.server";
import type { LetterRefused } from "../../screens/writing/write-outcome";
import { refusalSaid } from "../base/refusal.server";
import { askedView } from "../base/say.server";

/** A message of ours that was refused, as its form says it: in words, or by what its record asks for first. */
export function letterRefused(refusal: Refusal): LetterRefused<{ readonly html?: string }> {
  const refused = { ok: false, problems: {}, problem: null } as const;
  if (refusal.kind === "unfilled") return { ...refused, problems: { html: refusalSaid(refusal) } };
  return refusal.kind === "fields-asked"
    ? { ...refused, asked: askedView(refusal.asked) }
    : { ...refused, problem: refusalSaid(refusal) };
}
