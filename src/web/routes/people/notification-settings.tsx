import { notificationSettingsOf, watchedBy } from "../../../operations/index.server";
import { peopleTexts } from "../../../texts/en/people";
import { NotificationSettingsForm } from "../../screens/office/notification-settings-form";
import { depsContext, grantContext } from "../../server/base/context.server";
import { notificationSettingsView } from "../../server/people/notification-view.server";
import { Page } from "../../ui/page";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/notification-settings";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, peopleTexts, "people.notificationSettings");
}

export async function loader({ context }: Route.LoaderArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const [settings, watches] = await Promise.all([notificationSettingsOf(deps, grant), watchedBy(deps, grant)]);
  return notificationSettingsView(settings, watches);
}

/** What a member wants to be told of; the page with what there is takes what is changed here. */
export default function NotificationSettings({ loaderData }: Route.ComponentProps) {
  const say = useSay(peopleTexts);
  return (
    <Page title={say("people.notifications")}>
      <NotificationSettingsForm {...loaderData} />
    </Page>
  );
}
