import { data, useFetcher } from "react-router";
import { refusalInWords, tellingOf, toldOf, watchedBy } from "../../../operations/index.server";
import { ToldList } from "../../screens/office/told-list";
import type { ToldOutcome } from "../../screens/office/told-outcome";
import { ToldSettings } from "../../screens/office/told-settings";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { readingOf } from "../../server/base/words.server";
import { carryToldStep, readToldStep } from "../../server/people/told-form.server";
import { toldView } from "../../server/people/told-view.server";
import { Button } from "../../ui/button";
import { Page } from "../../ui/page";
import type { Route } from "./+types/notifications";

export function meta() {
  return [{ title: "Notifications · Common Tray" }];
}

export async function loader({ context }: Route.LoaderArgs) {
  const [deps, grant, member] = [context.get(depsContext), context.get(grantContext), context.get(memberContext)];
  const [told, telling, watches] = await Promise.all([
    toldOf(deps, grant),
    tellingOf(deps, grant),
    watchedBy(deps, grant),
  ]);
  return toldView(told, telling, watches, readingOf(member, deps.now()));
}

export async function action({ request, context }: Route.ActionArgs) {
  const step = readToldStep(await readForm(request));
  if (!step.ok) return data<ToldOutcome>({ ok: false, problems: step.error }, { status: 400 });
  const done = await carryToldStep(context.get(depsContext), context.get(grantContext), step.value);
  if (done.ok) return data<ToldOutcome>({ ok: true, problems: {} });
  const problem =
    done.error.kind === "no-address"
      ? "Write an address, or @ and a domain."
      : done.error.kind === "watched-already"
        ? "You watch that already."
        : refusalInWords(done.error);
  return data<ToldOutcome>({ ok: false, problems: { value: problem } }, { status: 409 });
}

/** What a member is told, and what she wants to be told of. */
export default function Notifications({ loaderData: { told, telling, watches } }: Route.ComponentProps) {
  const { Form } = useFetcher();
  const unread = told.filter(({ isRead }) => !isRead).length;
  return (
    <Page
      title="Notifications"
      beside={
        unread > 0 && (
          <Form method="post" className="ml-auto">
            <Button type="submit" name="do" value="read">
              {unread === 1 ? "Mark as read" : `Mark all ${unread} as read`}
            </Button>
          </Form>
        )
      }
    >
      <div className="grid lg:grid-cols-[minmax(0,1fr)_400px]">
        <ToldList told={told} />
        <ToldSettings telling={telling} watches={watches} />
      </div>
    </Page>
  );
}
