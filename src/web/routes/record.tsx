import { data, Link } from "react-router";
import { dayAndTime } from "../../core/standing/day-words";
import { STANDING_NAMES } from "../../core/standing/standing";
import { recordPage } from "../../operations/index.server";
import { FiledConversation } from "../screens/filed-conversation";
import { useTray } from "../screens/tray-data";
import { depsContext, grantContext, memberContext } from "../server/context.server";
import { readingOf, rowView } from "../server/words.server";
import type { Route } from "./+types/record";

export function meta({ params }: Route.MetaArgs) {
  return [{ title: `${params.code} · Common Tray` }];
}

export async function loader({ params, context }: Route.LoaderArgs) {
  const [deps, member] = [context.get(depsContext), context.get(memberContext)];
  const page = await recordPage(deps, context.get(grantContext), params.code);
  if (page === null) throw data("There is no record of this code.", { status: 404 });
  const reading = readingOf(member, deps.now());
  return {
    record: page.record,
    parent: page.parent === null ? null : { code: page.parent.code, title: page.parent.title },
    now: reading.now,
    conversations: page.conversations.map(({ messages, traySlug, ...row }) => ({
      row: rowView(row, reading),
      traySlug,
      standingName: STANDING_NAMES[row.standing],
      messages: messages.map(({ direction, fromName, ownText, sentAt }) => ({
        ours: direction === "out",
        who: fromName,
        text: ownText,
        when: dayAndTime(sentAt, reading.now, reading.zone),
      })),
    })),
  };
}

export default function RecordPage({ loaderData: { record, parent, conversations, now } }: Route.ComponentProps) {
  const { tray } = useTray();
  const open = conversations.filter(({ row }) => row.standing !== "settled" && row.standing !== "bin");
  return (
    <main className="mx-2 mt-2 min-h-0 flex-1 overflow-y-auto rounded-t-sheet border border-b-0 border-rule bg-paper sm:mx-4 sm:mt-2.5">
      <header className="border-b border-rule px-5 pt-4 pb-3">
        <p className="text-sm text-soft">
          <Link to={`/${tray.slug}/records`} className="text-act hover:underline">
            Records
          </Link>
          {parent !== null && (
            <>
              {" / "}
              <Link to={`/${tray.slug}/records/${parent.code}`} className="text-act hover:underline">
                {parent.code} {parent.title}
              </Link>
            </>
          )}
        </p>
        <h1 className="font-serif text-2xl">{record.title}</h1>
        <p className="text-soft">
          {record.code} · {record.kind}
          {record.closed ? ", closed" : ""} ·{" "}
          {conversations.length === 1 ? "1 conversation" : `${conversations.length} conversations`}
          {open.length > 0 && `, ${open.length} open`}
        </p>
      </header>
      {conversations.length === 0 && (
        <p className="px-5 py-6 text-soft">
          Nothing is filed here yet. Open a conversation and press f to file it to {record.code}.
        </p>
      )}
      {conversations.map((conversation) => (
        <FiledConversation key={conversation.row.id} {...conversation} now={now} />
      ))}
    </main>
  );
}
