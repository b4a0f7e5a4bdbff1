import { notificationSettingsOf, watchedBy } from "../../../operations/index.server";
import { NotificationSettingsForm } from "../../screens/office/notification-settings-form";
import { depsContext, grantContext } from "../../server/base/context.server";
import { notificationSettingsView } from "../../server/people/notification-view.server";
import { Page } from "../../ui/page";
import type { Route } from "./+types/notification-settings";

export function meta() {
  return [{ title: "Notification settings · Common Tray" }];
}

export async function loader({ context }: Route.LoaderArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const [telling, watches] = await Promise.all([notificationSettingsOf(deps, grant), watchedBy(deps, grant)]);
  return notificationSettingsView(telling, watches);
}

/** What a member wants to be told of; the page with what there is takes what is changed here. */
export default function NotificationSettings({ loaderData }: Route.ComponentProps) {
  return (
    <Page title="Notifications">
      <NotificationSettingsForm {...loaderData} />
    </Page>
  );
}
