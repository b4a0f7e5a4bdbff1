import { useEffect, useId, useRef, useState } from "react";
import { useFetcher } from "react-router";
import { mentionsIn } from "../../../core/notes/mentions";
import { commonTexts } from "../../../texts/en/common";
import { decidingTexts } from "../../../texts/en/deciding";
import type { Say } from "../../../texts/say";
import type { EditNoteOutcome } from "../../routes/conversation/edit-note";
import type { PeopleAnswer } from "../../routes/people/people";
import { Button, KeyCap } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { notice } from "../../ui/notices";
import { useSay } from "../../ui/texts/use-say";
import { useOutcome } from "../forms/use-form-action";
import { formDataOf } from "../frame/decision-submitter";
import { useTray } from "../frame/tray-data";
import { useAnswered, useCommand } from "../frame/use-command";
import type { DecisionOutcome } from "./decision-outcome";
import { useDecisions } from "./decisions";
import type { DialogProps } from "./dialog-props";
import { MentionMenu, useMentionMenu } from "./mention-menu";
import { decisionForm } from "./posted-decision";
import { useSaidOf } from "./use-said-of";

type NoteDialogProps = DialogProps & {
  readonly title?: string;
  /** What is prepared. */
  readonly start?: string;
};

/** Writes a note that only colleagues see. */
export function NoteDialog({ target, onDecide, onClose, title = "Note", start = "" }: NoteDialogProps) {
  const saidOf = useSaidOf();
  const say = useSay(decidingTexts, commonTexts);
  const tray = useTray();
  const { undo } = useDecisions();
  const fetcher = useFetcher<DecisionOutcome>();
  const outcome = fetcher.state === "idle" ? fetcher.data : undefined;
  const command = useCommand(`/${tray.tray.slug}/decide`);
  useAnswered(outcome, command.isAnswered);
  useOutcome(outcome, (added) => {
    if (added.ok !== true) return;
    const words = saidOf({ kind: "note", text: "" }, tray, target);
    notice(words, { action: { label: say("common.undo"), onClick: () => undo(added.batchId) } });
    onClose();
  });
  const add = (text: string) => {
    // Only whom it names can be in the way of a note: one that names nobody is shown as done at once.
    if (target.everything !== null || !text.includes("@")) {
      onDecide({ kind: "note", text });
      return onClose();
    }
    const form = formDataOf(decisionForm({ decision: { kind: "note", text }, rows: target.rows, target, said: "" }));
    void fetcher.submit(form, { method: "post", action: command.at(form) });
  };
  return (
    <NoteForm
      title={title}
      start={start}
      button={say("deciding.addNote")}
      isBusy={fetcher.state !== "idle"}
      problem={problemOf(say, outcome)}
      onSave={add}
      onClose={onClose}
    />
  );
}

function problemOf(say: Say<typeof decidingTexts>, outcome: DecisionOutcome | undefined): string | null {
  if (outcome === undefined || outcome.ok === true) return null;
  return outcome.ok === false ? outcome.problem : say("deciding.theServerDoesNotAnswer");
}

type EditNoteProps = {
  readonly conversationId: string;
  readonly entryId: string;
  readonly text: string;
  readonly onClose: () => void;
};

/** Writes a note of one's own anew. */
export function EditNoteDialog({ conversationId, entryId, text, onClose }: EditNoteProps) {
  const say = useSay(decidingTexts, commonTexts);
  const { tray } = useTray();
  const fetcher = useFetcher<EditNoteOutcome>();
  const outcome = fetcher.state === "idle" ? fetcher.data : undefined;
  useOutcome(outcome, (saved) => {
    if (saved.ok) onClose();
  });
  const action = `/${tray.slug}/notes/${conversationId}/${entryId}`;
  return (
    <NoteForm
      title={say("deciding.editNote")}
      start={text}
      button={say("common.save")}
      isBusy={fetcher.state !== "idle"}
      problem={outcome?.ok === false ? outcome.problem : null}
      onSave={(changed) => void fetcher.submit({ text: changed }, { method: "post", action })}
      onClose={onClose}
    />
  );
}

type NoteFormProps = {
  readonly title: string;
  readonly start: string;
  readonly button: string;
  readonly isBusy: boolean;
  /** What the server had against it. */
  readonly problem: string | null;
  readonly onSave: (text: string) => void;
  readonly onClose: () => void;
};

function NoteForm({ title, start, button, isBusy, problem: refused, onSave, onClose }: NoteFormProps) {
  const say = useSay(decidingTexts, commonTexts);
  const id = useId();
  const [text, setText] = useState(start);
  const [isEmpty, setEmpty] = useState(false);
  const field = useRef<HTMLTextAreaElement>(null);
  const menu = useMentionMenu(field, text, setText);
  const outside = useOutsiders(text);
  const problem = isEmpty ? say("deciding.writeSomethingFirst") : (outside ?? refused);
  const save = () => {
    setEmpty(text.trim() === "");
    if (text.trim() !== "" && outside === null && !isBusy) onSave(text);
  };
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title={title}
      description={say("deciding.forColleaguesOnlyNeverSent")}
      size="wide"
    >
      <form
        className="p-4"
        onSubmit={(event) => {
          event.preventDefault();
          save();
        }}
      >
        <label htmlFor={id} className="sr-only">
          {say("deciding.note")}
        </label>
        <div className="relative">
          <textarea
            ref={field}
            id={id}
            value={text}
            onChange={(event) => setText(event.target.value)}
            onKeyDown={(event) => {
              if (menu.onKey(event)) return;
              if (event.key === "Enter" && (event.ctrlKey || event.metaKey)) save();
            }}
            onSelect={menu.look}
            aria-invalid={problem !== null}
            aria-describedby={problem === null ? undefined : `${id}-problem`}
            {...menu.aria}
            rows={5}
            className="w-full rounded-control border border-dotted border-faint bg-ground p-2.5 italic aria-invalid:border-late"
          />
          <MentionMenu {...menu} />
        </div>
        {problem !== null && (
          <p id={`${id}-problem`} className="text-sm text-late">
            {problem}
          </p>
        )}
        <div className="mt-2 flex justify-end gap-2">
          <Button look="quiet" onClick={onClose}>
            {say("common.cancel")}
          </Button>
          <Button look="filled" type="submit" disabled={isBusy}>
            {button} <KeyCap>{say("deciding.ctrl")}</KeyCap>
          </Button>
        </div>
      </form>
    </Dialog>
  );
}

/** Says as one types that somebody who is named would not see the note; null when all would. */
function useOutsiders(text: string): string | null {
  const say = useSay(decidingTexts);
  const { tray } = useTray();
  const { load, data } = useFetcher<PeopleAnswer>();
  const names = text.includes("@");
  useEffect(() => {
    if (names) void load(`/${tray.slug}/people`);
  }, [names, load, tray.slug]);
  const people = data?.people ?? [];
  const named = mentionsIn(text, people).map(({ memberId }) => people.find((one) => one.id === memberId));
  const outside = [...new Set(named.flatMap((one) => (one === undefined || one.mayLook ? [] : [one.name])))];
  if (outside.length === 0) return null;
  return say("deciding.cannotLookIntoThisTray", { outside: outside.join(say("deciding.and")) });
}
