import { conversationTexts } from "../../texts/en/conversation";
import { type Said, type Sayable, saidOf } from "../../texts/said";
import { domainOf, type EmailAddress, type Mailbox } from "../kernel/email-address";
import { type MethodResult, readAuthenticationResults } from "./authentication-results";

const said = saidOf(conversationTexts);

/** Whether a message comes from whom it says: checked, not checked, or with somebody else's name. */
export type SenderTrust<Reason extends Sayable = Sayable> = {
  readonly verdict: "verified" | "unverified" | "imitation";
  /** Why, as a part of a sentence; a text where it was written down as one. */
  readonly reason: Reason;
};

/** A signature that was checked against the key of its domain (RFC 6376). */
export type CheckedSignature = { readonly domain: string; readonly isValid: boolean };

export type TrustEvidence = {
  readonly from: Mailbox | null;
  /** The values of its Authentication-Results fields, whoever wrote them. */
  readonly authenticationResults: readonly string[];
  /** Names of the servers whose fields are believed: the office's own. */
  readonly trustedAuthservIds: readonly string[];
  readonly signatures: readonly CheckedSignature[];
  /** The tray's own addresses. */
  readonly ours: readonly EmailAddress[];
  readonly colleagues: readonly string[];
  /** Addresses that have written under this name before. */
  readonly namesakes: readonly EmailAddress[];
};

/** What is to be made of the sender of a message. A name that belongs to somebody else counts more than a valid signature. */
export function senderTrust(evidence: TrustEvidence): SenderTrust<Said> {
  const { from } = evidence;
  if (from === null) return { verdict: "unverified", reason: said("conversation.trustNoSender") };
  const proof = proofOf(evidence, domainOf(from.address));
  const imitation = imitationOf(evidence, from, proof !== null);
  if (imitation !== null) return { verdict: "imitation", reason: imitation };
  if (proof !== null) return { verdict: "verified", reason: proof };
  return { verdict: "unverified", reason: said("conversation.trustNothingProves") };
}

function proofOf(evidence: TrustEvidence, domain: string): Said | null {
  const signature = evidence.signatures.find((one) => one.isValid && isAligned(one.domain, domain));
  if (signature !== undefined) return said("conversation.trustSigned", { domain: signature.domain });
  for (const field of evidence.authenticationResults) {
    const read = readAuthenticationResults(field);
    if (read === null || !evidence.trustedAuthservIds.includes(read.authservId)) continue;
    const passed = read.results.find((result) => result.result === "pass" && isAbout(result, domain));
    if (passed !== undefined)
      return said("conversation.trustChecked", { server: read.authservId, method: passed.method.toUpperCase() });
  }
  return null;
}

// RFC 8601 2.7: which property says for whom a method speaks.
const SPEAKS_FOR: Readonly<Record<string, readonly string[]>> = {
  dmarc: ["header.from"],
  dkim: ["header.d", "header.i"],
  spf: ["smtp.mailfrom"],
};

function isAbout({ method, properties }: MethodResult, domain: string): boolean {
  return (SPEAKS_FOR[method] ?? []).some((name) => {
    const value = properties.get(name) ?? "";
    return isAligned(value.slice(value.lastIndexOf("@") + 1), domain);
  });
}

// RFC 7489 3.1, relaxed, without a list of public suffixes: one is the other, or stands below it.
function isAligned(signing: string, domain: string): boolean {
  const name = signing.toLowerCase();
  if (!name.includes(".")) return false;
  return name === domain || domain.endsWith(`.${name}`) || name.endsWith(`.${domain}`);
}

function imitationOf(evidence: TrustEvidence, from: Mailbox, isProven: boolean): Said | null {
  const named = /[^\s<>"'(),]+@[^\s<>"'(),]+\.[^\s<>"'(),]+/.exec(from.name)?.[0]?.toLowerCase();
  if (named !== undefined && domainOf(named as EmailAddress) !== domainOf(from.address)) {
    return said("conversation.trustNameSays", { named, address: from.address });
  }
  if (isProven) return null;
  if (evidence.ours.includes(from.address)) return said("conversation.trustOwnAddress");
  const name = folded(from.name);
  const ownDomains = evidence.ours.map(domainOf);
  if (
    evidence.colleagues.some((colleague) => folded(colleague) === name) &&
    !ownDomains.includes(domainOf(from.address))
  ) {
    return said("conversation.trustNameOfColleague", { address: from.address });
  }
  const other = evidence.namesakes.find((address) => looksLike(domainOf(address), domainOf(from.address)));
  return other === undefined ? null : said("conversation.trustLooksLike", { other, address: from.address });
}

const folded = (name: string) =>
  name.normalize("NFKD").replace(/\p{M}/gu, "").toLowerCase().replace(/\s+/g, " ").trim();

// Letters that pass for each other at a glance (Unicode TR 39 has them all; these are the ones of Latin addresses).
const ALIKE: readonly (readonly [RegExp, string])[] = [
  [/rn/g, "m"],
  [/vv/g, "w"],
  [/[1il|]/g, "l"],
  [/0/g, "o"],
  [/5/g, "s"],
  [/[-_.]/g, ""],
];
const skeleton = (domain: string) =>
  ALIKE.reduce(
    (text, [pattern, letter]) => text.replace(pattern, letter),
    domain.normalize("NFKD").replace(/\p{M}/gu, ""),
  );

/** Whether a domain passes for another at a glance: the same skeleton, or one letter more, less or other. */
export function looksLike(known: string, other: string): boolean {
  if (known === other) return false;
  const [a, b] = [skeleton(known), skeleton(other)];
  return a === b || (Math.abs(a.length - b.length) <= 1 && a.length > 5 && isOneEditAway(a, b));
}

function isOneEditAway(a: string, b: string): boolean {
  let start = 0;
  while (start < Math.min(a.length, b.length) && a[start] === b[start]) start += 1;
  let end = 0;
  while (end < Math.min(a.length, b.length) - start && a.at(-1 - end) === b.at(-1 - end)) end += 1;
  return Math.max(a.length, b.length) - start - end <= 1;
}
