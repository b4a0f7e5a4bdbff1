import { ON_ARRIVAL, type Rule } from "../../../core/rules/rule";
import { timesInWords } from "../../../core/rules/times-in-words";
import { dayAndTime } from "../../../core/time/day-words";
import {
  type Deps,
  type RuleHistory,
  ruleRefusal,
  rulesAsWritten,
  type TrayGrant,
} from "../../../operations/index.server";
import { writtenMoment } from "../base/moment-field.server";
import type { Reading } from "../base/row-view.server";
import { speak } from "../base/say.server";
import { journalSteps } from "../office/journal-view.server";

/** What a rule did and was, in the words of a member's moment and zone. */
export async function historyView(
  deps: Deps,
  grant: TrayGrant,
  { rule, versions, steps, unversioned, months, ...history }: RuleHistory,
  reading: Reading,
) {
  const { now, zone } = reading;
  const [written = rule] = await rulesAsWritten(deps, grant, [rule]);
  const writtenVersions = await rulesAsWritten(deps, grant, versions);
  const { id, name, isOn, condition, exception, actions } = written;
  const timesOf = (one: Pick<Rule, "times">) => ({
    moment: (one.times ?? ON_ARRIVAL).moment,
    times: speak({ all: timesInWords(one, now, zone), by: "comma" }),
  });
  const ofVersions = versions.map(({ version, at, by, did, undone, changes }, place) => {
    const was = writtenVersions[place];
    return {
      version,
      did,
      undone,
      when: at === null ? speak("history.beforeVersions") : speak(dayAndTime(at, now, zone)),
      since: writtenMoment(at, zone),
      by,
      changes: speak({ all: changes, by: "and" }),
      rule:
        was === undefined
          ? null
          : { condition: was.condition, exception: was.exception, actions: was.actions, ...timesOf(was) },
    };
  });
  const earlier = {
    ...{ version: 0, ...unversioned, when: "", since: "" },
    ...{ by: null, changes: "", rule: null },
  };
  const last = steps.steps.at(-1);
  const did = versions.reduce((sum, one) => sum + one.did, unversioned.did);
  const undone = versions.reduce((sum, one) => sum + one.undone, unversioned.undone);
  return {
    rule: { id, name, isOn, condition, exception, actions, gone: history.gone, ...timesOf(rule) },
    mayUndo: ruleRefusal(grant, rule) === null,
    mayChange: ruleRefusal(grant, rule) === null && rule.trayId === grant.tray.id,
    lately: history.lately,
    before: steps.hasMore && last !== undefined ? last.at : null,
    earlier: history.before,
    ever: { did, undone },
    months: months.map(({ month, did: count, undone: taken }) => ({ month, count, undone: taken })),
    versions: unversioned.did === 0 ? ofVersions : [...ofVersions, earlier],
    steps: journalSteps(steps, reading),
  };
}

export type HistoryView = Awaited<ReturnType<typeof historyView>>;
