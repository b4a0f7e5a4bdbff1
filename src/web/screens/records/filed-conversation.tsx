import { Link } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { recordsTexts } from "../../../texts/en/records";
import type { RowView } from "../../server/base/row-view.server";
import { useSay } from "../../ui/texts/use-say";
import { TurnLine } from "../../ui/turn-line";

type FiledConversationProps = {
  readonly row: RowView;
  readonly traySlug: string;
  readonly standingName: string;
  readonly now: number;
  readonly messages: readonly {
    readonly ours: boolean;
    readonly who: string;
    readonly text: string;
    readonly when: string;
  }[];
};

/** A conversation on its record: its turn line and the newest messages of both sides. */
export function FiledConversation({ row, traySlug, standingName, now, messages }: FiledConversationProps) {
  const say = useSay(recordsTexts, commonTexts);
  const earlier = row.messageCount - messages.length;
  return (
    <article aria-label={row.subject} className="border-b border-rule px-5 py-3.5">
      <header className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <h2 className="min-w-0 truncate font-serif text-[17px]">
          <Link to={`/${traySlug}/${row.standing}/${row.id}`} className="hover:text-act hover:underline">
            {row.subject === "" ? say("common.noSubject") : row.subject}
          </Link>
        </h2>
        <span className="ml-auto text-sm text-soft">
          {standingName}
          {row.due !== null && <span className={row.due.over ? "font-semibold text-late" : ""}>, {row.due.words}</span>}
        </span>
        <TurnLine
          marks={row.marks}
          turn={row.turn}
          turnSince={row.turnSince}
          standing={row.standing}
          expectedAt={row.expectedAt}
          now={now}
        />
      </header>
      {earlier > 0 && <p className="text-sm text-soft">{say("records.earlierMessages", { earlier })}</p>}
      <ol className="mt-1.5 grid gap-1">
        {messages.map(({ ours, who, text, when }) => (
          <li
            key={`${when}${who}${text.slice(0, 20)}`}
            className={`grid grid-cols-[minmax(0,1fr)_auto] gap-x-4 py-1 ${ours ? "ml-8 border-l-[3px] border-act/30 bg-ours px-3" : ""}`}
          >
            <p className="line-clamp-2 text-[13.5px]">
              <b className="font-semibold">{who}</b> <span className="text-soft">{text}</span>
            </p>
            <span className="text-sm text-soft">{when}</span>
          </li>
        ))}
      </ol>
    </article>
  );
}
