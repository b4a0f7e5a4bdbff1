import type { BacklogProposal } from "../../../core/lists/backlog";
import { filterParams } from "../../../core/lists/filter";
import { calendarDayInWords, dayInWords } from "../../../core/time/day-words";
import type { Reading } from "../base/row-view.server";
import { speak } from "../base/say.server";

/** A proposal for older mail in words, with the list that it is about. */
export function proposalView(proposal: BacklogProposal, reading: Reading) {
  const { kind, key, count, samples, filter } = proposal;
  const day = (at: BacklogProposal["oldestAt"]) => speak(dayInWords(at, reading.now, reading.zone));
  const [oldest, newest] = [day(proposal.oldestAt), day(proposal.newestAt)];
  return {
    key: `${kind} ${key}`,
    kind,
    title: titleOf(proposal),
    detail: kind === "age" ? "" : key,
    count,
    reason: reasonInWords(proposal, day),
    when: oldest === newest ? oldest : speak("list.to", { oldest, newest }),
    samples: [...new Set(samples.map((subject) => subject || speak("common.noSubject")))],
    query: filterParams(filter).toString(),
  };
}

export type ProposedSettling = ReturnType<typeof proposalView>;

function titleOf({ kind, key, name }: BacklogProposal): string {
  if (kind === "age") return speak("list.everythingBefore", { key: calendarDayInWords(key) });
  return name || key;
}

function reasonInWords(proposal: BacklogProposal, day: (at: BacklogProposal["oldestAt"]) => string): string {
  const { count, unanswered, reason, lastWroteAt } = proposal;
  switch (reason) {
    case "list":
      return speak("list.mailOfAListNobody");
    case "nobody-asks":
      return speak("list.theLastWordWasOurs");
    case "wrote-since":
      return speak("list.hasWrittenSinceLast", { what: lastWroteAt === null ? "" : day(lastWroteAt) });
    case "unanswered":
      return unanswered === count
        ? speak("list.nobodyHereAnsweredLookFirst")
        : speak("list.unansweredLookFirst", { unanswered });
    case "old":
      return unanswered === 0
        ? speak("list.noneOfItIsUnanswered")
        : speak("list.unansweredAmongIt", { unanswered: { figure: unanswered } });
  }
}
