import { useEffect, useRef, useState } from "react";
import { Link, useFetcher, useLocation, useNavigate } from "react-router";
import { looseAddress, printMailboxes } from "../../../core/kernel/email-address";
import type { Draft } from "../../../core/writing/draft";
import { commonTexts } from "../../../texts/en/common";
import { writingTexts } from "../../../texts/en/writing";
import type { OpeningView } from "../../server/writing/opening-view.server";
import { Button, KeyCap } from "../../ui/button";
import { notice } from "../../ui/notices";
import { Page } from "../../ui/page";
import { useSay } from "../../ui/texts/use-say";
import { DifferingDrafts } from "../drafts/differing-drafts";
import { DraftState } from "../drafts/draft-state";
import { useKeptDraft } from "../drafts/use-kept-draft";
import { useTray } from "../frame/tray-data";
import { useAnswered, useCommand } from "../frame/use-command";
import { type LaterFields, SendLater } from "../later-letters/send-later";
import { usePlanned } from "../later-letters/use-planned";
import { SendButton } from "../sending/send-button";
import { LetterBody } from "./letter-body";
import { letterFields } from "./letter-fields";
import { LetterHead } from "./letter-head";
import { LetterOptions } from "./letter-options";
import { SendAndFile } from "./send-and-file";
import { useLetterKeys } from "./use-letter-keys";
import type { WriteOutcome } from "./write-outcome";

/** Writes to somebody, about a record or about none. What is typed is kept until it is sent, also on other devices. */
export function WriteScreen({ letter }: { letter: OpeningView }) {
  const say = useSay(writingTexts, commonTexts);
  const { tray } = useTray();
  const { data, state, submit } = useFetcher<WriteOutcome>();
  const navigate = useNavigate();
  const { draft, change, file, forget, ...kept } = useFirstDraft(letter);
  const [isAttaching, setAttaching] = useState(false);
  const outcome = state === "idle" ? data : undefined;
  const command = useCommand(`/${tray.slug}/write`);
  const leave = useLeave(letter.record === null ? "to-sort" : `records/${letter.record.code}`);
  const onPlanned = usePlanned(() => void navigate(`/${tray.slug}/going-later`));
  useAnswered(outcome, command.isAnswered);
  useEffect(() => {
    if (outcome?.ok !== true) return;
    forget();
    if ("planned" in outcome) return onPlanned(outcome.planned);
    notice(say("writing.onItsWay"));
    void navigate(`/${tray.slug}/open/${outcome.conversationId}`);
  }, [outcome, forget, navigate, onPlanned, tray.slug, say]);
  const keys = useLetterKeys(leave);
  const { problems, problem, asked } = outcome?.ok === false ? outcome : NO_PROBLEMS;
  const { files } = draft;
  // What the record that it is filed on asked for, once it has been said.
  const fields = useRef("");
  const send = (later: LaterFields | null = null) => {
    if (isAttaching) return;
    const body = { ...letterFields(draft, fields.current), ...later, ownDraft: kept.id() };
    void submit(body, { method: "post", action: command.at(body) });
  };
  return (
    <Page title={say("writing.aNewMessage")} beside={<Beside letter={letter} files={files} />}>
      <form
        aria-label={say("writing.aNewMessage")}
        className="max-w-4xl px-4 py-4 lg:px-6"
        onSubmit={(event) => {
          event.preventDefault();
          send();
        }}
        {...keys}
      >
        {kept.state.kind === "differs" && (
          <DifferingDrafts here={draft} there={kept.state.there} onHere={kept.goOnHere} onThere={kept.goOnThere} />
        )}
        <LetterHead draft={draft} change={change} problems={problems} begins={letter.start.to === ""}>
          <Suggested people={letter.people} to={draft.to} onChoose={(to) => change({ to })} />
        </LetterHead>
        {files !== undefined && draft.subject.includes(`[${files.code}]`) && (
          <p className="mt-1.5 text-sm text-soft">{say("writing.inTheSubjectLetsAn", { code: files.code })}</p>
        )}
        <LetterBody
          key={kept.turn}
          draft={draft}
          change={change}
          problems={problems}
          problem={problem}
          records={files === undefined ? [] : [files.code]}
          conversationId={null}
          onAttaching={setAttaching}
        />
        <LetterOptions draft={draft} change={change}>
          <SendAndFile
            files={files}
            asked={asked}
            onFile={(chosen) => {
              fields.current = "";
              file(chosen);
            }}
            onFields={(given) => {
              fields.current = given;
              send();
            }}
          />
        </LetterOptions>
        <div className="mt-3 flex flex-wrap items-center gap-2">
          <SendButton
            words={files === undefined ? say("writing.send") : say("writing.sendAndFile")}
            isSending={state !== "idle"}
            isAttaching={isAttaching}
          />
          <SendLater
            draft={draft}
            conversationId={null}
            isDisabled={isAttaching || state !== "idle"}
            onLater={(later) => send(later)}
          />
          <Button look="quiet" onClick={leave}>
            {say("common.close")} <KeyCap>{say("writing.esc")}</KeyCap>
          </Button>
          <DraftState state={kept.state} isOwn onKeepAsNew={kept.goOnAsNew} />
        </div>
      </form>
    </Page>
  );
}

