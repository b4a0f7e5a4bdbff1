import { mailboxName } from "../../../core/kernel/email-address";
import type { MemberId } from "../../../core/kernel/ids";
import { sizeInWords } from "../../../core/kernel/size-in-words";
import type { WaysToLeave } from "../../../core/message/ways-to-leave";
import { SHOWN_AT_ONCE, textPart } from "../../../core/text/text-parts";
import { dayAndTime } from "../../../core/time/day-words";
import type { CorrespondenceMessage } from "../../../operations/index.server";
import type { Reading } from "../base/row-view.server";
import { speak, worded } from "../base/say.server";
import { appointmentView } from "./appointment-view.server";
import { kindLabel, protectionLabel, trustView } from "./message-labels.server";
import { textBlocks } from "./text-blocks.server";

/** The beginning of a text, and how much there is after it. */
function firstBlocks(whole: string) {
  const { text, left } = textPart(whole, 0, SHOWN_AT_ONCE.first);
  return { blocks: textBlocks(text), next: left === 0 ? null : text.length, left };
}

export type LongText = ReturnType<typeof firstBlocks>;

/** A message of a conversation ready to be drawn. */
export function messageView(
  message: CorrespondenceMessage,
  nameOf: (id: MemberId | null) => string,
  { now, zone }: Reading,
) {
  const { id, direction, kind, kindReason, ownText, restText, hasHtml, hasRemoteContent, isNewParticipant } = message;
  const ours = direction === "out";
  const { to, cc, bcc = [] } = message.recipients;
  const listed = (mailboxes: typeof to) => mailboxes.map(mailboxName).join(", ");
  return {
    id,
    ours,
    kindReason: worded(kindReason),
    hasHtml,
    hasRemoteContent,
    isNewParticipant,
    warnings: message.warnings,
    own: firstBlocks(ownText),
    rest: firstBlocks(restText),
    protectionLabel: protectionLabel(message.protection),
    trust: message.trust === null ? null : trustView(message.trust),
    outcomes: message.recipientStates.map(outcomeInWords),
    kindLabel: kindLabel(kind),
    isMachine: kind === "automatic" || kind === "bounce" || kind === "delivery-report",
    showHtmlFirst: hasHtml && message.shownPart === "html",
    appointments: message.appointments.map((one) => appointmentView(one, { now, zone })),
    who: ours && message.authorId !== null ? nameOf(message.authorId) : message.fromName || message.fromAddress,
    address: message.fromAddress,
    to: speak("conversation.toPeople", {
      people: listed(to) || speak("conversation.nobodyNamed"),
      copied: [
        cc.length === 0 ? "" : speak("conversation.copiedTo", { people: listed(cc) }),
        bcc.length === 0 ? "" : speak("conversation.blindCopiedTo", { people: listed(bcc) }),
      ].join(""),
    }),
    when: speak(dayAndTime(message.sentAt, now, zone)),
    restLines: restText === "" ? 0 : restText.split("\n").length,
    attachments: message.attachments.filter(({ inline }) => !inline).map(attachmentView),
    delivery: message.delivery === null ? null : deliveryView(message.delivery),
    leaving: message.unsubscribe === null || ours ? null : leavingView(message.unsubscribe, message),
  };
}

/** How the list of a message can be left, in words. */
function leavingView({ atOnce, mail, page }: WaysToLeave, { listId, trust }: CorrespondenceMessage) {
  const host = (url: string) => new URL(url).host;
  const how =
    atOnce !== null
      ? speak("conversation.oneRequestToDoesIt", { host: host(atOnce) })
      : mail !== null
        ? speak("conversation.aMessageToDoesIt", { to: mail.to })
        : speak("conversation.itCanBeLeftOn", { host: host(page ?? "") });
  return {
    listId,
    how,
    page: atOnce === null && mail === null ? page : null,
    isVerified: trust?.verdict === "verified",
    isImitation: trust?.verdict === "imitation",
  };
}

function outcomeInWords({ address, state, detail }: CorrespondenceMessage["recipientStates"][number]) {
  const because = detail === "" ? "" : `: ${detail}`;
  switch (state) {
    case "failed":
      return { bad: true, words: speak("conversation.failedFor", { address, because }) };
    case "delayed":
      return { bad: false, words: speak("conversation.delayedFor", { address, because }) };
    default:
      return {
        bad: false,
        words: speak("conversation.to", { what: state === "given" ? speak("conversation.givenOn") : state, address }),
      };
  }
}

const SHOWN_TYPES: Readonly<Record<string, "image" | "pdf" | "text">> = {
  "image/png": "image",
  "image/jpeg": "image",
  "image/gif": "image",
  "image/webp": "image",
  "application/pdf": "pdf",
  "text/plain": "text",
  "text/csv": "text",
};

function attachmentView({ index, fileName, contentType, size }: CorrespondenceMessage["attachments"][number]) {
  return { index, fileName, contentType, size: speak(sizeInWords(size)), preview: SHOWN_TYPES[contentType] ?? null };
}

function deliveryView({ state, reason }: NonNullable<CorrespondenceMessage["delivery"]>) {
  switch (state) {
    case "waiting":
      return {
        words:
          reason === null ? speak("conversation.waitingToGo") : speak("conversation.waitingToGoWillBe", { reason }),
        failed: false,
      };
    case "going":
      return { words: speak("conversation.goingOut"), failed: false };
    case "sent":
      return { words: speak("conversation.sent"), failed: false };
    case "withdrawn":
      return { words: speak("conversation.notSentTakenBack"), failed: false };
    case "failed":
      return {
        words: speak("conversation.notSent", { reason: reason ?? speak("conversation.noReasonGiven") }),
        failed: true,
      };
  }
}
