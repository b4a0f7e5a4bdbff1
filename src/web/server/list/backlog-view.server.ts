import type { BacklogProposal } from "../../../core/lists/backlog";
import { narrowingParams } from "../../../core/lists/narrowing";
import { calendarDayInWords, dayInWords } from "../../../core/time/day-words";
import type { Reading } from "../base/words.server";

/** A proposal for older mail in words, with the list that it is about. */
export function proposalView(proposal: BacklogProposal, reading: Reading) {
  const { kind, key, count, samples, narrowing } = proposal;
  const day = (at: BacklogProposal["oldestAt"]) => dayInWords(at, reading.now, reading.zone);
  const [oldest, newest] = [day(proposal.oldestAt), day(proposal.newestAt)];
  return {
    key: `${kind} ${key}`,
    kind,
    title: titleOf(proposal),
    detail: kind === "age" ? "" : key,
    count,
    reason: reasonInWords(proposal, day),
    when: oldest === newest ? oldest : `${oldest} to ${newest}`,
    samples: [...new Set(samples.map((subject) => subject || "(no subject)"))],
    query: narrowingParams(narrowing).toString(),
  };
}

export type ProposedSettling = ReturnType<typeof proposalView>;

function titleOf({ kind, key, name }: BacklogProposal): string {
  if (kind === "age") return `Everything before ${calendarDayInWords(key)}`;
  return name || key;
}

function reasonInWords(proposal: BacklogProposal, day: (at: BacklogProposal["oldestAt"]) => string): string {
  const { count, unanswered, reason, lastWroteAt } = proposal;
  switch (reason) {
    case "list":
      return "Mail of a list: nobody there waits for an answer.";
    case "nobody-asks":
      return "The last word was ours, or a machine’s.";
    case "wrote-since":
      return `Has written since, last ${lastWroteAt === null ? "" : day(lastWroteAt)}.`;
    case "unanswered":
      return unanswered === count ? "Nobody here answered; look first." : `${unanswered} unanswered; look first.`;
    case "old":
      return unanswered === 0 ? "None of it is unanswered." : `${unanswered.toLocaleString("en")} unanswered among it.`;
  }
}
