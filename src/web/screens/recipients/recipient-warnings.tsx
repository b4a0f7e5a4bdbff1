import { TriangleAlert } from "lucide-react";
import { printMailboxes, readMailboxes } from "../../../core/kernel/email-address";
import type { Draft } from "../../../core/writing/draft";
import { writingTexts } from "../../../texts/en/writing";
import type { WarningView } from "../../server/writing/recipient-views.server";
import { useSay } from "../../ui/texts/use-say";

type RecipientWarningsProps = {
  readonly warnings: readonly WarningView[];
  readonly draft: Pick<Draft, "to" | "cc" | "bcc">;
  readonly change: (part: Partial<Draft>) => void;
};

/** What is worth knowing before a message goes, each with what can be done about it. */
export function RecipientWarnings({ warnings, draft, change }: RecipientWarningsProps) {
  const say = useSay(writingTexts);
  if (warnings.length === 0) return null;
  return (
    <section aria-label={say("writing.beforeItGoes")} className="mt-2 border-s-2 border-late ps-3 text-sm">
      <ul>
        {warnings.map((warning) => (
          <li key={warning.words} className="flex flex-wrap items-baseline gap-x-2 py-0.5">
            <TriangleAlert size={13} aria-hidden className="self-center text-late" />
            <span className="min-w-0 break-words">{warning.words}</span>
            {warning.offer !== null && (
              <button
                type="button"
                className="min-h-6 text-act underline-offset-2 hover:underline"
                onClick={() => change(taken(warning.offer, draft))}
              >
                {warning.offer.words}
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** A draft's recipients with what a warning offers. */
function taken(offer: WarningView["offer"], { to, cc, bcc = "" }: Pick<Draft, "to" | "cc" | "bcc">): Partial<Draft> {
  const together = (...lists: readonly string[]) => lists.filter((list) => list.trim() !== "").join(", ");
  switch (offer?.kind) {
    case "replace": {
      // Who is there already is not put there twice.
      const once = (list: string) => printMailboxes(readMailboxes(list).mailboxes);
      const replaced = (list: string) =>
        once(
          printMailboxes(
            readMailboxes(list).mailboxes.map((one) =>
              one.address === offer.address ? { ...one, address: offer.by as typeof one.address } : one,
            ),
          ),
        );
      return { to: replaced(to), cc: replaced(cc), ...(bcc === "" ? {} : { bcc: replaced(bcc) }) };
    }
    case "copy":
      return { cc: together(cc, offer.entries) };
    case "hide":
      return { to: "", bcc: together(bcc, to) };
    default:
      return {};
  }
}
