import { type EmailAddress, looseAddress } from "../kernel/email-address";
import type { FailedRecipient } from "./mail-message";

export type DeliveryAction = "failed" | "delayed" | "delivered" | "relayed" | "expanded";

/** What a message/delivery-status part (RFC 3464 2.3) says of one recipient. */
export type RecipientStatus = {
  readonly address: EmailAddress;
  readonly action: DeliveryAction;
  /** Enhanced status code of RFC 3463, such as 5.1.1; empty when absent. */
  readonly status: string;
  readonly diagnostic: string;
};

const ACTIONS: ReadonlySet<string> = new Set(["failed", "delayed", "delivered", "relayed", "expanded"]);

/** The recipients of a message/delivery-status part; groups without a recipient or a known action are passed over. */
export function readDeliveryStatus(text: string): RecipientStatus[] {
  return text
    .replace(/\r\n?/g, "\n")
    .split(/\n[ \t]*\n/)
    .map(readFields)
    .flatMap((fields) => {
      const recipient = typedValue(fields.get("final-recipient") ?? fields.get("original-recipient") ?? "");
      const action = (fields.get("action") ?? "").toLowerCase().replace(/\s*\(.*$/, "");
      if (!recipient.includes("@") || !ACTIONS.has(action)) return [];
      return [
        {
          address: looseAddress(recipient.replace(/^<|>$/g, "")),
          action: action as DeliveryAction,
          status: /\d\.\d{1,3}\.\d{1,3}/.exec(fields.get("status") ?? "")?.[0] ?? "",
          diagnostic: typedValue(fields.get("diagnostic-code") ?? ""),
        },
      ];
    });
}

/** The recipients that failed, as a bounce lists them. */
export function failedRecipients(statuses: readonly RecipientStatus[]): FailedRecipient[] {
  return statuses
    .filter((status) => status.action === "failed")
    .map(({ address, status, diagnostic }) => ({
      address,
      permanent: !status.startsWith("4"),
      diagnostic: diagnostic || status,
    }));
}

function readFields(group: string): Map<string, string> {
  const fields = new Map<string, string>();
  for (const line of group.replace(/\n[ \t]+/g, " ").split("\n")) {
    const colon = line.indexOf(":");
    if (colon > 0) fields.set(line.slice(0, colon).trim().toLowerCase(), line.slice(colon + 1).trim());
  }
  return fields;
}

// RFC 3464 2.1.2: "rfc822; name@host", the type before the semicolon.
function typedValue(value: string): string {
  return value.replace(/^[\w-]+\s*;\s*/, "").trim();
}
