import { Link, useSearchParams } from "react-router";
import type { MailView } from "../../server/records/record-view.server";
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
  const [params] = useSearchParams();
  const halves = [
    ["Open", conversations.filter(({ isOpen }) => isOpen)],
    ["Settled", conversations.filter(({ isOpen }) => !isOpen)],
  ] as const;
  const isEmpty = conversations.length + parts.length === 0;
  const more = new URLSearchParams(params);
  more.set("most", String(conversations.length + MORE));
  return (
    <>
      <RecordLook code={code} text={text} part="mail" hint="words in its messages" />
      {isEmpty && (
        <p className="px-5 py-6 text-soft">
          {text === ""
            ? `Nothing is filed here yet. Open a conversation and press f to file it to ${code}.`
            : `No message on ${code} has “${text}”.`}
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
            Show {MORE} more
          </Link>
        </p>
      )}
      {parts.length > 0 && <Parts parts={parts} />}
    </>
  );
}

function Heading({ name, count, isMore }: { readonly name: string; readonly count: number; readonly isMore: boolean }) {
  return (
    <h2 className="flex items-baseline gap-2 border-b border-rule bg-ground px-5 py-0.5 text-sm font-semibold">
      {name}{" "}
      <span className="font-normal text-soft">
        {count.toLocaleString("en")}
        {isMore && " so far"}
      </span>
    </h2>
  );
}

function Parts({ parts }: { readonly parts: MailView["parts"] }) {
  return (
    <section aria-label="Filed alone">
      <Heading name="Filed alone" count={parts.length} isMore={false} />
      <ul>
        {parts.map((part) => (
          <li key={`${part.messageId} ${part.attachment}`} className="border-b border-hair px-5 py-2.5">
            <p className="flex flex-wrap items-baseline gap-x-3">
              <Link
                to={`/${part.traySlug}/open/${part.conversationId}`}
                className="min-w-0 truncate font-serif text-[16px] hover:text-act hover:underline"
              >
                {part.fileName ?? (part.subject || "(no subject)")}
              </Link>
              <span className="ml-auto text-sm text-soft">{part.when}</span>
            </p>
            <p className="line-clamp-2 text-[13.5px]">
              <b className="font-semibold">{part.who}</b>{" "}
              <span className="text-soft">
                {part.fileName === null ? part.text : `an attachment of “${part.subject || "(no subject)"}”`}
              </span>
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}
