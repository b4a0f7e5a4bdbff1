import { useState } from "react";
import { useSearchParams } from "react-router";
import type { Condition } from "../../../core/rules/condition";
import type { LearnedView } from "../../server/rules/learned-view.server";

/**
 * Choosing among what was learned (`first`: what the form began with), and saying of a conversation that it is not meant,
 * or is after all: then it is learned anew.
 */
export function useLearned(
  learned: LearnedView | null,
  first: Condition,
  onChoose: (condition: Condition) => void,
): {
  /** The condition that was chosen, as it was written: it stays so while it is refined. */
  readonly chosen: string;
  readonly choose: (condition: Condition) => void;
  /** What says that a conversation is not meant, an example too; null where nothing is learned, or it is the only example. */
  readonly notMeantOf: (conversationId: string) => (() => void) | null;
  readonly onMeant: (conversationId: string) => void;
} {
  const [, setParams] = useSearchParams();
  const [chosen, setChosen] = useState(() => JSON.stringify(first));
  const choose = (proposed: Condition) => {
    setChosen(JSON.stringify(proposed));
    onChoose(proposed);
  };
  // What was chosen may be none of what is learned anew.
  const [taught, setTaught] = useState(learned);
  if (taught !== learned) {
    setTaught(learned);
    const all = learned?.proposals.map(({ condition }) => condition) ?? [];
    if (all[0] !== undefined && !all.some((one) => JSON.stringify(one) === chosen)) choose(all[0]);
  }
  const learnAnew = (examples: readonly string[], notMeant: readonly string[]) => {
    const change = (before: URLSearchParams) => {
      const params = new URLSearchParams(before);
      params.set("from", examples.join());
      params.set("not", notMeant.join());
      return params;
    };
    setParams(change, { replace: true, preventScrollReset: true });
  };
  const [examples, notMeant] = [idsOf(learned?.examples), idsOf(learned?.notMeant)];
  const without = (ids: readonly string[], one: string) => ids.filter((id) => id !== one);
  const notMeantOf = (conversationId: string) => {
    const left = without(examples, conversationId);
    return left.length === 0 ? null : () => learnAnew(left, [...without(notMeant, conversationId), conversationId]);
  };
  const onMeant = (conversationId: string) => learnAnew(examples, without(notMeant, conversationId));
  return { chosen, choose, notMeantOf, onMeant };
}

const idsOf = (all: LearnedView["examples"] = []) => all.map(({ id }) => id);
