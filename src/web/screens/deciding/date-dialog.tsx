import { useState } from "react";
import type { Whom as WhomAwaited } from "../../../core/deciding/decision";
import { type MemberId, trustedId } from "../../../core/kernel/ids";
import { readInstant } from "../../../core/kernel/instant";
import { commonTexts } from "../../../texts/en/common";
import { decidingTexts } from "../../../texts/en/deciding";
import type { DateAnswer } from "../../server/deciding/date-view.server";
import { Button } from "../../ui/button";
import { CalendarButton } from "../../ui/dates/calendar-button";
import { Dialog } from "../../ui/dialog";
import { Field } from "../../ui/field";
import { Select } from "../../ui/select";
import { saidChoices, useSay } from "../../ui/texts/use-say";
import { Tick } from "../../ui/tick";
import { useTray } from "../frame/tray-data";
import { AmbiguousDate } from "./ambiguous-date";
import type { DialogProps } from "./dialog-props";
import type { PostedDecision } from "./posted-decision";
import { useTypedDate } from "./use-typed-date";

type DateDialogProps = DialogProps & { readonly kind: "expect" | "rest" | "expire" | "follow-up" };

const WORDS = {
  expect: { title: "deciding.waitingForReply", description: "deciding.byWhenShouldTheyHave" },
  expire: {
    title: "deciding.expires",
    description: "deciding.afterThatItIsSettled",
  },
  rest: { title: "deciding.restUntil", description: "deciding.itComesBackToWhere" },
  "follow-up": { title: "deciding.followUp", description: "deciding.aThingToDoBy" },
} as const;

/** Chooses a moment by words or from those offered, for a rest, a reply or a follow-up. */
export function DateDialog({ kind, target, onDecide, onClose }: DateDialogProps) {
  const say = useSay(decidingTexts);
  const { member } = useTray();
  const [mode, setMode] = useState<"either" | "time">("either");
  const [whose, setWhose] = useState<string>(member.id);
  const [task, setTask] = useState("");
  const [whom, setWhom] = useState("any");
  const [row] = target.rows;
  const conversation = target.everything === null && target.rows.length === 1 ? (row?.id ?? "") : "";
  const choose = (at: string) => onDecide(decisionOf(kind, at, { mode, whom, whose, task }));
  const wanted = { edge: EDGES[kind], conversation, usual: kind === "expect" };
  const { field, said, offers, chooseTyped, pickDay } = useTypedDate(wanted, choose);
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title={say(WORDS[kind].title)}
      description={say(WORDS[kind].description)}
    >
      <form
        className="border-b border-hair px-4 py-3"
        onSubmit={(event) => {
          event.preventDefault();
          chooseTyped();
        }}
      >
        {kind === "follow-up" && <Task task={task} onTask={setTask} whose={whose} onWhose={setWhose} />}
        <div className="flex items-end gap-2">
          <Field
            className="flex-1"
            label={kind === "rest" || kind === "expire" ? say("deciding.untilWhen") : say("deciding.byWhen")}
            {...field}
          />
          <CalendarButton label={say(WORDS[kind].title)} onDay={pickDay} />
          <Button type="submit" look="filled" className="h-9">
            {say("deciding.choose")}
          </Button>
        </div>
        <AmbiguousDate said={said} onChoose={choose} />
        {kind === "expect" && <Whom whom={whom} onWhom={setWhom} />}
        {kind === "rest" && (
          <Tick checked={mode === "either"} onTick={(isOn) => setMode(isOn ? "either" : "time")} className="text-sm">
            {say("deciding.orUntilSomebodyWritesIf")}
          </Tick>
        )}
      </form>
      <Offers
        kind={kind}
        offers={offers}
        isWaiting={target.rows.some(({ standing }) => standing === "waiting")}
        onChoose={choose}
        onDecide={onDecide}
      />
    </Dialog>
  );
}

type RowSelection = {
  readonly mode: "either" | "time";
  readonly whom: string;
  readonly whose: string;
  readonly task: string;
};

