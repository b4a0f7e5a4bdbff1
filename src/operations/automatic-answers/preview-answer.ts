import { type AutomaticAnswer, absentMember, asRule } from "../../core/automatic-answers/automatic-answer";
import { type AnswerProblems, checkAutomaticAnswer } from "../../core/automatic-answers/check-automatic-answer";
import { type AnswerCircumstances, chooseAnswer, type SentAnswer } from "../../core/automatic-answers/choose-answer";
import { answerRecipient, type Unanswerable } from "../../core/automatic-answers/may-be-answered";
import type { EmailAddress } from "../../core/kernel/email-address";
import { type ConversationId, trustedId } from "../../core/kernel/ids";
import { DAY, type Instant, later } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import { examineCondition } from "../../core/rules/examine-condition";
import type { TestedMessage } from "../../core/rules/test-message";
import { isOpenAt } from "../../core/worktime/working-hours";
import { hoursOfTray, type TrayGrant } from "../../storage/access/index";
import { type ArrivedMessage, arrivalsSince } from "../../storage/rules/index";
import type { Deps } from "../base/deps";
import { ownAddresses } from "../base/routing-cache";
import { testedSample } from "../rules/try-rule";
import type { AnswerDraft } from "./edit-answers";

const PREVIEWED = 14 * DAY;
const MOST = 5_000;
const NAMED = 50;

/** Why somebody would have got nothing. */
export type Unanswered = Unanswerable | "no-text" | "open" | "not-theirs" | "lately" | "too-many";

/** Somebody who would have been answered. */
export type WouldAnswer = {
  readonly conversationId: ConversationId;
  readonly at: Instant;
  readonly who: string;
  readonly to: EmailAddress;
  readonly subject: string;
  /** Which of the texts, from 0. */
  readonly text: number;
};

/** What an automatic answer would have done in the last two weeks. */
export type AnswerPreview = {
  /** On how many messages it was tried. */
  readonly of: number;
  readonly count: number;
  readonly people: number;
  /** The newest of them. */
  readonly newest: readonly WouldAnswer[];
  /** How many got nothing, by the reason. */
  readonly not: ReadonlyMap<Unanswered, number>;
};

/**
 * Who would have got what in the last two weeks, had the answer been in force then, and a colleague whose absence it is
 * about been away: each message as it came, with its conversation as it is now. Nothing is sent or kept.
 */
export async function previewAnswer(
  deps: Deps,
  grant: TrayGrant,
  draft: AnswerDraft,
): Promise<Result<AnswerPreview, AnswerProblems>> {
  const { name: _, ...problems } = checkAutomaticAnswer({ ...draft, name: draft.name || "?" }, []);
  if (Object.keys(problems).length > 0) return err(problems);
  const answer: AutomaticAnswer = {
    ...draft,
    id: draft.id ?? trustedId(deps.newId()),
    isOn: true,
    from: null,
    until: null,
  };
  const sample = await arrivalsSince(deps.db, grant, later(deps.now(), -PREVIEWED), MOST);
  const [tested, ours, hours] = await Promise.all([
    testedSample(deps, grant, [asRule(answer)], sample),
    ownAddresses(deps),
    hoursOfTray(deps.db, grant.tray),
  ]);
  const sent = new Map<EmailAddress, SentAnswer[]>();
  const would: WouldAnswer[] = [];
  const not = new Map<Unanswered, number>();
  for (const [place, message] of sample.entries()) {
    const facts = tested[place];
    if (facts === undefined) continue;
    const now = message.receivedAt;
    const found = whatOf(answer, message, facts, {
      ours,
      isOpen: isOpenAt(now, hours),
      tray: grant.tray.addresses,
      sent,
    });
    if (typeof found === "string") not.set(found, (not.get(found) ?? 0) + 1);
    else {
      would.push(found);
      sent.set(found.to, [...(sent.get(found.to) ?? []), { answerId: answer.id, at: now }]);
    }
  }
  return ok({
    of: sample.length,
    count: would.length,
    people: sent.size,
    newest: would.toReversed().slice(0, NAMED),
    not,
  });
}

type Around = {
  readonly ours: readonly EmailAddress[];
  readonly tray: readonly EmailAddress[];
  readonly isOpen: boolean;
  readonly sent: ReadonlyMap<EmailAddress, readonly SentAnswer[]>;
};

function whatOf(
  answer: AutomaticAnswer,
  message: ArrivedMessage,
  facts: TestedMessage,
  { ours, tray, isOpen, sent }: Around,
): WouldAnswer | Unanswered {
  // Where nothing says the envelope, its author stands for it.
  const returnPath = message.envelope.from ?? message.from;
  const recipients = [...message.to, ...message.cc];
  const found = answerRecipient({ kind: message.kind, returnPath, recipients, answersAutomatic: false }, ours, tray);
  if ("not" in found) return found.not;
  const circumstances: AnswerCircumstances = {
    now: message.receivedAt,
    isOpen,
    isAway: () => true,
    isTheirs: (id) => message.conversation.ownerId === id,
  };
  const holds = ({ condition }: AutomaticAnswer["texts"][number]) => examineCondition(condition, facts).holds;
  const chosen = chooseAnswer([answer], circumstances, holds, sent.get(found.to) ?? []);
  if (chosen === null) return whyNone(answer, circumstances);
  if (chosen.kind !== "send") return chosen.kind;
  return {
    conversationId: message.conversationId,
    at: message.receivedAt,
    who: message.fromName || message.from || found.to,
    to: found.to,
    subject: message.subject,
    text: answer.texts.indexOf(chosen.text),
  };
}

function whyNone(answer: AutomaticAnswer, { isOpen, isTheirs }: AnswerCircumstances): Unanswered {
  if (answer.trigger.kind === "closed" && isOpen) return "open";
  const member = absentMember(answer);
  return member !== null && !isTheirs(member) ? "not-theirs" : "no-text";
}
