import { useEffect, useId, useState } from "react";
import type { Whom as WhomAwaited } from "../../core/docket/plan-decision";
import type { DateAnswer, DateView } from "../server/date-view.server";
import { Button } from "../ui/button";
import { Dialog } from "../ui/dialog";
import { Field } from "../ui/field";
import { Select } from "../ui/select";
import type { PostedDecision } from "./decisions";
import type { DialogProps } from "./dialog-props";
import { useTray } from "./tray-data";

type DateDialogProps = DialogProps & { readonly kind: "expect" | "rest" | "expire" | "follow-up" };

const WORDS = {
  expect: { title: "Waiting for reply", description: "By when should they have answered?" },
  expire: {
    title: "Matters until",
    description: "After that it lapses: it is settled, unless somebody did so before.",
  },
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
  const [whom, setWhom] = useState("any");
  const [problem, setProblem] = useState<string>();
  const [row] = target.rows;
  const single = target.everything === null && target.rows.length === 1 ? (row?.id ?? "") : "";
  const answer = useDateAnswer(tray.slug, text, kind, single);
  const choose = (at: string) => onDecide(decisionOf(kind, at, { mode, whom, whose, task }));
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
            label={kind === "rest" || kind === "expire" ? "Until when" : "By when"}
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
          {said?.other != null && <OtherReading other={said.other} onChoose={choose} />}
        </p>
        {kind === "expect" && <Whom whom={whom} onWhom={setWhom} />}
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

type OtherReadingProps = { readonly other: DateView; readonly onChoose: (at: string) => void };

/** Figures that two countries read in two ways. */
function OtherReading({ other, onChoose }: OtherReadingProps) {
  return (
    <button type="button" onClick={() => onChoose(other.at)} className="ml-1 underline-offset-2 hover:underline">
      Month first, it is {other.words}: choose that.
    </button>
  );
}

type Chosen = {
  readonly mode: "either" | "time";
  readonly whom: string;
  readonly whose: string;
  readonly task: string;
};

function decisionOf(kind: DateDialogProps["kind"], at: string, { mode, whom, whose, task }: Chosen): PostedDecision {
  switch (kind) {
    case "rest":
      return { kind, at, mode };
    case "expire":
      return { kind, at };
    case "expect":
      return { kind, at, ...awaitedOf(whom) };
    case "follow-up":
      return { kind, at, member: whose, text: task };
  }
}

// What is due by a day means its end; what is taken up then, its beginning.
const EDGES = { expect: "closes", expire: "closes", rest: "opens", "follow-up": "opens" } as const;

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
      {kind !== "rest" && (
        <Offer
          label={kind === "expire" ? "it matters for good" : "without a date"}
          words=""
          onClick={() => onChoose("")}
        />
      )}
      {kind === "expect" && isWaiting && (
        <Offer label="stop waiting" words="" onClick={() => onDecide({ kind: "stop-expecting" })} />
      )}
    </div>
  );
}

const WHOM_WORDS: readonly (readonly [WhomAwaited, string])[] = [
  ["any", "from any of those who wrote"],
  ["each", "from each of those who wrote"],
  ["house", "from anybody of their organisation"],
  ["anybody", "from anybody outside"],
];

/** From whom it is awaited: those outside, or a colleague. */
function Whom({ whom, onWhom }: { readonly whom: string; readonly onWhom: (whom: string) => void }) {
  const { members, member } = useTray();
  const colleagues = members.filter(({ id }) => id !== member.id);
  return (
    <Select
      label="From whom"
      look="quiet"
      value={whom}
      onChoose={onWhom}
      choices={[...WHOM_WORDS, ...colleagues.map(({ id, name }) => [id, `from ${name}, inside`] as const)]}
    />
  );
}

function awaitedOf(whom: string): { readonly whom?: WhomAwaited; readonly colleague?: string } {
  const outside = WHOM_WORDS.find(([one]) => one === whom)?.[0];
  if (outside === undefined) return { colleague: whom };
  return outside === "any" ? {} : { whom: outside };
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
function useDateAnswer(
  slug: string,
  text: string,
  kind: DateDialogProps["kind"],
  conversation: string,
): Answered | "failed" | null {
  const [answer, setAnswer] = useState<Answered | "failed" | null>(null);
  useEffect(() => {
    const aborter = new AbortController();
    const query = { text, edge: EDGES[kind], conversation, ...(kind === "expect" ? { usual: "on" } : {}) };
    fetch(`/${slug}/dates?${new URLSearchParams(query)}`, { signal: aborter.signal })
      .then((response) => (response.ok ? response.json() : Promise.reject(new Error("no dates"))))
      .then((found: DateAnswer) => setAnswer({ ...found, text }))
      .catch(() => !aborter.signal.aborted && setAnswer("failed"));
    return () => aborter.abort();
  }, [slug, text, kind, conversation]);
  return answer;
}
