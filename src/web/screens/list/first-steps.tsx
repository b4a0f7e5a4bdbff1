import { Link } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { listTexts } from "../../../texts/en/list";
import type { Say } from "../../../texts/say";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";

type Step = { readonly name: string; readonly about: string; readonly path?: string; readonly forLeads?: true };

const stepsOf = (say: Say<typeof listTexts & typeof commonTexts>, address: string): readonly Step[] => [
  {
    name: say("list.letMailIn"),
    about: say("list.whatIsSentToAppears", { address }),
  },
  {
    name: say("list.hoursAndHolidays"),
    about: say("list.deadlinesAndRemindersCountIn"),
    path: "tray-settings",
    forLeads: true,
  },
  { name: say("list.membersAndGroups"), about: say("list.inviteYourColleagues"), path: "members", forLeads: true },
  { name: say("common.categories"), about: say("list.theTagsThatYouSort"), path: "categories" },
  { name: say("common.records"), about: say("list.theClientsAndProjectsTo"), path: "records" },
  { name: say("list.importMail"), about: say("list.bringInOlderMailFrom"), path: "import" },
];

/** A tray into which no mail has come yet: what comes next. */
export default function FirstSteps() {
  const say = useSay(listTexts, commonTexts);
  const { tray, mayLead } = useTray();
  const steps = stepsOf(say, tray.address).filter(({ forLeads }) => forLeads !== true || mayLead);
  return (
    <main
      aria-label={say("list.firstSteps")}
      className="mx-2 min-h-0 flex-1 overflow-y-auto rounded-t-sheet border border-b-0 border-rule bg-paper px-5 py-8 sm:mx-4"
    >
      <div className="mx-auto max-w-2xl">
        <h1 className="font-serif text-2xl">{say("list.noMailHasComeYet")}</h1>
        <p className="mt-1 text-soft">{say("list.thisIsWhatMakesThe")}</p>
        <ol className="mt-5">
          {steps.map(({ name, about, path }) => (
            <li key={name} className="grid gap-x-6 border-t border-hair py-3 sm:grid-cols-[180px_minmax(0,1fr)]">
              {path === undefined ? (
                <b className="font-semibold">{name}</b>
              ) : (
                <Link to={`/${tray.slug}/${path}`} className="font-semibold text-act hover:underline">
                  {name}
                </Link>
              )}
              <span className="text-soft">{about}</span>
            </li>
          ))}
        </ol>
      </div>
    </main>
  );
}
