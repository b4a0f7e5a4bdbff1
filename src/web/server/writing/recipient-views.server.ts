import { mailboxName, printMailboxes } from "../../../core/kernel/email-address";
import type { RecipientWarning } from "../../../core/recipients/recipient-warnings";
import { dayInWords } from "../../../core/time/day-words";
import type { FoundRecipients } from "../../../operations/index.server";
import type { Reading } from "../base/row-view.server";
import { speak } from "../base/say.server";

/** Whom a message could go to: what is put into the list, and how it is shown. */
export type RecipientChoice = { readonly entries: readonly string[]; readonly name: string; readonly about: string };

/** Those who were found, people before groups. */
export function recipientChoices({ people, groups }: FoundRecipients): RecipientChoice[] {
  return [
    ...people.map((one) => ({
      entries: [printMailboxes([one])],
      name: mailboxName(one),
      about: [one.name === "" ? "" : one.address, one.organisation].filter((part) => part !== "").join(" · "),
    })),
    ...groups.map(({ name, people: mailboxes }) => ({
      entries: mailboxes.map((mailbox) => printMailboxes([mailbox])),
      name,
      about: speak("writing.groupOf", { count: mailboxes.length, people: mailboxes.map(mailboxName).join(", ") }),
    })),
  ];
}

/** Something worth knowing before a message goes, and what can be done about it. */
export type WarningView = {
  readonly kind: RecipientWarning["kind"];
  readonly words: string;
  /** Another address in the place of one; some who are put into Cc; all of To put into Bcc; null where nothing is offered. */
  readonly offer:
    | { readonly kind: "replace"; readonly address: string; readonly by: string; readonly words: string }
    | { readonly kind: "copy"; readonly entries: string; readonly words: string }
    | { readonly kind: "hide"; readonly words: string }
    | null;
};

export function warningView(warning: RecipientWarning, { now, zone }: Reading): WarningView {
  const { kind } = warning;
  switch (warning.kind) {
    case "looks-like": {
      const { address, like, times } = warning;
      return {
        kind,
        words: speak("writing.looksLike", { address, like, times }),
        offer: { kind: "replace", address, by: like, words: speak("writing.takeThatOne") },
      };
    }
    case "left-out": {
      const people = warning.mailboxes.map(mailboxName).join(", ");
      const words = speak("writing.wereThereBefore", { people, count: warning.mailboxes.length });
      return {
        kind,
        words,
        offer: { kind: "copy", entries: printMailboxes(warning.mailboxes), words: speak("writing.copyThem") },
      };
    }
    case "many":
      return {
        kind,
        words: speak("writing.manySeeEachOther", { count: warning.count }),
        offer: { kind: "hide", words: speak("writing.hideThem") },
      };
    case "outside":
      return { kind, words: speak("writing.oneFromOutside", { address: warning.address }), offer: null };
    case "greets-another":
      return { kind, words: speak("writing.greetsAnother", { name: warning.name }), offer: null };
    case "foreign-code":
      return { kind, words: speak("writing.codeOfAnother", { code: warning.code }), offer: null };
    case "away": {
      const back = speak(dayInWords(warning.until, now, zone));
      return { kind, words: speak("writing.colleagueIsAway", { name: warning.name, back }), offer: null };
    }
  }
}
