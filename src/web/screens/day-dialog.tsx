import { useState } from "react";
import type { RowView } from "../server/words.server";
import { Button } from "../ui/button";
import { Dialog } from "../ui/dialog";
import { Field } from "../ui/field";
import type { PostedDecision } from "./decisions";
import { useTray } from "./tray-data";

const WORDS = {
  expect: { title: "Waiting for reply", description: "By when should they have answered?", other: "By another day" },
  rest: {
    title: "Rest until",
    description: "It comes back on that day at eight, or as soon as somebody writes.",
    other: "Until another day",
  },
} as const;

type DayDialogProps = {
  readonly kind: "expect" | "rest";
  readonly row: RowView;
  readonly onDecide: (decision: PostedDecision) => void;
  readonly onClose: () => void;
};

/** Chooses a day: one of those offered, or any other; for a reply also none. */
export function DayDialog({ kind, row, onDecide, onClose }: DayDialogProps) {
  const { dateChoices } = useTray();
  const [day, setDay] = useState("");
  const [problem, setProblem] = useState<string>();
  const words = WORDS[kind];
  const today = dateChoices[0]?.day ?? "";
  const chooseOther = () => {
    if (day === "") setProblem("Choose a day first.");
    else if (day < today) setProblem("That day is too early; choose one to come.");
    else onDecide({ kind, day });
  };
  return (
    <Dialog open onOpenChange={(open) => !open && onClose()} title={words.title} description={words.description}>
      <div className="overflow-y-auto py-1">
        {dateChoices.map((choice) => (
          <button
            key={choice.day}
            type="button"
            onClick={() => onDecide({ kind, day: choice.day })}
            className="flex w-full justify-between px-4 py-2 text-left hover:bg-act-soft focus-visible:bg-act-soft focus-visible:-outline-offset-2"
          >
            <span className="font-semibold">{choice.words}</span>
            <span className="text-soft">{choice.label}</span>
          </button>
        ))}
        {kind === "expect" && (
          <button
            type="button"
            onClick={() => onDecide({ kind, day: "" })}
            className="w-full px-4 py-2 text-left hover:bg-act-soft focus-visible:bg-act-soft focus-visible:-outline-offset-2"
          >
            Without a day
          </button>
        )}
        {kind === "expect" && row.standing === "waiting" && (
          <button
            type="button"
            onClick={() => onDecide({ kind: "stop-expecting" })}
            className="w-full px-4 py-2 text-left hover:bg-act-soft focus-visible:bg-act-soft focus-visible:-outline-offset-2"
          >
            Stop waiting
          </button>
        )}
      </div>
      <form
        className="flex items-end gap-2 border-t border-hair bg-ground px-4 py-3"
        onSubmit={(event) => {
          event.preventDefault();
          chooseOther();
        }}
      >
        <Field
          className="flex-1"
          label={words.other}
          type="date"
          value={day}
          onChange={(event) => setDay(event.target.value)}
          problem={problem}
        />
        <Button type="submit" className="h-9">
          Choose
        </Button>
      </form>
    </Dialog>
  );
}