const NO_PROBLEMS: Omit<Extract<WriteOutcome, { ok: false }>, "ok"> = { problems: {}, problem: null };

const tokenOf = (code: string) => ` [${code}]`;

/** The draft of a first message: as it was left, else as the page begins it. */
function useFirstDraft({ id, record, start, there }: OpeningView) {
  const { dateChoices } = useTray();
  const kept = useKeptDraft({
    name: `first ${id}`,
    newId: id,
    there,
    conversationId: null,
    isOwn: true,
    begin: () => {
      const about = record === null ? {} : { files: { id: record.id, code: record.code } };
      return { ...start, ...about, after: "expect", day: dateChoices[2]?.day ?? "" };
    },
  });
  return {
    ...kept,
    // Its code goes into the subject, where it lets an answer find the record, and another one's out of it.
    file: (chosen: NonNullable<Draft["files"]> | null) =>
      kept.setDraft(({ files, subject, ...before }) => {
        const bare = files === undefined ? subject : subject.replace(tokenOf(files.code), "");
        if (chosen === null) return { ...before, subject: bare };
        return { ...before, subject: `${bare}${tokenOf(chosen.code)}`, files: chosen };
      }),
  };
}

/** Goes back to where one came from; to a place of the tray where the page was opened by itself. */
function useLeave(place: string): () => void {
  const { tray } = useTray();
  const navigate = useNavigate();
  const { key } = useLocation();
  return () => void (key === "default" ? navigate(`/${tray.slug}/${place}`) : navigate(-1));
}

type BesideProps = { readonly letter: OpeningView; readonly files: Draft["files"] };

/** Which record it is about, where it is about one; and the way to what else is written. */
function Beside({ letter: { record }, files }: BesideProps) {
  const say = useSay(writingTexts);
  const { tray } = useTray();
  return (
    <>
      {files !== undefined && (
        <span className="text-soft">
          {say("writing.about")}{" "}
          <Link to={`/${tray.slug}/records/${files.code}`} className="text-act underline underline-offset-2">
            {files.code}
            {record?.id === files.id && ` ${record.title}`}
          </Link>
          {say("writing.andFiledThere")}
        </span>
      )}
      <Link to={`/${tray.slug}/drafts`} className="ms-auto text-act hover:underline">
        {say("writing.drafts")}
      </Link>
    </>
  );
}

type SuggestedProps = {
  readonly people: OpeningView["people"];
  readonly to: string;
  readonly onChoose: (to: string) => void;
};

/** Those of the record to whom it does not go yet. */
function Suggested({ people, to, onChoose }: SuggestedProps) {
  const say = useSay(writingTexts);
  const others = people.filter(({ address }) => !to.includes(address));
  if (others.length === 0) return null;
  return (
    <p className="flex flex-wrap items-center gap-x-3 pl-[52px] text-sm sm:col-span-2">
      <span className="text-soft">{say("writing.ofThisRecord")}</span>
      {others.map(({ name, address }) => (
        <button
          key={address}
          type="button"
          className="min-h-6 text-act underline-offset-2 hover:underline"
          onClick={() =>
            onChoose([to, printMailboxes([{ name, address: looseAddress(address) }])].filter(Boolean).join(", "))
          }
        >
          {name || address}
        </button>
      ))}
    </p>
  );
}
