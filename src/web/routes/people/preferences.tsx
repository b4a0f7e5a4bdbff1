import type { ReactNode } from "react";
import { useFetcher } from "react-router";
import type { HowOften } from "../../../core/filing/how-sure";
import { getProposing } from "../../../operations/index.server";
import { peopleTexts } from "../../../texts/en/people";
import type { Say } from "../../../texts/say";
import { useTray } from "../../screens/frame/tray-data";
import { AddressLinks } from "../../screens/writing/address-links";
import { depsContext, grantContext } from "../../server/base/context.server";
import { Setting } from "../../ui/layout/setting";
import { Page } from "../../ui/page";
import { Select } from "../../ui/select";
import { pageTitle } from "../../ui/texts/page-title";
import { saidChoices, useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/preferences";

const AFTER = [
  ["next", "people.theNextOne"],
  ["previous", "people.thePreviousOne"],
  ["list", "people.backToTheList"],
] as const;

const DROPS = [
  ["", "people.ask"],
  ["file", "people.fileAndLeaveItWhere"],
  ["file-and-settle", "people.fileAndSettle"],
] as const;

const PROPOSALS = [
  ["often", "people.moreOften"],
  ["sure", "people.onlyWhenSure"],
] as const;

/** What came of proposals here, for each choice of how sure they have to be. */
export async function loader({ context }: Route.LoaderArgs) {
  return getProposing(context.get(depsContext), context.get(grantContext));
}

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, peopleTexts, "people.listsAndProposals");
}

/** What happens after a decision and on dropping, and how sure proposals have to be: as the member likes it. */
export default function Preferences({ loaderData: proposing }: Route.ComponentProps) {
  const say = useSay(peopleTexts);
  const { tray, preferences, mayDecide } = useTray();
  const fetcher = useFetcher();
  const keep = (name: string, value: unknown) =>
    void fetcher.submit({ name, value: JSON.stringify(value) }, { method: "post", action: `/${tray.slug}/settings` });
  return (
    <Page title={say("people.listsAndProposals")}>
      <div className="px-5 py-2">
        <Choice
          label={say("people.afterADecisionInA")}
          about={say("people.inAListAndIn")}
          value={preferences.afterDecision}
          choices={saidChoices(say, AFTER)}
          onChoose={(value) => keep("after-decision", value)}
        />
        <Choice
          label={say("people.droppingOnARecord")}
          about={say("people.onARecordsPlaceOf")}
          value={preferences.dropOnRecord ?? ""}
          choices={saidChoices(say, DROPS)}
          onChoose={(value) => keep("drop-on-record", value === "" ? null : value)}
        />
        <Choice
          label={say("people.propose")}
          about={proposingInWords(say, proposing[preferences.proposals])}
          value={preferences.proposals}
          choices={saidChoices(say, PROPOSALS)}
          onChoose={(value) => keep("proposals", value)}
        />
        {mayDecide && <AddressLinks />}
      </div>
    </Page>
  );
}

// Rounded down: nobody is told more than was seen.
const percent = (share: number) => `${Math.floor(share * 100)} %`;

function proposingInWords(say: Say<typeof peopleTexts>, often: HowOften | null): string {
  if (often === null) return say("people.tooLittleWasDecided");
  return say("people.ofWhatWasDecided", { proposed: percent(often.proposed), right: percent(often.right) });
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
