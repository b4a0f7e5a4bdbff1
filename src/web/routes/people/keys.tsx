import { useState } from "react";
import { useFetcher } from "react-router";
import type { HowOften } from "../../../core/filing/how-sure";
import { lookAtProposing } from "../../../operations/index.server";
import {
  COMMAND_IDS,
  COMMANDS,
  type CommandId,
  conflictsOf,
  isGivableKey,
  type KeyChoices,
  keyCap,
  keyOf,
} from "../../keys/commands";
import { useTray } from "../../screens/frame/tray-data";
import { depsContext, grantContext } from "../../server/base/context.server";
import { Button } from "../../ui/button";
import { Select } from "../../ui/select";
import type { Route } from "./+types/keys";

const GROUPS = ["Moving", "Deciding", "Going", "Shelf"] as const;

const AFTER = [
  ["next", "the next one"],
  ["previous", "the previous one"],
  ["list", "back to the list"],
] as const;

const DROPS = [
  ["", "ask"],
  ["file", "file, and leave it where it is"],
  ["file-and-settle", "file and settle"],
] as const;

const PROPOSALS = [
  ["often", "more often"],
  ["sure", "only when sure"],
] as const;

/** What came of proposals here, for each choice of how sure they have to be. */
export async function loader({ context }: Route.LoaderArgs) {
  return lookAtProposing(context.get(depsContext), context.get(grantContext));
}

export function meta() {
  return [{ title: "Keyboard and preferences · Common Tray" }];
}

/** Which key works which command, and what happens after a decision: as the member likes it. */
export default function Keys({ loaderData: proposing }: Route.ComponentProps) {
  const { tray, preferences } = useTray();
  const fetcher = useFetcher();
  const [chosen, setChosen] = useState<KeyChoices>(preferences.keys);
  const [waiting, setWaiting] = useState<CommandId | null>(null);
  const keep = (name: string, value: unknown) =>
    void fetcher.submit({ name, value: JSON.stringify(value) }, { method: "post", action: `/${tray.slug}/settings` });
  const give = (id: CommandId, key: string | null) => {
    const { [id]: _, ...others } = chosen;
    const next = key === null || key === COMMANDS[id].key ? others : { ...others, [id]: key };
    setChosen(next);
    setWaiting(null);
    keep("keys", next);
  };
  return (
    <main
      aria-label="Keyboard and preferences"
      className="mx-2 mt-2.5 min-h-0 flex-1 overflow-y-auto rounded-t-sheet border border-b-0 border-rule bg-paper px-5 py-4 sm:mx-4"
    >
      <h1 className="font-serif text-xl">Keyboard and preferences</h1>
      <div className="mt-3 flex flex-wrap gap-x-8 gap-y-2">
        <Choice
          label="After a decision in a list, go to"
          value={preferences.afterDecision}
          choices={AFTER}
          onChoose={(value) => keep("after-decision", value)}
        />
        <Choice
          label="Dropping on a record"
          value={preferences.dropOnRecord ?? ""}
          choices={DROPS}
          onChoose={(value) => keep("drop-on-record", value === "" ? null : value)}
        />
        <div>
          <Choice
            label="Propose"
            value={preferences.proposals}
            choices={PROPOSALS}
            onChoose={(value) => keep("proposals", value)}
          />
          <p className="mt-1 max-w-[360px] text-sm text-soft">{proposingInWords(proposing[preferences.proposals])}</p>
        </div>
        {Object.keys(chosen).length > 0 && (
          <Button
            className="self-end"
            onClick={() => {
              setChosen({});
              keep("keys", null);
            }}
          >
            All keys as they were
          </Button>
        )}
      </div>
      <div className="mt-5 grid gap-x-10 gap-y-5 md:grid-cols-2 xl:grid-cols-3">
        {GROUPS.map((group) => (
          <section key={group} aria-label={group}>
            <h2 className="border-b border-rule pb-1 text-sm font-semibold text-soft">{group}</h2>
            <ul>
              {COMMAND_IDS.filter((id) => COMMANDS[id].group === group).map((id) => (
                <KeyLine
                  key={id}
                  id={id}
                  chosen={chosen}
                  isWaiting={waiting === id}
                  onWait={() => setWaiting(waiting === id ? null : id)}
                  onGive={(key) => give(id, key)}
                />
              ))}
            </ul>
          </section>
        ))}
      </div>
    </main>
  );
}

// Rounded down: nobody is told more than was seen.
const percent = (share: number) => `${Math.floor(share * 100)} %`;

function proposingInWords(often: HowOften | null): string {
  if (often === null) return "Too little was decided here yet to say how often that is right.";
  return `Of what was decided here of late, ${percent(often.proposed)} would have been proposed; of what is proposed, ${percent(often.right)} is right.`;
}

type KeyLineProps = {
  readonly id: CommandId;
  readonly chosen: KeyChoices;
  readonly isWaiting: boolean;
  readonly onWait: () => void;
  readonly onGive: (key: string | null) => void;
};

function KeyLine({ id, chosen, isWaiting, onWait, onGive }: KeyLineProps) {
  const key = keyOf(id, chosen);
  const conflicts = conflictsOf(id, key, chosen);
  return (
    <li className="border-b border-hair py-1">
      <span className="flex items-center justify-between gap-3">
        <span>{COMMANDS[id].name}</span>
        <span className="flex items-center gap-2">
          {chosen[id] !== undefined && (
            <button type="button" onClick={() => onGive(null)} className="text-sm text-act hover:underline">
              as it was
            </button>
          )}
          <button
            type="button"
            aria-label={`Key of ${COMMANDS[id].name}: ${key}`}
            onClick={onWait}
            onBlur={() => isWaiting && onWait()}
            onKeyDown={(event) => {
              if (!isWaiting || event.key === "Tab" || event.key === "Shift") return;
              event.preventDefault();
              event.stopPropagation();
              if (isGivableKey(event.key)) onGive(event.key);
            }}
            className={`h-6 min-w-8 rounded-control border px-1.5 text-sm ${isWaiting ? "border-act bg-act-soft text-act" : "border-rule hover:border-act"}`}
          >
            {isWaiting ? "press a key" : keyCap(key)}
          </button>
        </span>
      </span>
      {conflicts.length > 0 && (
        <span role="status" className="block text-sm text-late">
          Also: {conflicts.map((other) => COMMANDS[other].name).join(", ")}. Only one of them will work where both are
          there.
        </span>
      )}
    </li>
  );
}

type ChoiceProps = {
  readonly label: string;
  readonly value: string;
  readonly choices: readonly (readonly [value: string, words: string])[];
  readonly onChoose: (value: string) => void;
};

function Choice({ label, ...select }: ChoiceProps) {
  return (
    <div>
      <p aria-hidden className="mb-1 text-sm font-semibold">
        {label}
      </p>
      <Select label={label} {...select} />
    </div>
  );
}
