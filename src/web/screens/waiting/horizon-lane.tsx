import { waitingTexts } from "../../../texts/en/waiting";
import type { WaitingView } from "../../server/waiting/waiting-view.server";
import { useSay } from "../../ui/texts/use-say";
import { useFormAction } from "../forms/use-form-action";
import { HorizonRow } from "./horizon-row";

/** What is waited for of one person, record or owner: how much there is, and what of it is loaded. */
export type Lane = { readonly name: string; readonly count: number; readonly rows: readonly WaitingView[] };

/** Rows, which come lane by lane, by their lanes. */
export function lanesOf(rows: readonly WaitingView[]): Lane[] {
  const names = [...new Set(rows.map(({ lane }) => lane))];
  return names.map((name) => {
    const own = rows.filter(({ lane }) => lane === name);
    return { name, count: own[0]?.inLane ?? own.length, rows: own };
  });
}

type HorizonLaneProps = {
  readonly lane: Lane;
  readonly now: number;
  readonly cursor: string | null;
  readonly chosen: ReadonlySet<string>;
  readonly onChoose: (ids: readonly string[]) => void;
  readonly onChooseAll: () => void;
};

/** A lane of the horizon under its name; without a name it is all there is. */
export function HorizonLane({ lane, now, cursor, chosen, onChoose, onChooseAll }: HorizonLaneProps) {
  const say = useSay(waitingTexts);
  const callOff = useFormAction("reminders");
  return (
    <section aria-label={lane.name === "" ? say("waiting.all") : lane.name}>
      {lane.name !== "" && (
        <h2 className="flex items-baseline gap-2 border-b border-rule bg-ground px-3 py-0.5 text-sm font-semibold">
          {lane.name}
          <span className="font-normal text-soft">{lane.count}</span>
          <button type="button" onClick={onChooseAll} className="font-normal text-act hover:underline">
            {say("waiting.selectThese")}
          </button>
        </h2>
      )}
      <ul>
        {lane.rows.map((view) => (
          <HorizonRow
            key={view.row.id}
            view={view}
            now={now}
            isCursor={view.row.id === cursor}
            isSelected={chosen.has(view.row.id)}
            onChoose={() => onChoose([view.row.id])}
            onCallOff={() => callOff.post({ do: "call-off", conversation: view.row.id })}
          />
        ))}
      </ul>
    </section>
  );
}
