import { useEffect, useRef, useState } from "react";
import { useFetcher } from "react-router";
import type { Draft, KeptDraft } from "../../../core/writing/draft";
import { commonTexts } from "../../../texts/en/common";
import { writingTexts } from "../../../texts/en/writing";
import type { Say } from "../../../texts/say";
import type { AnswerOutcome } from "../../routes/writing/answer";
import type { DraftOutcome } from "../../routes/writing/drafts";
import type { DraftView, PassOnView } from "../../server/conversation/conversation-view.server";
import { notice } from "../../ui/notices";
import { useSay } from "../../ui/texts/use-say";
import { Tick } from "../../ui/tick";
import { DifferingDrafts } from "../drafts/differing-drafts";
import { DraftState } from "../drafts/draft-state";
import { passedOn, useKeptDraft } from "../drafts/use-kept-draft";
import { useOutcome } from "../forms/use-form-action";
import { useTray } from "../frame/tray-data";
import { useAnswered, useCommand } from "../frame/use-command";
import type { LaterFields } from "../later-letters/send-later";
import { usePlanned } from "../later-letters/use-planned";
import { ComposerWays } from "../sending/composer-ways";
import { chosenPassage } from "./chosen-passage";
import { HandOverDraft } from "./hand-over-draft";
import { LetterBody } from "./letter-body";
import { letterFields } from "./letter-fields";
import { LetterHead } from "./letter-head";
import { LetterOptions } from "./letter-options";
import { SendAndFile } from "./send-and-file";
import { useLetterKeys } from "./use-letter-keys";

type ComposerProps = {
  readonly conversationId: string;
  /** How it begins; what happens then as she chose for the same person the last time. */
  readonly start: Pick<Draft, "to" | "cc" | "subject" | "after" | "whom">;
  /** The conversation as it is now: its version, and the messages in it. */
  readonly version: number;
  /** The codes of the records that it is filed on, whose documents can go with it. */
  readonly recordCodes: readonly string[];
  readonly messages: readonly { readonly id: string; readonly who: string; readonly ours: boolean }[];
  /** What one began of it before, as the server had it when the page was read; null for nothing. */
  readonly ownDraft: KeptDraft | null;
  /** The shared draft that is written on; null for an answer of one's own. */
  readonly shared: DraftView | null;
  /** The message that is passed on with it; null for an answer. */
  readonly passOn: PassOnView | null;
  readonly onClose: () => void;
  /** It goes later; left out for closing it. */
  readonly onPlanned?: () => void;
  readonly onSent: (sent: { readonly messageId: string; readonly holdMs: number }) => void;
};

