import type { Draft, KeptDraft } from "../../../core/writing/draft";
import { commonTexts } from "../../../texts/en/common";
import { writingTexts } from "../../../texts/en/writing";
import { Button } from "../../ui/button";
import { useSay } from "../../ui/texts/use-say";
import { textOfDraft } from "./text-of-draft";

type DifferingDraftsProps = {
  readonly here: Draft;
  readonly there: KeptDraft;
  readonly onHere: (there: KeptDraft) => void;
  readonly onThere: (there: KeptDraft) => void;
};

/** Two versions of a draft, one of them written on another device: its writer says with which it goes on. */
export function DifferingDrafts({ here, there, onHere, onThere }: DifferingDraftsProps) {
  const say = useSay(writingTexts);
  return (
    <section aria-label={say("writing.twoVersions")} className="mb-3 border-l-2 border-late pl-3">
      <p role="alert" className="font-semibold">
        {say("writing.anotherDeviceWroteToo")}
      </p>
      <div className="mt-2 grid gap-3 sm:grid-cols-2">
        <Version name={say("writing.onThisDevice")} draft={here} onChoose={() => onHere(there)} />
        <Version name={say("writing.onAnotherDevice")} draft={there.draft} onChoose={() => onThere(there)} />
      </div>
    </section>
  );
}

type VersionProps = { readonly name: string; readonly draft: Draft; readonly onChoose: () => void };

function Version({ name, draft, onChoose }: VersionProps) {
  const say = useSay(writingTexts, commonTexts);
  return (
    <section aria-label={name} className="flex flex-col rounded-control border border-rule bg-paper px-3 py-2">
      <h3 className="text-sm font-semibold">{name}</h3>
      <p dir="auto" className="truncate text-sm text-soft">
        {say("writing.toWhom", { to: draft.to || say("writing.nobodyYet") })}
      </p>
      <p dir="auto" className="truncate font-serif">
        {draft.subject || say("common.noSubject")}
      </p>
      <p dir="auto" className="mt-1 max-h-32 flex-1 overflow-y-auto text-sm whitespace-pre-line">
        {textOfDraft(draft)}
      </p>
      <p className="mt-2">
        <Button className="h-7" aria-label={say("writing.goOnWith", { name })} onClick={onChoose}>
          {say("writing.goOnWithThis")}
        </Button>
      </p>
    </section>
  );
}
