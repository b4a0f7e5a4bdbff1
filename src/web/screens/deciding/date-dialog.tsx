import { useState } from "react";
import type { Whom as WhomAwaited } from "../../../core/deciding/decision";
import { type MemberId, trustedId } from "../../../core/kernel/ids";
import { readInstant } from "../../../core/kernel/instant";
import { commonTexts } from "../../../texts/en/common";
import { decidingTexts } from "../../../texts/en/deciding";
import { Button } from "../../ui/button";
import { CalendarButton } from "../../ui/dates/calendar-button";
import { Dialog } from "../../ui/dialog";
import { Field } from "../../ui/field";
import { Select } from "../../ui/select";
import { saidChoices, useSay } from "../../ui/texts/use-say";
import { Tick } from "../../ui/tick";
import { DateOffers, Offer } from "../forms/date-offers";
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
      <DateOffers offers={offers} onChoose={choose}>
        <OtherOffers
          kind={kind}
          isWaiting={target.rows.some(({ standing }) => standing === "waiting")}
          onChoose={choose}
          onDecide={onDecide}
        />
      </DateOffers>
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

type OtherOffersProps = Pick<DateDialogProps, "kind" | "onDecide"> & {
  readonly isWaiting: boolean;
  readonly onChoose: (at: string) => void;
};

/** What can be chosen instead of a date. */
function OtherOffers({ kind, isWaiting, onChoose, onDecide }: OtherOffersProps) {
  const say = useSay(decidingTexts, commonTexts);
  return (
    <>
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
    </>
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