function decisionOf(
  kind: DateDialogProps["kind"],
  at: string,
  { mode, whom, whose, task }: RowSelection,
): PostedDecision {
  switch (kind) {
    case "rest":
      return { kind, until: readInstant(at), ...(mode === "time" ? { evenIfAnswered: true } : {}) };
    case "expire":
      return { kind, at: readInstant(at) };
    case "expect":
      return { kind, until: readInstant(at), ...awaitedOf(whom) };
    case "follow-up":
      return { kind, dueAt: readInstant(at), forMember: trustedId<MemberId>(whose), text: task };
  }
}

// What is due by a day means its end; what is taken up then, its beginning.
const EDGES = { expect: "closes", expire: "closes", rest: "opens", "follow-up": "opens" } as const;

type OffersProps = Pick<DateDialogProps, "kind" | "onDecide"> & {
  /** Null until they are known. */
  readonly offers: DateAnswer["offers"] | "failed" | null;
  readonly isWaiting: boolean;
  readonly onChoose: (at: string) => void;
};

function Offers({ kind, offers, isWaiting, onChoose, onDecide }: OffersProps) {
  const say = useSay(decidingTexts, commonTexts);
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
      {kind === "rest" && (
        <Offer label={say("deciding.untilSomebodyWrites")} words="" onClick={() => onDecide({ kind, until: null })} />
      )}
      {kind !== "rest" && (
        <Offer
          label={kind === "expire" ? say("common.noExpiry") : say("deciding.withoutADate")}
          words=""
          onClick={() => onChoose("")}
        />
      )}
      {kind === "expect" && isWaiting && (
        <Offer label={say("deciding.stopWaiting")} words="" onClick={() => onDecide({ kind: "stop-expecting" })} />
      )}
    </div>
  );
}

const WHOM_WORDS = [
  ["any", "deciding.fromAnyOfThoseWho"],
  ["each", "deciding.fromEachOfThoseWho"],
  ["house", "deciding.fromAnybodyOfTheirOrganisation"],
  ["anybody", "deciding.fromAnybodyOutside"],
] as const;

/** From whom it is awaited: those outside, or a colleague. */
function Whom({ whom, onWhom }: { readonly whom: string; readonly onWhom: (whom: string) => void }) {
  const say = useSay(decidingTexts, commonTexts);
  const { members, member } = useTray();
  const colleagues = members.filter(({ id }) => id !== member.id);
  return (
    <Select
      label={say("common.fromWhom")}
      look="quiet"
      value={whom}
      onChoose={onWhom}
      choices={[
        ...saidChoices(say, WHOM_WORDS),
        ...colleagues.map(({ id, name }) => [id, say("deciding.fromInside", { name })] as const),
      ]}
    />
  );
}

function awaitedOf(whom: string): { readonly whom?: WhomAwaited; readonly colleagueId?: MemberId } {
  const outside = WHOM_WORDS.find(([one]) => one === whom)?.[0];
  if (outside === undefined) return { colleagueId: trustedId<MemberId>(whom) };
  return outside === "any" ? {} : { whom: outside };
}

type TaskProps = {
  readonly task: string;
  readonly onTask: (task: string) => void;
  readonly whose: string;
  readonly onWhose: (whose: string) => void;
};

function Task({ task, onTask, whose, onWhose }: TaskProps) {
  const say = useSay(decidingTexts);
  const { member, members } = useTray();
  return (
    <div className="mb-3 grid grid-cols-[1fr_auto] items-end gap-2">
      <Field
        label={say("deciding.whatIsToBeDone")}
        value={task}
        onChange={(event) => onTask(event.target.value)}
        maxLength={500}
      />
      <div className="pb-0.5">
        <Select
          label={say("deciding.forWhom")}
          value={whose}
          onChoose={onWhose}
          choices={members.map(
            ({ id, name }) => [id, id === member.id ? say("deciding.forMe") : say("deciding.for", { name })] as const,
          )}
        />
      </div>
    </div>
  );
}

function Offer({ label, words, onClick }: { label: string; words: string; onClick: () => void }) {
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
