import { getDrafts } from "../../../operations/index.server";
import { writingTexts } from "../../../texts/en/writing";
import { DraftsScreen } from "../../screens/drafts/drafts-screen";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readingOf } from "../../server/base/row-view.server";
import { listedDraftView } from "../../server/writing/own-draft-view.server";
import { pageTitle } from "../../ui/texts/page-title";
import type { Route } from "./+types/own-drafts";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, writingTexts, "writing.drafts");
}

export async function loader({ context }: Route.LoaderArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const reading = readingOf(context.get(memberContext), deps.now(), grant.covering);
  return (await getDrafts(deps, grant)).map((draft) => listedDraftView(draft, reading));
}

/** What is written and not sent yet. */
export default function OwnDrafts({ loaderData }: Route.ComponentProps) {
  return <DraftsScreen drafts={loaderData} />;
}
