import { officeTexts } from "../../../texts/en/office";
import type { JobAsideView } from "../../server/office/jobs-aside-view.server";
import { Button } from "../../ui/button";
import { useSay } from "../../ui/texts/use-say";
import { useFormAction } from "../forms/use-form-action";
import { useTray } from "../frame/tray-data";

/** What stopped the server twice and is not tried again by itself; work by the clock can be let go on. */
export function JobsAside({ jobs }: { jobs: readonly JobAsideView[] }) {
  const say = useSay(officeTexts);
  const { members } = useTray();
  const { Form, action, isBusy, refused } = useFormAction("overview");
  if (jobs.length === 0) return null;
  return (
    <section aria-labelledby="jobs-aside" className="border-b border-rule px-4 py-3">
      <h2 id="jobs-aside" className="font-serif text-lg">
        {say("office.stoppedJobs")}
      </h2>
      <p className="text-sm text-soft">{say("office.eachStoppedTheServerTwice")}</p>
      <ul className="mt-2 divide-y divide-hair border-t border-hair">
        {jobs.map(({ id, kind, about, byMemberId, when, waits }) => (
          <li key={id} className="flex flex-wrap items-center gap-x-3 py-2">
            <span className="font-semibold">{kind}</span>
            <span className="min-w-0 flex-1 truncate">{about}</span>
            <span className="text-sm text-soft">
              {members.find((member) => member.id === byMemberId)?.name ?? say("office.theServerItself")}, {when}
            </span>
            {waits && (
              <Form method="post" action={action}>
                <input type="hidden" name="id" value={id} />
                <Button type="submit" disabled={isBusy}>
                  {say("office.runAgain")}
                </Button>
              </Form>
            )}
          </li>
        ))}
      </ul>
      {refused?.problem != null && (
        <p role="alert" className="mt-2 text-late">
          {refused.problem}
        </p>
      )}
    </section>
  );
}
