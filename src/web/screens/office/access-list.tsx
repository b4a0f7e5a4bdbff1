import { officeTexts } from "../../../texts/en/office";
import { useSay } from "../../ui/texts/use-say";

type ListedAccess = {
  readonly id: string;
  readonly who: string;
  readonly did: string;
  readonly from: string;
  readonly when: string;
};

/** The entries of the access log, the newest first. */
export function AccessList({
  events,
  isFiltered,
}: {
  readonly events: readonly ListedAccess[];
  readonly isFiltered: boolean;
}) {
  const say = useSay(officeTexts);
  if (events.length === 0)
    return (
      <p className="px-4 py-6 text-soft">
        {isFiltered ? say("office.noEntriesMatchTheseFilters") : say("office.nothingYetSignInsRoles")}
      </p>
    );
  return (
    <ol aria-label={say("office.entries")}>
      {events.map(({ id, who, did, from, when }) => (
        <li
          key={id}
          className="grid items-baseline gap-x-4 border-b border-hair px-4 py-1 sm:grid-cols-[144px_minmax(0,1fr)_minmax(0,300px)]"
        >
          <span className="text-sm whitespace-nowrap text-soft">{when}</span>
          <span>
            <b className="font-semibold">{who}</b> {did}
          </span>
          <span className="truncate text-sm text-soft" title={from}>
            {from}
          </span>
        </li>
      ))}
    </ol>
  );
}
