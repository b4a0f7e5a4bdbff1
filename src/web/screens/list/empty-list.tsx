import { Link } from "react-router";
import type { Scope } from "../../../core/lists/scope";
import { listTexts } from "../../../texts/en/list";
import type { PlainKey } from "../../../texts/say";
import { useSay } from "../../ui/texts/use-say";

type ListKey = PlainKey<typeof listTexts>;

const NARROWED = ["list.noConversationMatches", "list.nothingInThisListMatches"] as const;

const WORDS: Readonly<Record<Scope, readonly [title: ListKey, text: ListKey]>> = {
  open: ["list.nothingIsOpen", "list.whatIsToBeSorted"],
  "to-sort": ["list.everythingIsSorted", "list.newMailAppearsHereBy"],
  "our-move": ["list.nothingWaitsForUs", "list.whatIsAssignedOrAnswered"],
  waiting: ["list.weWaitForNobody", "list.answersThatExpectAReply"],
  resting: ["list.nothingRests", "list.putAConversationToRest"],
  settled: ["list.nothingIsSettledYet", "list.settledConversationsStandHereAnd"],
  held: ["list.nothingIsHeld", "list.whatRulesHoldBack"],
  bin: ["list.theBinIsEmpty", "list.whatIsPutInThe"],
  junk: ["list.noJunk", "list.mailThatWasCalledJunk"],
};

/** A list without conversations: a quiet picture, and what would come here or how to see more. */
export function EmptyList({ scope, isFiltered, base }: { scope: Scope; isFiltered: boolean; base: string }) {
  const say = useSay(listTexts);
  const [title, text] = isFiltered ? NARROWED : WORDS[scope];
  return (
    <main className="flex min-h-0 flex-1 flex-col items-center justify-center gap-3 px-6 text-center">
      <svg
        viewBox="0 0 160 90"
        width="160"
        height="90"
        aria-hidden="true"
        fill="none"
        stroke="var(--faint)"
        strokeWidth="1.5"
        strokeLinejoin="round"
      >
        <path d="M14 40h132l-14 20H28z" fill="var(--paper)" />
        <path d="M24 64h112l-12 16H36z" fill="var(--paper)" />
        <path d="M52 24h56M60 16h40" stroke="var(--rule)" />
      </svg>
      <h1 className="font-serif text-xl">{say(title)}</h1>
      <p className="max-w-sm text-soft">{say(text)}</p>
      {isFiltered && (
        <Link to={base} className="font-semibold text-act underline-offset-2 hover:underline">
          {say("list.showAll")}
        </Link>
      )}
    </main>
  );
}
