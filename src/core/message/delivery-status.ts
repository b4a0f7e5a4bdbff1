import { type EmailAddress, looseAddress } from "../kernel/email-address";
import type { FailedRecipient } from "./mail-message";

type DeliveryAction = "failed" | "delayed" | "delivered" | "relayed" | "expanded";

/** What a message/delivery-status part (RFC 3464 2.3) says of one recipient. */
export type RecipientStatus = {
  readonly address: EmailAddress;
  /** The address as the sender gave it, when the report names another one for where it went (RFC 3464 2.3.1). */
  readonly original: EmailAddress | null;
  readonly action: DeliveryAction;
  /** Enhanced status code of RFC 3463, such as 5.1.1; empty when absent. */
  readonly status: string;
  readonly diagnostic: string;
};

const MAX_REPORT_CHARACTERS = 200_000;

/** Makes an address of a local part that stands alone; null where nothing says of which domain it is. */
export type CompleteAddress = (localPart: string) => EmailAddress | null;

/** The recipients of a message/delivery-status part; groups without a recipient or anything said of it are passed over. */
export function readDeliveryStatus(text: string, complete: CompleteAddress): RecipientStatus[] {
  return groupsOf(text).flatMap((fields) => {
    const [address] = ["final-recipient", "original-recipient", "x-actual-recipient"].flatMap((name) =>
      recipientOf(fields.get(name), complete),
    );
    const status = /\b[245]\.\d{1,3}\.\d{1,3}\b/.exec(fields.get("status") ?? "")?.[0] ?? "";
    const action = actionOf(fields.get("action") ?? "", status);
    if (address === undefined || action === null) return [];
    const original = recipientOf(fields.get("original-recipient"), complete)[0] ?? null;
    return [
      {
        address,
        original: original === address ? null : original,
        action,
        status,
        diagnostic: typedValue(fields.get("diagnostic-code") ?? ""),
      },
    ];
  });
}

/** The recipients that a disposition notification speaks of (RFC 8098 3.2.4). */
export function recipientsOfDisposition(text: string, complete: CompleteAddress): EmailAddress[] {
  return groupsOf(text).flatMap((fields) =>
    ["original-recipient", "final-recipient"].flatMap((name) => recipientOf(fields.get(name), complete)).slice(0, 1),
  );
}

const NEXT_RECIPIENT = /\n(?=original-recipient:)|(?<!^original-recipient:[^\n]*)\n(?=final-recipient:)/im;

// Some leave no empty line between the recipients.
function groupsOf(text: string): ReadonlyMap<string, string>[] {
  return text
    .slice(0, MAX_REPORT_CHARACTERS)
    .replace(/\r\n?/g, "\n")
    .split(/\n[ \t]*\n/)
    .flatMap((group) =>
      (group.match(/^final-recipient:/gim) ?? []).length > 1 ? group.split(NEXT_RECIPIENT) : [group],
    )
    .map(readFields);
}

/** The recipients that failed, as a bounce lists them, each once. */
export function failedRecipients(statuses: readonly RecipientStatus[]): FailedRecipient[] {
  const failed = statuses.filter((status) => status.action === "failed");
  return failed
    .filter(({ address }, at) => failed.findIndex((other) => other.address === address) === at)
    .map(({ address, original, status, diagnostic }) => ({
      address,
      ...(original === null ? {} : { original }),
      permanent: !status.startsWith("4"),
      diagnostic: diagnostic || status,
    }));
}

function readFields(group: string): Map<string, string> {
  const fields = new Map<string, string>();
  for (const line of group.replace(/\n[ \t]+/g, " ").split("\n")) {
    const colon = line.indexOf(":");
    const name = line.slice(0, Math.max(colon, 0)).trim().toLowerCase();
    if (colon > 0 && !fields.has(name)) fields.set(name, line.slice(colon + 1).trim());
  }
  return fields;
}

// Some write "failure" or "Failed (reason)", some nothing; then the class of the status speaks (RFC 3463 3.1).
function actionOf(text: string, status: string): DeliveryAction | null {
  const word = /^[a-z]+/.exec(text.trim().toLowerCase())?.[0] ?? "";
  if (/^(fail|expired|undeliver|reject)/.test(word)) return "failed";
  if (/^delay/.test(word)) return "delayed";
  if (/^(delivered|relayed|expanded)$/.test(word)) return word as DeliveryAction;
  if (status === "") return null;
  return status.startsWith("5") ? "failed" : status.startsWith("4") ? "delayed" : "delivered";
}

function recipientOf(value: string | undefined, complete: CompleteAddress): EmailAddress[] {
  const written = typedValue(value ?? "")
    .replace(/^.*<([^<>]*)>.*$/, "$1")
    .replace(/\s*\([^()]*\)\s*$/, "")
    .replace(/\s/g, "");
  if (/^[^@]+@[^@]+$/.test(written)) return [looseAddress(written)];
  const completed = /^[\w.+-]{1,64}$/.test(written) ? complete(written) : null;
  return completed === null ? [] : [completed];
}

// RFC 3464 2.1.2: "rfc822; name@host", the type before the semicolon.
function typedValue(value: string): string {
  return value.replace(/^[\w-]+\s*;\s*/, "").trim();
}
