import type { Protection } from "../../../core/message/mail-message";
import type { SenderTrust } from "../../../core/message/sender-trust";
import type { CorrespondenceMessage } from "../../../operations/index.server";
import type { English } from "../../../texts/en/index";
import type { PlainKey } from "../../../texts/say";
import { speak, worded } from "../base/say.server";

type Label = PlainKey<English>;

const KIND_LABELS: Readonly<Partial<Record<CorrespondenceMessage["kind"], Label>>> = {
  automatic: "conversation.automaticReply",
  bounce: "conversation.couldNotBeDelivered",
  "delivery-report": "conversation.deliveryReport",
  list: "conversation.listMail",
  calendar: "conversation.invitationKind",
};
/** What a message that no person wrote was taken for; null for one of a person. */
export function kindLabel(kind: CorrespondenceMessage["kind"]): string | null {
  const label = KIND_LABELS[kind];
  return label === undefined ? null : speak(label);
}

// Where a line begins with that word.
const SENDER_WORDS: Readonly<Record<SenderTrust["verdict"], Label>> = {
  verified: "conversation.trustVerified",
  unverified: "conversation.trustUnverified",
  imitation: "conversation.trustImitation",
};
const PROTECTION_LABELS: Readonly<Record<Protection, Label>> = {
  "signed-smime": "conversation.signedSMimeNotChecked",
  "encrypted-smime": "conversation.encryptedSMimeOpenIt",
  "signed-openpgp": "conversation.signedOpenpgpNotChecked",
  "encrypted-openpgp": "conversation.encryptedOpenpgpOpenItWith",
};
const TRUST_LABELS: Readonly<Record<SenderTrust["verdict"], Label>> = {
  verified: "conversation.senderVerified",
  unverified: "conversation.senderNotVerified",
  imitation: "conversation.perhapsNotWhoItSeems",
};

/** How a message is signed or encrypted. */
export function protectionLabel(protection: Protection | null): string | null {
  return protection === null ? null : speak(PROTECTION_LABELS[protection]);
}

/** What is to be thought of its sender, and why. */
export function trustView({ verdict, reason }: SenderTrust) {
  return { verdict, label: speak(TRUST_LABELS[verdict]), reason: worded(reason) };
}

/** The same, in a line about the sender. */
export function senderInWords({ verdict, reason }: SenderTrust): string {
  return `${speak(SENDER_WORDS[verdict])}; ${worded(reason)}`;
}
