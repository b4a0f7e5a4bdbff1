import { useState } from "react";
import { Form, Link } from "react-router";
import { STANDING_NAMES } from "../../../core/standing/standing";
import { dayAndTime } from "../../../core/time/day-words";
import { type SearchResult, search } from "../../../operations/index.server";
import { commonTexts } from "../../../texts/en/common";
import { listTexts } from "../../../texts/en/list";
import type { Say } from "../../../texts/say";
import { OwnerBadge } from "../../screens/frame/owner-badge";
import { useTray } from "../../screens/frame/tray-data";
import { ExportDialog } from "../../screens/records/export-dialog";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { speak } from "../../server/base/say.server";
import { Dialog } from "../../ui/dialog";
import { MarkedText } from "../../ui/texts/marked-text";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/search";

const MAX_QUERY_CHARACTERS = 500;

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, commonTexts, "common.search");
}

export async function loader({ request, context }: Route.LoaderArgs) {
  const deps = context.get(depsContext);
  const text = (new URL(request.url).searchParams.get("q") ?? "").trim().slice(0, MAX_QUERY_CHARACTERS);
  const everywhere = new URL(request.url).searchParams.get("in") === "everywhere";
  const found = await search(deps, context.get(grantContext), text, undefined, everywhere ? "everywhere" : "kept");
  const zone = context.get(memberContext).timeZone;
  return {
    text,
    everywhere,
    results: found.map((result) => ({
      ...shown(result),
      when: speak(dayAndTime(result.row.lastMessageAt, deps.now(), zone)),
    })),
  };
}

function shown({ row, subject, from, excerpt, file }: SearchResult) {
  const { id, who, standing, recordCodes, ownerId } = row;
  return { id, who, standing, recordCodes, ownerId, subject, from, excerpt, file };
}

export default function SearchPage({ loaderData: { text, everywhere, results } }: Route.ComponentProps) {
  const say = useSay(listTexts, commonTexts);
  const { tray } = useTray();
  const [isPacking, setPacking] = useState(false);
  return (
    <main className="mx-2 mt-2 min-h-0 flex-1 overflow-y-auto rounded-t-sheet border border-b-0 border-rule bg-paper sm:mx-4 sm:mt-2.5">
      <Form role="search" className="border-b border-rule p-3 sm:hidden">
        <input
          type="search"
          name="q"
          aria-label={say("list.searchThisTray")}
          placeholder={say("list.subjectsPeopleWords")}
          defaultValue={text}
          key={text}
          // biome-ignore lint/a11y/noAutofocus: one comes here to type it
          autoFocus={text === ""}
          className="h-11 w-full rounded-control border border-rule bg-ground px-3 text-base placeholder:text-soft"
        />
      </Form>
      <div className="flex flex-wrap items-baseline gap-x-4 border-b border-rule px-5 py-3">
        <h1 className="min-w-0 flex-1 font-serif text-xl max-sm:text-base">{headingOf(say, text, results.length)}</h1>
        {text !== "" && (
          <Link
            to={`?${new URLSearchParams(everywhere ? { q: text } : { q: text, in: "everywhere" })}`}
            className="text-sm text-act hover:underline"
          >
            {everywhere ? say("list.excludeBinAndJunk") : say("list.includeBinAndJunk")}
          </Link>
        )}
        {results.length > 0 && (
          <span className="flex gap-3 text-sm text-soft">
            {say("list.exportAllOfIt")}
            {(["eml", "mbox"] as const).map((format) => (
              <a
                key={format}
                href={`/${tray.slug}/export/search?${new URLSearchParams({ q: text, format })}`}
                className="text-act hover:underline"
              >
                {format === "eml" ? say("list.emlInAZip") : say("list.mbox")}
              </a>
            ))}
            <button type="button" onClick={() => setPacking(true)} className="text-act hover:underline">
              {say("list.withDocumentsAndPdfs")}
            </button>
          </span>
        )}
      </div>
      <Dialog open={isPacking} onOpenChange={setPacking} title={say("list.exportWhatHas", { text })}>
        <div className="px-4 pt-2 pb-4">
          <p>{say("list.allConversationsFoundTheirMessages")}</p>
          <ExportDialog code={null} text={text} everywhere={everywhere} onOrdered={() => setPacking(false)} />
        </div>
      </Dialog>
      <ul>
        {results.map((result) => (
          <li key={result.id} className="relative border-b border-hair px-5 py-2.5 hover:bg-ground/70">
            <span className="flex items-baseline gap-x-3 max-sm:flex-wrap">
              <Link
                to={`/${tray.slug}/${result.standing}/${result.id}`}
                className="min-w-0 truncate font-serif text-[15px] after:absolute after:inset-0 max-sm:w-full"
              >
                <MarkedText pieces={result.subject} empty={say("common.noSubject")} />
              </Link>
              <span className="text-sm whitespace-nowrap text-soft">{result.who}</span>
              <span className="ml-auto flex items-center gap-3 text-sm whitespace-nowrap text-soft">
                {result.recordCodes.join(", ")}
                <span>{say(STANDING_NAMES[result.standing])}</span>
                <span>{result.when}</span>
                <OwnerBadge ownerId={result.ownerId} />
              </span>
            </span>
            <p className="mt-0.5 max-w-[110ch] text-sm text-soft">
              <b className="font-semibold">{result.from}:</b> <MarkedText pieces={result.excerpt} empty="" />
              {result.file !== null && (
                <span className="pl-2 text-ink">{say("list.foundIn", { file: result.file })}</span>
              )}
            </p>
          </li>
        ))}
      </ul>
    </main>
  );
}

function headingOf(say: Say<typeof listTexts>, text: string, count: number): string {
  if (text === "") return say("list.typeWhatYouAreLooking");
  if (count === 0) return say("list.nothingInThisTrayHas", { text });
  return say("list.conversationsHave", { count, text });
}
