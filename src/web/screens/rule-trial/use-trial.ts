import { useEffect, useRef, useState } from "react";
import { useFetcher } from "react-router";
import type { TrialView } from "../../server/rules/trial-view.server";
import { type FormProblems, useOutcome } from "../forms/use-form-action";
import { useTray } from "../frame/tray-data";
import type { RulesOutcome } from "./rules-outcome";
import type { WrittenRule } from "./written-rule";

const TRIED_AFTER = 350;
const NO_PROBLEMS: FormProblems = {};

/** A trial as it goes: what there is of it, and whether it is to go on to the oldest message. */
type Going = { readonly trial: TrialView | null; readonly goesOn: boolean };

/**
 * What a rule would have been for: on the newest messages, asked anew a moment after the rule was changed; on all of them,
 * part by part, once that is asked for. Nothing where it asks for nothing (null).
 */
export function useTrial(rule: WrittenRule | null) {
  const { tray } = useTray();
  const { data, state, submit } = useFetcher<RulesOutcome>();
  const [going, setGoing] = useState<Going>({ trial: null, goesOn: false });
  // What it is called changes nothing of what it would have been for.
  const written = JSON.stringify(rule === null ? null : { ...rule, name: "" });
  const latest = useRef(written);
  latest.current = written;
  // Which rule is being tried: an answer about an older one is not told as one about this.
  const asked = useRef("");
  const ask = (before: string) => {
    asked.current = latest.current;
    void submit(
      { do: "try", rule: latest.current, before },
      { method: "post", action: `/${tray.slug}/rules`, flushSync: true },
    );
  };
  const begin = useRef(() => ask(""));
  begin.current = () => ask("");
  const isAsked = rule !== null;
  useEffect(() => {
    const isAnything = written !== "null";
    setGoing(({ trial }) => ({ trial: isAnything ? trial : null, goesOn: false }));
    if (!isAnything) return;
    const wait = setTimeout(() => begin.current(), TRIED_AFTER);
    return () => clearTimeout(wait);
  }, [written]);
  useOutcome(state === "idle" ? data : undefined, (outcome) => {
    if (asked.current !== latest.current || !outcome.ok || outcome.trial === null) return;
    const trial = going.goesOn && going.trial !== null ? added(going.trial, outcome.trial) : outcome.trial;
    const goesOn = going.goesOn && trial.next !== null;
    setGoing({ trial, goesOn });
    if (goesOn) ask(trial.next ?? "");
  });
  return {
    trial: isAsked ? going.trial : null,
    problems: data?.ok === false && isAsked ? data.problems : NO_PROBLEMS,
    isBusy: state !== "idle",
    goesOn: going.goesOn,
    goOn: () => {
      setGoing({ ...going, goesOn: true });
      ask(going.trial?.next ?? "");
    },
    stop: () => setGoing({ ...going, goesOn: false }),
  };
}

const NAMED = 50;

/** Two trials of one rule as one, the second on older messages than the first. */
export function added(newer: TrialView, older: TrialView): TrialView {
  const months = new Map<string, number>();
  for (const { month, count } of [...older.months, ...newer.months])
    months.set(month, (months.get(month) ?? 0) + count);
  const others = new Map(newer.others.map((one) => [one.id, one]));
  for (const one of older.others) others.set(one.id, { ...one, count: one.count + (others.get(one.id)?.count ?? 0) });
  return {
    of: newer.of + older.of,
    next: older.next,
    count: newer.count + older.count,
    same: newer.same + older.same,
    otherwise: newer.otherwise + older.otherwise,
    fresh: newer.fresh + older.fresh,
    months: [...months].map(([month, count]) => ({ month, count })).toSorted((a, b) => a.month.localeCompare(b.month)),
    newest: [...newer.newest, ...older.newest].slice(0, NAMED),
    against: [...newer.against, ...older.against].slice(0, NAMED),
    others: [...others.values()],
  };
}
