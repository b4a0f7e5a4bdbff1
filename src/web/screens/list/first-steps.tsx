import { Link } from "react-router";
import { useTray } from "../frame/tray-data";

type Step = { readonly name: string; readonly about: string; readonly path?: string; readonly forLeads?: true };

const stepsOf = (address: string): readonly Step[] => [
  {
    name: "Let mail in",
    about: `What is sent to ${address} appears here as soon as this server gets it. Whoever runs the server sets up its mail listener, or a mailbox to fetch from: “Run it for real” in the README.`,
  },
  {
    name: "Hours and holidays",
    about: "Deadlines and reminders count in them.",
    path: "tray-settings",
    forLeads: true,
  },
  { name: "Members and groups", about: "Invite your colleagues.", path: "members", forLeads: true },
  { name: "Categories", about: "The tags that you sort by.", path: "categories" },
  { name: "Records", about: "The clients and projects to which mail is filed.", path: "records" },
  { name: "Import mail", about: "Bring in older mail from mbox or .eml files.", path: "import" },
];

/** A tray into which no mail has come yet: what comes next. */
export default function FirstSteps() {
  const { tray, mayLead } = useTray();
  const steps = stepsOf(tray.address).filter(({ forLeads }) => forLeads !== true || mayLead);
  return (
    <main
      aria-label="First steps"
      className="mx-2 min-h-0 flex-1 overflow-y-auto rounded-t-sheet border border-b-0 border-rule bg-paper px-5 py-8 sm:mx-4"
    >
      <div className="mx-auto max-w-2xl">
        <h1 className="font-serif text-2xl">No mail has come yet</h1>
        <p className="mt-1 text-soft">This is what makes the tray ready, in any order.</p>
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
