import type { ReactNode } from "react";
import { useFetcher } from "react-router";
import type { HowOften } from "../../../core/filing/how-sure";
import { getProposing } from "../../../operations/index.server";
import { useTray } from "../../screens/frame/tray-data";
import { depsContext, grantContext } from "../../server/base/context.server";
import { Page } from "../../ui/page";
import { Select } from "../../ui/select";
import { Setting } from "../../ui/setting";
import type { Route } from "./+types/preferences";

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
  return getProposing(context.get(depsContext), context.get(grantContext));
}

export function meta() {
  return [{ title: "Lists and proposals · Common Tray" }];
}

/** What happens after a decision and on dropping, and how sure proposals have to be: as the member likes it. */
export default function Preferences({ loaderData: proposing }: Route.ComponentProps) {
  const { tray, preferences } = useTray();
  const fetcher = useFetcher();
  const keep = (name: string, value: unknown) =>
    void fetcher.submit({ name, value: JSON.stringify(value) }, { method: "post", action: `/${tray.slug}/settings` });
  return (
    <Page title="Lists and proposals">
      <div className="px-5 py-2">
        <Choice
          label="After a decision in a list, go to"
          about="In a list and in an open conversation; the sort run always goes on."
          value={preferences.afterDecision}
          choices={AFTER}
          onChoose={(value) => keep("after-decision", value)}
        />
        <Choice
          label="Dropping on a record"
          about="On a record’s place of the shelf, by mouse or by key."
          value={preferences.dropOnRecord ?? ""}
          choices={DROPS}
          onChoose={(value) => keep("drop-on-record", value === "" ? null : value)}
        />
        <Choice
          label="Propose"
          about={proposingInWords(proposing[preferences.proposals])}
          value={preferences.proposals}
          choices={PROPOSALS}
          onChoose={(value) => keep("proposals", value)}
        />
      </div>
    </Page>
  );
}

// Rounded down: nobody is told more than was seen.
const percent = (share: number) => `${Math.floor(share * 100)} %`;

function proposingInWords(often: HowOften | null): string {
  if (often === null) return "Too little was decided here yet to say how often that is right.";
  return `Of what was decided here of late, ${percent(often.proposed)} would have been proposed; of what is proposed, ${percent(often.right)} is right.`;
}

type ChoiceProps = {
  readonly label: string;
  readonly about: ReactNode;
  readonly value: string;
  readonly choices: readonly (readonly [value: string, words: string])[];
  readonly onChoose: (value: string) => void;
};

function Choice({ label, about, ...select }: ChoiceProps) {
  return (
    <Setting name={label} about={about}>
      <Select label={label} {...select} />
    </Setting>
  );
}
