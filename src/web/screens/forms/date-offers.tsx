import type { ReactNode } from "react";
import { decidingTexts } from "../../../texts/en/deciding";
import type { DateAnswer } from "../../server/deciding/date-view.server";
import { useSay } from "../../ui/texts/use-say";

type DateOffersProps = {
  /** Null until they are known. */
  readonly offers: DateAnswer["offers"] | "failed" | null;
  readonly onChoose: (at: string) => void;
  /** What can be chosen besides. */
  readonly children?: ReactNode;
};

/** The moments that are offered, each with its date. */
export function DateOffers({ offers, onChoose, children }: DateOffersProps) {
  const say = useSay(decidingTexts);
  // All at once: what stands there already must not move away from under the pointer.
  if (offers === null) return <p className="min-h-48 px-4 py-2 text-soft">{say("deciding.loadingDates")}</p>;
  return (
    <div className="overflow-y-auto py-1">
      {offers === "failed" ? (
        <p className="px-4 py-2 text-late">{say("deciding.theDatesToOfferCould")}</p>
      ) : (
        offers.map(({ label, words, at }) => (
          <Offer key={label} label={label} words={words} onClick={() => onChoose(at)} />
        ))
      )}
      {children}
    </div>
  );
}

/** One thing to choose, with its date or none. */
export function Offer({ label, words, onClick }: { label: string; words: string; onClick: () => void }) {
  return (
    <button
      type="button"
      onClick={onClick}
      className="flex w-full justify-between gap-4 px-4 py-1.5 text-start hover:bg-act-soft focus-visible:bg-act-soft focus-visible:-outline-offset-2"
    >
      <span className="font-semibold first-letter:uppercase">{label}</span>
      <span className="whitespace-nowrap text-soft">{words}</span>
    </button>
  );
}
