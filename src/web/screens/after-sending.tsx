import { RadioGroup } from "radix-ui";
import type { Whom } from "../../core/docket/plan-decision";
import { domainOf, readMailboxes } from "../../core/kernel/email-address";
import type { SaidDate } from "../server/says-view.server";
import { Select } from "../ui/select";
import type { Draft } from "./kept-draft";
import { useTray } from "./tray-data";

const AFTER: readonly (readonly [Draft["after"], string])[] = [
  ["expect", "Wait for a reply"],
  ["settle", "Settle it"],
  ["keep", "Keep as our move"],
];

const PILL =
  "h-7 rounded-control border border-rule bg-paper px-2.5 text-sm hover:border-act data-[state=checked]:border-act data-[state=checked]:bg-act-soft data-[state=checked]:font-semibold data-[state=checked]:text-act";

type AfterSendingProps = {
  readonly draft: Draft;
  readonly change: (part: Partial<Draft>) => void;
  readonly problem: string | undefined;
  /** By when whoever gets it usually has answered; null where that is not known. */
  readonly usual: SaidDate | null;
};

/** What happens to the conversation once the answer is on its way; for a reply, from whom and by when. */
export function AfterSending({ draft, change, problem, usual }: AfterSendingProps) {
  const { dateChoices } = useTray();
  const { mailboxes } = readMailboxes(draft.to);
  const [first] = mailboxes;
  const offered = dateChoices.map(({ day, words, label }) => ({ day, words, label }));
  const days =
    usual === null
      ? offered
      : [
          { day: usual.day, words: `as they usually take: ${usual.words}`, label: "nine in ten have answered by then" },
          ...offered.filter(({ day }) => day !== usual.day),
        ];
  // A day that the text named is not among those that are always offered.
  const named =
    draft.day !== "" && !days.some(({ day }) => day === draft.day)
      ? [{ day: draft.day, words: draft.day, label: "" }]
      : [];
  return (
    <div className="mt-2.5 grid gap-2">
      <RadioGroup.Root
        aria-label="When it is sent"
        value={draft.after}
        onValueChange={(after) => change({ after: after as Draft["after"] })}
        className="flex flex-wrap items-center gap-1.5"
      >
        <span className="w-[46px] text-sm font-semibold">Then</span>
        {AFTER.map(([value, label]) => (
          <RadioGroup.Item key={value} value={value} className={PILL}>
            {label}
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
      {draft.after === "expect" && (
        <RadioGroup.Root
          aria-label="Reply expected by"
          value={draft.day}
          onValueChange={(day) => change({ day })}
          className="flex flex-wrap items-center gap-1.5"
        >
          <span className="w-[46px] text-sm font-semibold">by</span>
          {[...days, ...named].map(({ day, words, label }) => (
            <RadioGroup.Item key={day} value={day} title={label} className={PILL}>
              {words}
            </RadioGroup.Item>
          ))}
          <RadioGroup.Item value="" className={PILL}>
            no date
          </RadioGroup.Item>
          {first !== undefined && (
            <Select
              label="From whom"
              look="quiet"
              value={draft.whom ?? "any"}
              onChoose={(whom) => change({ whom: whom as Whom })}
              choices={[
                ["any", mailboxes.length > 1 ? "from any of them" : `from ${first.name || first.address}`],
                ...(mailboxes.length > 1 ? [["each", "from each of them"] as const] : []),
                ["house", `from anybody at ${domainOf(first.address)}`],
                ["anybody", "from anybody"],
              ]}
            />
          )}
          {problem !== undefined && <span className="text-sm text-late">{problem}</span>}
        </RadioGroup.Root>
      )}
    </div>
  );
}
