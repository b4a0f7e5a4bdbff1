import { useState } from "react";
import { useFetcher } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { keysTexts } from "../../../texts/en/keys";
import { peopleTexts } from "../../../texts/en/people";
import {
  COMMAND_GROUPS,
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
import { Button } from "../../ui/button";
import { Page } from "../../ui/page";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/keys";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, peopleTexts, "people.keyboard");
}

/** Which key works which command, as the member likes it. */
export default function Keys() {
  const say = useSay(peopleTexts, keysTexts, commonTexts);
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
    <Page
      title={say("people.keyboard")}
      beside={
        Object.keys(chosen).length > 0 && (
          <Button
            className="ml-auto"
            onClick={() => {
              setChosen({});
              keep("keys", null);
            }}
          >
            {say("people.allKeysAsTheyWere")}
          </Button>
        )
      }
    >
      <div className="grid gap-x-10 gap-y-5 md:grid-cols-2 xl:grid-cols-3 px-5 py-4">
        {Object.entries(COMMAND_GROUPS).map(([group, name]) => (
          <section key={group} aria-label={say(name)}>
            <h2 className="border-b border-rule pb-1 text-sm font-semibold text-soft">{say(name)}</h2>
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
    </Page>
  );
}

type KeyLineProps = {
  readonly id: CommandId;
  readonly chosen: KeyChoices;
  readonly isWaiting: boolean;
  readonly onWait: () => void;
  readonly onGive: (key: string | null) => void;
};

function KeyLine({ id, chosen, isWaiting, onWait, onGive }: KeyLineProps) {
  const say = useSay(peopleTexts, keysTexts, commonTexts);
  const key = keyOf(id, chosen);
  const conflicts = conflictsOf(id, key, chosen);
  return (
    <li className="border-b border-hair py-1">
      <span className="flex items-center justify-between gap-3">
        <span>{say(COMMANDS[id].name)}</span>
        <span className="flex items-center gap-2">
          {chosen[id] !== undefined && (
            <button type="button" onClick={() => onGive(null)} className="text-sm text-act hover:underline">
              {say("people.asItWas")}
            </button>
          )}
          <button
            type="button"
            aria-label={say("people.keyOf", { name: say(COMMANDS[id].name), key })}
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
            {isWaiting ? say("people.pressAKey") : keyCap(key)}
          </button>
        </span>
      </span>
      {conflicts.length > 0 && (
        <span role="status" className="block text-sm text-late">
          {say("people.also")} {conflicts.map((other) => say(COMMANDS[other].name)).join(", ")}
          {say("people.onlyOneOfThemWill")}
        </span>
      )}
    </li>
  );
}
