import { useEffect, useRef, useState } from "react";
import { Link, useFetcher, useNavigate } from "react-router";
import { looseAddress, printMailboxes } from "../../../core/kernel/email-address";
import { commonTexts } from "../../../texts/en/common";
import { writingTexts } from "../../../texts/en/writing";
import { Field } from "../../ui/field";
import { notice } from "../../ui/notices";
import { Page } from "../../ui/page";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";
import { useAnswered, useCommand } from "../frame/use-command";
import { LetterBody } from "./letter-body";
import { type Draft, forgetLocalDraft, localDraft, saveLocalDraft } from "./local-draft";
import { SendButton } from "./send-button";
import type { WriteOutcome } from "./write-outcome";

type WriteScreenProps = {
  readonly letter: {
    readonly id: string;
    readonly code: string;
    readonly title: string;
    readonly people: readonly { readonly name: string; readonly address: string }[];
  };
};

/** Writes to somebody about a record. What is typed is kept in the browser until it is sent. */
export function WriteScreen({ letter: { id, code, title, people } }: WriteScreenProps) {
  const say = useSay(writingTexts, commonTexts);
  const { tray, dateChoices } = useTray();
  const { data, state, submit } = useFetcher<WriteOutcome>();
  const navigate = useNavigate();
  const keptAs = `about ${id}`;
  const blank: Draft = {
    to: "",
    cc: "",
    subject: ` [${code}]`,
    html: "",
    after: "expect",
    day: dateChoices[2]?.day ?? "",
  };
  const [draft, setDraft] = useState<Draft>(() => localDraft(keptAs) ?? blank);
  const [isAttaching, setAttaching] = useState(false);
  const form = useRef<HTMLFormElement>(null);
  const begun = useRef(draft);
  useEffect(() => {
    if (draft !== begun.current) saveLocalDraft(keptAs, draft);
  }, [keptAs, draft]);
  const outcome = state === "idle" ? data : undefined;
  const command = useCommand(`/${tray.slug}/write`);
  useAnswered(outcome, command.isAnswered);
  useEffect(() => {
    if (outcome?.ok !== true) return;
    forgetLocalDraft(keptAs);
    notice(say("writing.onItsWay"));
    void navigate(`/${tray.slug}/open/${outcome.conversationId}`);
  }, [outcome, keptAs, navigate, tray.slug, say]);
  const change = (part: Partial<Draft>) => setDraft((before) => ({ ...before, ...part }));
  const problems = outcome?.ok === false ? outcome.problems : {};
  const others = people.filter(({ address }) => !draft.to.includes(address));
  const send = () => {
    if (isAttaching) return;
    const promises = JSON.stringify(draft.promises ?? []);
    const enclosures = JSON.stringify(draft.enclosures ?? []);
    const body = { ...draft, promises, enclosures, record: id };
    void submit(body, { method: "post", action: command.at(body) });
  };
  return (
    <Page
      title={say("writing.aNewMessage")}
      beside={
        <span className="text-soft">
          {say("writing.about")}{" "}
          <Link to={`/${tray.slug}/records/${code}`} className="text-act hover:underline">
            {code} {title}
          </Link>
          {say("writing.andFiledThere")}
        </span>
      }
    >
      <form
        ref={form}
        aria-label={say("writing.aNewMessage")}
        className="max-w-4xl px-4 py-4 lg:px-6"
        onSubmit={(event) => {
          event.preventDefault();
          send();
        }}
        onKeyDown={(event) => {
          if (event.key === "Enter" && (event.ctrlKey || event.metaKey)) form.current?.requestSubmit();
        }}
      >
        <div className="grid gap-y-1.5">
          <Field
            inline
            label={say("writing.to")}
            value={draft.to}
            onChange={(event) => change({ to: event.target.value })}
            problem={problems.to}
            autoComplete="off"
            autoFocus
          />
          {others.length > 0 && (
            <p className="flex flex-wrap items-center gap-x-3 pl-[52px] text-sm">
              <span className="text-soft">{say("writing.ofThisRecord")}</span>
              {others.map(({ name, address }) => (
                <button
                  key={address}
                  type="button"
                  className="min-h-6 text-act underline-offset-2 hover:underline"
                  onClick={() =>
                    change({
                      to: [draft.to, printMailboxes([{ name, address: looseAddress(address) }])]
                        .filter(Boolean)
                        .join(", "),
                    })
                  }
                >
                  {name || address}
                </button>
              ))}
            </p>
          )}
          <Field
            inline
            label={say("writing.cc")}
            value={draft.cc}
            onChange={(event) => change({ cc: event.target.value })}
            problem={problems.cc}
            autoComplete="off"
          />
          <Field
            inline
            label={say("common.subject")}
            value={draft.subject}
            onChange={(event) => change({ subject: event.target.value })}
            problem={problems.subject}
            autoComplete="off"
          />
          <p className="pl-[52px] text-sm text-soft">{say("writing.inTheSubjectLetsAn", { code })}</p>
        </div>
        <LetterBody
          draft={draft}
          change={change}
          problems={problems}
          problem={outcome?.ok === false ? outcome.problem : null}
          records={[code]}
          onAttaching={setAttaching}
        />
        <div className="mt-3 flex flex-wrap items-center gap-2">
          <SendButton words={say("writing.sendAndFile")} isSending={state !== "idle"} isAttaching={isAttaching} />
          <span className="text-sm text-soft">{say("writing.theDraftIsKeptOn")}</span>
        </div>
      </form>
    </Page>
  );
}
