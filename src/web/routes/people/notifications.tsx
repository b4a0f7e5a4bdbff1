import { data, Link, useFetcher } from "react-router";
import { listNotifications } from "../../../operations/index.server";
import { peopleTexts } from "../../../texts/en/people";
import type { FormOutcome } from "../../screens/forms/use-form-action";
import { useTray } from "../../screens/frame/tray-data";
import { NotificationList } from "../../screens/office/notification-list";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { readingOf } from "../../server/base/row-view.server";
import { speak } from "../../server/base/say.server";
import { carryNotificationStep, readNotificationStep } from "../../server/people/notification-form.server";
import { notificationsView } from "../../server/people/notification-view.server";
import { Button } from "../../ui/button";
import { Page } from "../../ui/page";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/notifications";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, peopleTexts, "people.notifications");
}

export async function loader({ context }: Route.LoaderArgs) {
  const [deps, grant, member] = [context.get(depsContext), context.get(grantContext), context.get(memberContext)];
  return notificationsView(await listNotifications(deps, grant), readingOf(member, deps.now()));
}

export async function action({ request, context }: Route.ActionArgs) {
  const step = readNotificationStep(await readForm(request));
  if (!step.ok) return data<FormOutcome>({ ok: false, problems: step.error, problem: null }, { status: 400 });
  const done = await carryNotificationStep(context.get(depsContext), context.get(grantContext), step.value);
  if (done.ok) {
    const said = step.value.do === "settings" ? speak("office.notificationSettingsSaved") : "";
    return data<FormOutcome>({ ok: true, said });
  }
  const problem =
    done.error.kind === "no-address"
      ? speak("people.writeAnAddressOrAnd")
      : done.error.kind === "watched-already"
        ? speak("people.youWatchThatAlready")
        : refusalSaid(done.error);
  return data<FormOutcome>({ ok: false, problems: { value: problem }, problem: null }, { status: 409 });
}

/** What a member is told. */
export default function Notifications({ loaderData: told }: Route.ComponentProps) {
  const say = useSay(peopleTexts);
  const { tray } = useTray();
  const { Form } = useFetcher();
  const unread = told.filter(({ isRead }) => !isRead).length;
  return (
    <Page
      title={say("people.notifications")}
      beside={
        <>
          <Link to={`/${tray.slug}/notification-settings`} className="text-act hover:underline">
            {say("people.notificationSettings")}
          </Link>
          {unread > 0 && (
            <Form method="post" className="ml-auto">
              <Button type="submit" name="do" value="read">
                {say("people.markAllAsRead", { unread })}
              </Button>
            </Form>
          )}
        </>
      }
    >
      <NotificationList told={told} />
    </Page>
  );
}
