import { useEffect, useId, useState } from "react";
import type { DateAnswer } from "../server/date-view.server";
import { Button } from "../ui/button";
import { Dialog } from "../ui/dialog";
import { Field } from "../ui/field";
import { Select } from "../ui/select";
import type { PostedDecision } from "./decisions";
import type { DialogProps } from "./dialog-props";
import { useTray } from "./tray-data";

type DateDialogProps = DialogProps & { readonly kind: "expect" | "rest" | "follow-up" };

const WORDS = {
  expect: { title: "Waiting for reply", description: "By when should they have answered?" },
  rest: { title: "Rest until", description: "It comes back to where it was, on top." },
  "follow-up": { title: "Follow-up", description: "A thing to do, by a day or without one." },
} as const;

/** Chooses a moment by words or from those offered, for a rest, a reply or a follow-up. */
export function DateDialog({ kind, target, onDecide, onClose }: DateDialogProps) {
  const { tray, member } = useTray();
  const textId = useId();
  const [text, setText] = useState("");
  const [mode, setMode] = useState<"either" | "time">("either");
  const [whose, setWhose] = useState<string>(member.id);
  const [task, setTask] = useState("");
  const [problem, setProblem] = useState<string>();
  const [row] = target.rows;
  const single = target.everything === null && target.rows.length === 1 ? (row?.id ?? "") : "";
  const answer = useDateAnswer(tray.slug, text, kind === "expect" ? "closes" : "opens", single);
  const choose = (at: string) => onDecide(decisionOf(at));
  const decisionOf = (at: string): PostedDecision => {
    if (kind === "rest") return { kind, at, mode };
    if (kind === "expect") return { kind, at };
    return { kind, at, member: whose, text: task };
  };
  const chooseTyped = () => {
    if (text.trim() === "")
      setProblem("Type a date, for instance “fri 10” or “in 3 working days”, or choose one below.");
    else if (answer === "failed") setProblem("The server did not answer. Try again.");
    else if (answer?.meant != null && answer.text === text) choose(answer.meant.at);
    else setProblem(answer?.problem ?? "One moment: the date is being read.");
  };
  const said = answer !== "failed" && answer?.text === text ? answer : null;
  return (
    <Dialog open onOpenChange={(open) => !open && onClose()} {...WORDS[kind]}>
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
            label={kind === "rest" ? "Until when" : "By when"}
            placeholder="fri 10 · in 3 working days · end of month"
            autoFocus
            autoComplete="off"
            value={text}
            onChange={(event) => {
              setText(event.target.value);
              setProblem(undefined);
            }}
            problem={problem ?? (said?.problem != null && text.trim().length > 2 ? said.problem : undefined)}
          />
          <Button type="submit" look="filled" className="h-9">
            Choose
          </Button>
        </div>
        <p id={textId} role="status" className="min-h-5 pt-1 text-sm text-act">
          {said?.meant == null ? "" : `That is ${said.meant.words}.`}
        </p>
        {kind === "rest" && (
          <label className="flex cursor-pointer items-center gap-2 text-sm">
            <input
              type="checkbox"
              checked={mode === "either"}
              onChange={(event) => setMode(event.target.checked ? "either" : "time")}
              className="size-4 accent-act"
            />
            or until somebody writes, if that comes first
          </label>
        )}
      </form>
      <Offers
        kind={kind}
        answer={answer}
        isWaiting={target.rows.some(({ standing }) => standing === "waiting")}
        onChoose={choose}
        onDecide={onDecide}
      />
    </Dialog>
  );
}

type OffersProps = Pick<DateDialogProps, "kind" | "onDecide"> & {
  readonly answer: Answered | "failed" | null;
  readonly isWaiting: boolean;
  readonly onChoose: (at: string) => void;
};

function Offers({ kind, answer, isWaiting, onChoose, onDecide }: OffersProps) {
  return (
    <div className="overflow-y-auto py-1">
      {answer === "failed" && <p className="px-4 py-2 text-late">The dates to offer could not be loaded.</p>}
      {(answer === "failed" ? undefined : answer?.offers)?.map((offer) => (
        <Offer key={offer.label} label={offer.label} words={offer.words} onClick={() => onChoose(offer.at)} />
      ))}
      {kind === "rest" && (
        <Offer label="until somebody writes" words="" onClick={() => onDecide({ kind, at: "", mode: "either" })} />
      )}
      {kind !== "rest" && <Offer label="without a date" words="" onClick={() => onChoose("")} />}
      {kind === "expect" && isWaiting && (
        <Offer label="stop waiting" words="" onClick={() => onDecide({ kind: "stop-expecting" })} />
      )}
    </div>
  );
}

type TaskProps = {
  readonly task: string;
  readonly onTask: (task: string) => void;
  readonly whose: string;
  readonly onWhose: (whose: string) => void;
};

function Task({ task, onTask, whose, onWhose }: TaskProps) {
  const { member, members } = useTray();
  return (
    <div className="mb-3 grid grid-cols-[1fr_auto] items-end gap-2">
      <Field label="What is to be done" value={task} onChange={(event) => onTask(event.target.value)} maxLength={500} />
      <div className="pb-0.5">
        <Select
          label="For whom"
          value={whose}
          onChoose={onWhose}
          choices={members.map(({ id, name }) => [id, id === member.id ? "for me" : `for ${name}`] as const)}
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
      className="flex w-full justify-between gap-4 px-4 py-1.5 text-left hover:bg-act-soft focus-visible:bg-act-soft focus-visible:-outline-offset-2"
    >
      <span className="font-semibold first-letter:uppercase">{label}</span>
      <span className="whitespace-nowrap text-soft">{words}</span>
    </button>
  );
}

type Answered = DateAnswer & { readonly text: string };

/** What the server says of the text in a date field; the newest answer counts. */
function useDateAnswer(slug: string, text: string, edge: string, conversation: string): Answered | "failed" | null {
  const [answer, setAnswer] = useState<Answered | "failed" | null>(null);
  useEffect(() => {
    const aborter = new AbortController();
    fetch(`/${slug}/dates?${new URLSearchParams({ text, edge, conversation })}`, { signal: aborter.signal })
      .then((response) => (response.ok ? response.json() : Promise.reject(new Error("no dates"))))
      .then((found: DateAnswer) => setAnswer({ ...found, text }))
      .catch(() => !aborter.signal.aborted && setAnswer("failed"));
    return () => aborter.abort();
  }, [slug, text, edge, conversation]);
  return answer;
}
