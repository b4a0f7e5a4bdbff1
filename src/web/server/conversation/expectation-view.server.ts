import type { EmailAddress } from "../../../core/kernel/email-address";
import type { MemberId } from "../../../core/kernel/ids";
import { dateOf } from "../../../core/kernel/instant";
import { dayInWords } from "../../../core/time/day-words";
import { stateInWords, whomInWords } from "../../../core/turns/expectation-in-words";
import { isOpen, isOverdue } from "../../../core/turns/expectations";
import type { OpenConversation } from "../../../operations/index.server";
import type { Reading } from "../base/row-view.server";
import { speak } from "../base/say.server";

/** What is awaited in a conversation, ready to be drawn: open ones and those that ended, as they were made. */
export function expectationViews(open: OpenConversation, member: (id: MemberId) => string, { now, zone }: Reading) {
  const names = new Map<EmailAddress, string>();
  for (const { fromAddress, fromName, recipients } of open.messages) {
    for (const { address, name } of [...recipients.to, ...recipients.cc]) if (name !== "") names.set(address, name);
    if (fromName !== "") names.set(fromAddress, fromName);
  }
  const reader = { person: (address: EmailAddress) => names.get(address) ?? address, member, now, zone };
  return open.docket.expectations.map((one) => ({
    id: one.id,
    whom: speak(whomInWords(one, reader)),
    state: speak(stateInWords(one, reader)),
    isOpen: isOpen(one),
    isOver: isOverdue(one, now),
    /** The message that was taken for the answer, to be called none. */
    answeredBy: one.state === "answered" ? (one.answers.at(-1)?.messageId ?? null) : null,
  }));
}

export type ExpectationView = ReturnType<typeof expectationViews>[number];

/** What they say they will do by a day, to be waited for. */
export function promisedView({ promised }: OpenConversation, { now, zone }: Reading) {
  if (promised?.date == null) return null;
  return {
    text: promised.text,
    at: dateOf(promised.date.at).toISOString(),
    words: speak(dayInWords(promised.date.at, now, zone)),
  };
}

export type PromisedView = NonNullable<ReturnType<typeof promisedView>>;