/** Writes an answer. What is typed is kept until it is sent, through reloads, refusals and on other devices. */
export function Composer(props: ComposerProps) {
  const say = useSay(writingTexts, commonTexts);
  const { conversationId, version, recordCodes, messages, shared, passOn, onClose, onSent } = props;
  const { tray, dateChoices } = useTray();
  const fetcher = useFetcher<AnswerOutcome>();
  const isOwn = shared === null;
  const kept = useKeptDraft({
    name: keptName(props),
    there: isOwn ? props.ownDraft : { id: shared.id, version: shared.version, draft: shared.content },
    begin: () => startOf(props, dateChoices[2]?.day ?? ""),
    conversationId,
    isOwn,
  });
  const { draft, change, forget } = kept;
  const [seen, setSeen] = useState({ version, messages: messages.map(({ id }) => id) });
  const newer = messages.filter(({ id }) => !seen.messages.includes(id)).at(-1);
  const [isAttaching, setAttaching] = useState(false);
  const keys = useLetterKeys(onClose);
  const onPlanned = usePlanned(props.onPlanned ?? onClose);
  const outcome = fetcher.state === "idle" ? fetcher.data : undefined;
  const command = useCommand(`/${tray.slug}/answer/${conversationId}`);
  useAnswered(outcome, command.isAnswered);
  useEffect(() => {
    if (outcome?.ok !== true) return;
    forget();
    if ("planned" in outcome) onPlanned(outcome.planned);
    else onSent(outcome);
  }, [outcome, forget, onSent, onPlanned]);
  const { problems, problem, mayInsist, asked } = outcome?.ok === false ? outcome : NOTHING_WRONG;
  // What the record that it is filed on asked for, once it has been said.
  const fields = useRef("");
  const send = (anyway: "on" | "" = "", later: LaterFields | null = null) => {
    if (isAttaching) return;
    const ofOwn = isOwn ? { ownDraft: kept.id() } : {};
    const how = { ...ofOwn, ...later, version: seen.version, anyway };
    const body = { ...postedLetter(draft, props, fields.current), ...how };
    void fetcher.submit(body, { method: "post", action: command.at(body) });
  };
  const handing = useHanding(conversationId, shared, kept, () => {
    forget();
    onClose();
  });
  return (
    <form
      aria-label={passOn === null ? say("common.answer") : say("writing.forward")}
      className="max-h-[72%] shrink-0 overflow-y-auto border-t border-rule bg-ours px-4 pt-3 lg:scroll-pb-20 lg:px-6"
      onSubmit={(event) => {
        event.preventDefault();
        send();
      }}
      {...keys}
    >
      {newer !== undefined && (
        <Newer message={newer} onRead={() => setSeen({ version, messages: messages.map(({ id }) => id) })} />
      )}
      {kept.state.kind === "differs" && (
        <DifferingDrafts here={draft} there={kept.state.there} onHere={kept.goOnHere} onThere={kept.goOnThere} />
      )}
      <LetterHead draft={draft} change={change} problems={problems} />
      <LetterBody
        key={kept.turn}
        draft={draft}
        change={change}
        problems={problems}
        problem={null}
        records={codesFor(recordCodes, draft)}
        conversationId={conversationId}
        onAttaching={setAttaching}
      >
        {passOn !== null && <Forwarding who={passOn.who} draft={draft} change={change} />}
      </LetterBody>
      <LetterOptions draft={draft} change={change}>
        {passOn === null && (
          <SendAndFile
            files={draft.files}
            asked={asked}
            onFile={(files) => {
              fields.current = "";
              kept.setDraft(({ files: _, ...before }) => (files === null ? before : { ...before, files }));
            }}
            onFields={(given) => {
              fields.current = given;
              send();
            }}
          />
        )}
      </LetterOptions>
      {/* Where there is room for both, it can be sent without scrolling to the end of it. */}
      <div className="-mx-4 mt-3 border-t border-hair bg-ours px-4 py-2.5 lg:sticky lg:bottom-0 lg:z-10 lg:-mx-6 lg:px-6">
        <ComposerWays
          problem={problem}
          words={sendWords(say, shared, passOn)}
          isSending={fetcher.state !== "idle"}
          isAttaching={isAttaching}
          onInsist={mayInsist === true ? () => send("on") : null}
          later={isOwn ? { draft, conversationId, onLater: (later) => send("", later) } : null}
          handing={passOn === null ? handing : null}
          onClose={onClose}
        >
          <DraftState state={kept.state} isOwn={isOwn} onKeepAsNew={kept.goOnAsNew} />
        </ComposerWays>
        {handing.isOpen && <HandOverDraft problems={handing.problems} isBusy={handing.isBusy} onHand={handing.hand} />}
        {handing.problem !== null && (
          <p role="alert" className="mt-2 text-late">
            {handing.problem}
          </p>
        )}
      </div>
    </form>
  );
}

const NOTHING_WRONG: Omit<Extract<AnswerOutcome, { ok: false }>, "ok"> = { problems: {}, problem: null };

/** A draft as it is posted, with the one that it was shared as and the message that it passes on. */
function postedLetter(draft: Draft, { shared, passOn }: ComposerProps, fields: string) {
  return {
    ...letterFields(draft, fields),
    ...(shared === null ? {} : { draft: shared.id, draftVersion: shared.version }),
    ...(passOn === null ? {} : { passesOn: passOn.messageId }),
  };
}

/** The records whose documents can go with it: those that it is filed on, and the one that it is to be. */
function codesFor(codes: readonly string[], { files }: Draft): readonly string[] {
  return files === undefined || codes.includes(files.code) ? codes : [...codes, files.code];
}

function keptName({ conversationId, shared, passOn }: ComposerProps): string {
  return passOn === null ? (shared?.id ?? conversationId) : passedOn(conversationId);
}

