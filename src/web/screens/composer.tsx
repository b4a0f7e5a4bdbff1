import { RadioGroup } from "radix-ui";
import { lazy, Suspense, useEffect, useRef, useState } from "react";
import { useFetcher } from "react-router";
import type { AnswerOutcome } from "../routes/answer";
import { Button, KeyCap } from "../ui/button";
import { Field } from "../ui/field";
import { type Draft, forgetDraft, keepDraft, keptDraft } from "./kept-draft";
import { useTray } from "./tray-data";

const Editor = lazy(() => import("./editor"));

type ComposerProps = {
  readonly conversationId: string;
  readonly start: { readonly to: string; readonly cc: string; readonly subject: string };
  readonly onClose: () => void;
  readonly onSent: (sent: { readonly messageId: string; readonly holdMs: number }) => void;
};

const AFTER: readonly (readonly [Draft["after"], string])[] = [
  ["expect", "Wait for a reply"],
  ["settle", "Settle it"],
  ["keep", "Keep as our move"],
];

/** Writes an answer. What is typed is kept in the browser until it is sent, through reloads and refusals. */
export function Composer({ conversationId, start, onClose, onSent }: ComposerProps) {
  const { tray, dateChoices } = useTray();
  const fetcher = useFetcher<AnswerOutcome>();
  const [draft, setDraft] = useState<Draft>(
    () => keptDraft(conversationId) ?? { ...start, html: "", after: "expect", day: dateChoices[2]?.day ?? "" },
  );
  const form = useRef<HTMLFormElement>(null);
  const change = (part: Partial<Draft>) => setDraft((before) => ({ ...before, ...part }));
  useEffect(() => keepDraft(conversationId, draft), [conversationId, draft]);
  const outcome = fetcher.state === "idle" ? fetcher.data : undefined;
  useEffect(() => {
    if (outcome?.ok !== true) return;
    forgetDraft(conversationId);
    onSent(outcome);
  }, [outcome, conversationId, onSent]);
  const problems = outcome?.ok === false ? outcome.problems : {};
  const send = () =>
    void fetcher.submit({ ...draft }, { method: "post", action: `/${tray.slug}/answer/${conversationId}` });
  return (
    <form
      ref={form}
      aria-label="Answer"
      className="max-h-[72%] shrink-0 overflow-y-auto border-t border-rule bg-ours px-4 py-3 lg:px-6"
      onSubmit={(event) => {
        event.preventDefault();
        send();
      }}
      onKeyDown={(event) => {
        if (event.key === "Enter" && (event.ctrlKey || event.metaKey)) form.current?.requestSubmit();
        if (event.key === "Escape") onClose();
      }}
    >
      <div className="grid gap-x-4 gap-y-1.5 sm:grid-cols-2">
        <Field
          inline
          label="To"
          value={draft.to}
          onChange={(event) => change({ to: event.target.value })}
          problem={problems.to}
          autoComplete="off"
        />
        <Field
          inline
          label="Cc"
          value={draft.cc}
          onChange={(event) => change({ cc: event.target.value })}
          problem={problems.cc}
          autoComplete="off"
        />
        <Field
          inline
          className="sm:col-span-2"
          label="Subject"
          value={draft.subject}
          onChange={(event) => change({ subject: event.target.value })}
          problem={problems.subject}
        />
      </div>
      <Suspense fallback={<p className="mt-2.5 h-[180px] text-soft">Getting the paper ready…</p>}>
        <Editor html={draft.html} problem={problems.html} onChange={(html) => change({ html })} />
      </Suspense>
      <After draft={draft} change={change} problem={problems.day} />
      {outcome?.ok === false && outcome.problem !== null && (
        <p role="alert" className="mt-2 text-late">
          {outcome.problem}
        </p>
      )}
      <div className="mt-3 flex items-center gap-2">
        <Button look="filled" type="submit" disabled={fetcher.state !== "idle"}>
          {fetcher.state === "idle" ? "Send" : "Sending…"} <KeyCap>Ctrl ⏎</KeyCap>
        </Button>
        <Button look="quiet" onClick={onClose}>
          Put aside <KeyCap>Esc</KeyCap>
        </Button>
        <label className="ml-2 flex cursor-pointer items-center gap-1.5 text-sm text-soft">
          <input
            type="checkbox"
            checked={draft.report === "on"}
            onChange={(event) => change({ report: event.target.checked ? "on" : "" })}
            className="size-3.5 accent-act"
          />
          Ask for a delivery report
        </label>
        <span className="ml-auto hidden text-sm text-soft xl:inline">The draft is kept on this device.</span>
      </div>
    </form>
  );
}

const PILL =
  "h-7 rounded-control border border-rule bg-paper px-2.5 text-sm hover:border-act data-[state=checked]:border-act data-[state=checked]:bg-act-soft data-[state=checked]:font-semibold data-[state=checked]:text-act";

function After({
  draft,
  change,
  problem,
}: {
  draft: Draft;
  change: (part: Partial<Draft>) => void;
  problem: string | undefined;
}) {
  const { dateChoices } = useTray();
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
          {dateChoices.map(({ day, words, label }) => (
            <RadioGroup.Item key={day} value={day} title={label} className={PILL}>
              {words}
            </RadioGroup.Item>
          ))}
          <RadioGroup.Item value="" className={PILL}>
            no date
          </RadioGroup.Item>
          {problem !== undefined && <span className="text-sm text-late">{problem}</span>}
        </RadioGroup.Root>
      )}
    </div>
  );
}
