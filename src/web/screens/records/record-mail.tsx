import { Link, useSearchParams } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { recordsTexts } from "../../../texts/en/records";
import type { MailView } from "../../server/records/record-view.server";
import { useSay } from "../../ui/texts/use-say";
import { FiledConversation } from "./filed-conversation";
import { RecordLook } from "./record-look";

type RecordMailProps = {
  readonly mail: MailView;
  readonly code: string;
  /** What was looked for in it. */
  readonly text: string;
  readonly now: number;
};

const MORE = 100;

/** The correspondence on a record: what is open first, then what is settled, then what is filed here by itself. */
export function RecordMail({ mail: { conversations, parts, isMore }, code, text, now }: RecordMailProps) {
  const say = useSay(recordsTexts, commonTexts);
  const [params] = useSearchParams();
  const halves = [
    [say("common.open"), conversations.filter(({ isOpen }) => isOpen)],
    [say("records.settled"), conversations.filter(({ isOpen }) => !isOpen)],
  ] as const;
  const isEmpty = conversations.length + parts.length === 0;
  const more = new URLSearchParams(params);
  more.set("most", String(conversations.length + MORE));
  return (
    <>
      <RecordLook code={code} text={text} part="mail" hint={say("records.wordsInItsMessages")} />
      {isEmpty && (
        <p className="px-5 py-6 text-soft">
          {text === "" ? say("records.nothingIsFiledHereYet", { code }) : say("records.noMessageOnHas", { code, text })}
        </p>
      )}
      {halves.map(([name, some]) =>
        some.length === 0 ? null : (
          <section key={name} aria-label={name}>
            <Heading name={name} count={some.length} isMore={isMore && name === "Settled"} />
            {some.map(({ isOpen: _, ...conversation }) => (
              <FiledConversation key={conversation.row.id} {...conversation} now={now} />
            ))}
          </section>
        ),
      )}
      {isMore && (
        <p className="px-5 py-3">
          <Link to={`?${more}`} preventScrollReset className="text-act hover:underline">
            {say("records.showMore", { count: MORE })}
          </Link>
        </p>
      )}
      {parts.length > 0 && <Parts parts={parts} />}
    </>
  );
}

function Heading({ name, count, isMore }: { readonly name: string; readonly count: number; readonly isMore: boolean }) {
  const say = useSay(recordsTexts);
  return (
    <h2 className="flex items-baseline gap-2 border-b border-rule bg-ground px-5 py-0.5 text-sm font-semibold">
      {name}{" "}
      <span className="font-normal text-soft">
        {say({ figure: count })}
        {isMore && say("records.soFar")}
      </span>
    </h2>
  );
}

function Parts({ parts }: { readonly parts: MailView["parts"] }) {
  const say = useSay(recordsTexts, commonTexts);
  return (
    <section aria-label={say("common.filedAlone")}>
      <Heading name={say("common.filedAlone")} count={parts.length} isMore={false} />
      <ul>
        {parts.map((part) => (
          <li key={`${part.messageId} ${part.attachment}`} className="border-b border-hair px-5 py-2.5">
            <p className="flex flex-wrap items-baseline gap-x-3">
              <Link
                to={`/${part.traySlug}/open/${part.conversationId}`}
                className="min-w-0 truncate font-serif text-[16px] hover:text-act hover:underline"
              >
                {part.fileName ?? (part.subject || say("common.noSubject"))}
              </Link>
              <span className="ml-auto text-sm text-soft">{part.when}</span>
            </p>
            <p className="line-clamp-2 text-[13.5px]">
              <b className="font-semibold">{part.who}</b>{" "}
              <span className="text-soft">
                {part.fileName === null
                  ? part.text
                  : say("records.anAttachmentOf", { subject: part.subject || say("common.noSubject") })}
              </span>
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}