function startOf({ start, passOn }: ComposerProps, day: string): Draft {
  if (passOn === null) return { ...start, html: chosenPassage(), day };
  return { ...passOn.start, html: passOn.html, after: "expect", day, passesOn: passOn.messageId };
}

type NewerProps = { readonly message: ComposerProps["messages"][number]; readonly onRead: () => void };

/** Says that a message came, or a colleague's answer went, since one began to write. */
function Newer({ message: { who, ours }, onRead }: NewerProps) {
  const say = useSay(writingTexts);
  return (
    <p role="alert" className="mb-2 flex flex-wrap items-center gap-3 border-l-2 border-late pl-3 text-sm">
      <b className="font-semibold">{say("writing.whileYouWereWriting", { who, ours: ours ? "yes" : "no" })}</b>
      {say("writing.itStandsAbove")}
      <button type="button" onClick={onRead} className="text-act hover:underline">
        {say("writing.iHaveReadIt")}
      </button>
    </p>
  );
}

type ForwardingProps = {
  readonly who: string;
  readonly draft: Pick<Draft, "informs" | "wordsOnly">;
  readonly change: (part: Partial<Draft>) => void;
};

/** How a message is passed on: with its files or without, and whether whoever wrote it is told. */
function Forwarding({ who, draft: { informs: text = "", wordsOnly }, change }: ForwardingProps) {
  const say = useSay(writingTexts);
  const usual = say("writing.thankYouForYourMessage");
  return (
    <div className="mt-2.5 grid gap-1">
      <Tick checked={wordsOnly !== "on"} onTick={(isOn) => change({ wordsOnly: isOn ? "" : "on" })}>
        {say("writing.withTheMessageItself")}
      </Tick>
      <Tick checked={text !== ""} onTick={(isOn) => change({ informs: isOn ? usual : "" })}>
        {say("writing.tellThatItWasForwarded", { who })}
      </Tick>
      {text !== "" && (
        <textarea
          aria-label={say("writing.whatIsTold", { who })}
          rows={3}
          value={text}
          onChange={(event) => change({ informs: event.target.value })}
          className="mt-1 w-full rounded-control border border-rule bg-paper px-2.5 py-1.5"
        />
      )}
    </div>
  );
}

/** Gives the draft to a colleague, who finds it with the conversation. */
function useHanding(
  conversationId: string,
  shared: DraftView | null,
  { draft, id }: Pick<ReturnType<typeof useKeptDraft>, "draft" | "id">,
  onHanded: () => void,
) {
  const say = useSay(writingTexts);
  const { tray } = useTray();
  const fetcher = useFetcher<DraftOutcome>();
  const [isOpen, setOpen] = useState(false);
  const outcome = fetcher.state === "idle" ? fetcher.data : undefined;
  const command = useCommand(`/${tray.slug}/drafts/${conversationId}`);
  useAnswered(outcome, command.isAnswered);
  useOutcome(outcome, (handed) => {
    if (!handed.ok) return;
    notice(say("writing.draftHandedOver"));
    onHanded();
  });
  const { to, cc, bcc = "", subject, html, after, day, enclosures, template, categories } = letterFields(draft, "");
  const given = {
    ...(template === undefined ? {} : { template }),
    ...(categories === undefined ? {} : { categories }),
  };
  const content = { to, cc, bcc, subject, html, after, day, enclosures, ...given };
  const problems = outcome?.ok === false ? outcome.problems : {};
  return {
    isOpen,
    problems,
    toggle: () => setOpen(!isOpen),
    isBusy: fetcher.state !== "idle",
    problem: problems.html ?? (outcome?.ok === false ? outcome.problem : null),
    hand: (given: { readonly member: string; readonly note: string }) => {
      const ofDraft = shared === null ? { ownDraft: id() } : { draft: shared.id, version: shared.version };
      const body = { do: "hand", ...content, ...given, ...ofDraft };
      void fetcher.submit(body, { method: "post", action: command.at(body) });
    },
  };
}

function sendWords(say: Say<typeof writingTexts>, shared: DraftView | null, passOn: PassOnView | null): string {
  if (passOn !== null) return say("writing.forward");
  return shared === null ? say("writing.send") : say("writing.approveAndSend");
}
