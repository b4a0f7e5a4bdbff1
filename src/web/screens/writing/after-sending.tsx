import { RadioGroup } from "radix-ui";
import type { Whom } from "../../../core/deciding/decision";
import { domainOf, readMailboxes } from "../../../core/kernel/email-address";
import { instant, readInstant } from "../../../core/kernel/instant";
import { calendarDayInWords, dayAndTimeInFull } from "../../../core/time/day-words";
import type { Draft } from "../../../core/writing/draft";
import { commonTexts } from "../../../texts/en/common";
import { writingTexts } from "../../../texts/en/writing";
import type { SaidDate } from "../../server/writing/says-view.server";
import { Select } from "../../ui/select";
import { useSay } from "../../ui/texts/use-say";
import { CustomDate } from "../deciding/custom-date";
import { useTray } from "../frame/tray-data";

const AFTER = [
  ["expect", "writing.waitForAReply"],
  ["settle", "writing.settleIt"],
  ["keep", "writing.keepAsOurMove"],
] as const;

const PILL =
  "h-7 rounded-control border border-rule bg-paper px-2.5 text-sm hover:border-act data-[state=checked]:border-act data-[state=checked]:bg-act-soft data-[state=checked]:font-semibold data-[state=checked]:text-act";

const LINE = "grid grid-cols-[46px_minmax(0,1fr)] gap-x-1.5";
const LABEL = "text-sm leading-7 font-semibold";
const PILLS = "flex flex-wrap items-center gap-1.5";

type AfterSendingProps = {
  readonly draft: Draft;
  readonly change: (part: Partial<Draft>) => void;
  readonly problem: string | undefined;
  /** By when whoever gets it usually has answered; null where that is not known. */
  readonly usual: SaidDate | null;
};

/** What happens to the conversation once the answer is on its way; for a reply, from whom and by when. */
export function AfterSending({ draft, change, problem, usual }: AfterSendingProps) {
  const say = useSay(writingTexts, commonTexts);
  const { dateChoices } = useTray();
  const deadlineInWords = useDeadlineInWords();
  const { mailboxes } = readMailboxes(draft.to);
  const [first] = mailboxes;
  const offered = dateChoices.map(({ day, words, label }) => ({ day, words, label }));
  const days =
    usual === null
      ? offered
      : [
          {
            day: usual.until,
            words: say("writing.asTheyUsuallyTake", { words: usual.words }),
            label: say("writing.nineInTenHaveAnswered"),
          },
          ...offered.filter(({ day }) => day !== usual.until),
        ];
  // What the text named, or somebody typed, is not among those that are always offered.
  const named =
    draft.day !== "" && !days.some(({ day }) => day === draft.day)
      ? [{ day: draft.day, words: deadlineInWords(draft.day), label: "" }]
      : [];
  return (
    <div className="mt-2.5 grid gap-2">
      <RadioGroup.Root
        aria-label={say("writing.whenItIsSent")}
        value={draft.after}
        onValueChange={(after) => change({ after: after as Draft["after"] })}
        className={LINE}
      >
        <span className={LABEL}>{say("common.then")}</span>
        <div className={PILLS}>
          {AFTER.map(([value, label]) => (
            <RadioGroup.Item key={value} value={value} className={PILL}>
              {say(label)}
            </RadioGroup.Item>
          ))}
          {draft.after === "expect" && first !== undefined && (
            <Select
              label={say("common.fromWhom")}
              look="quiet"
              value={draft.whom ?? "any"}
              onChoose={(whom) => change({ whom: whom as Whom })}
              choices={[
                [
                  "any",
                  mailboxes.length > 1
                    ? say("writing.fromAnyOfThem")
                    : say("writing.from", { name: first.name || first.address }),
                ],
                ...(mailboxes.length > 1 ? [["each", say("writing.fromEachOfThem")] as const] : []),
                ["house", say("writing.fromAnybodyAt", { domain: domainOf(first.address) })],
                ["anybody", say("writing.fromAnybody")],
              ]}
            />
          )}
        </div>
      </RadioGroup.Root>
      {draft.after === "expect" && (
        <RadioGroup.Root
          aria-label={say("writing.replyExpectedBy")}
          value={draft.day}
          onValueChange={(day) => change({ day })}
          className={LINE}
        >
          <span className={LABEL}>{say("writing.byInside")}</span>
          <div className={PILLS}>
            {[...days, ...named].map(({ day, words, label }) => (
              <RadioGroup.Item key={day} value={day} title={label} className={PILL}>
                {words}
              </RadioGroup.Item>
            ))}
            <RadioGroup.Item value="" className={PILL}>
              {say("writing.noDate")}
            </RadioGroup.Item>
            <CustomDate label={say("writing.date")} onChoose={(day) => change({ day })} />
            {problem !== undefined && <span className="text-sm text-late">{problem}</span>}
          </div>
        </RadioGroup.Root>
      )}
    </div>
  );
}

function useDeadlineInWords(): (day: string) => string {
  const say = useSay(writingTexts);
  const { member } = useTray();
  return (day) => {
    const at = readInstant(day);
    const words = at === null ? calendarDayInWords(day) : dayAndTimeInFull(at, instant(Date.now()), member.timeZone);
    return typeof words === "string" ? words : say(words);
  };
}
