import { Link } from "react-router";
import type { Scope } from "../../../core/lists/scope";

const NARROWED = ["No conversation matches", "Nothing in this list matches its filters."] as const;

const WORDS: Readonly<Record<Scope, readonly [string, string]>> = {
  open: ["Nothing is open", "What is to be sorted, answered, awaited or rests stands here."],
  "to-sort": ["Everything is sorted", "New mail appears here by itself as it comes in."],
  "our-move": ["Nothing waits for us", "What is assigned or answered by somebody outside comes here."],
  waiting: ["We wait for nobody", "Answers that expect a reply stand here until it comes."],
  resting: ["Nothing rests", "Put a conversation to rest until a day with the key l; it comes back by itself."],
  settled: ["Nothing is settled yet", "Settled conversations stand here, and on their records, and in the search."],
  bin: ["The bin is empty", "What is put in the bin can be brought back from here."],
  junk: ["No junk", "Mail that was called junk stands here."],
};

/** A list without conversations: a quiet picture, and what would come here or how to see more. */
export function EmptyList({ scope, isNarrowed, base }: { scope: Scope; isNarrowed: boolean; base: string }) {
  const [title, text] = isNarrowed ? NARROWED : WORDS[scope];
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
      <h1 className="font-serif text-xl">{title}</h1>
      <p className="max-w-sm text-soft">{text}</p>
      {isNarrowed && (
        <Link to={base} className="font-semibold text-act underline-offset-2 hover:underline">
          Show all
        </Link>
      )}
    </main>
  );
}
