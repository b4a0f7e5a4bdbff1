import type { Brand } from "./brand";

/** An address as it is compared: trimmed, lower case. RFC 5321 2.4 lets local parts differ by case; no mailbox in practice does. */
export type EmailAddress = Brand<string, "EmailAddress">;

/** A mailbox of RFC 5322 3.4: the name may be empty, the address is comparable. */
export type Mailbox = { readonly name: string; readonly address: EmailAddress };

// RFC 5321 4.5.3.1: 64 octets before the @, 255 after it.
const MAX_LOCAL_CHARACTERS = 64;
const MAX_DOMAIN_CHARACTERS = 255;

/** An address that can be written to, made comparable; null when the text is none. Quoted local parts are not accepted. */
export function readEmailAddress(text: string): EmailAddress | null {
  const address = text.trim().toLowerCase();
  const at = address.lastIndexOf("@");
  const local = address.slice(0, at);
  const domain = address.slice(at + 1);
  if (at < 1 || local.length > MAX_LOCAL_CHARACTERS || domain.length > MAX_DOMAIN_CHARACTERS) return null;
  if (!/^[^\s"(),:;<>@[\\\]]+$/.test(local) || local.startsWith(".") || local.endsWith(".") || local.includes("..")) {
    return null;
  }
  const labels = domain.split(".");
  if (labels.length < 2 || !labels.every(isDomainLabel)) return null;
  return address as EmailAddress;
}

function isDomainLabel(label: string): boolean {
  return label.length <= 63 && /^[\p{L}\p{N}]([\p{L}\p{N}-]*[\p{L}\p{N}])?$/u.test(label);
}

/** An address out of a message: whatever stands there, made comparable, so that odd mail is kept and not refused. */
export function looseAddress(text: string): EmailAddress {
  return text.trim().toLowerCase() as EmailAddress;
}

/** The address without a subaddress (RFC 5233): what stands behind a plus in its local part. */
export function withoutSubaddress(address: EmailAddress): EmailAddress {
  return address.replace(/^([^+@]+)\+[^@]*@/, "$1@") as EmailAddress;
}

/** The part after the last @, or an empty text. */
export function domainOf(address: EmailAddress): string {
  return address.slice(address.lastIndexOf("@") + 1);
}

/** The name people see for a mailbox: its name, else its address. */
export function mailboxName(mailbox: Mailbox): string {
  return mailbox.name === "" ? mailbox.address : mailbox.name;
}

/** `Name <address>` entries separated by commas or semicolons, as typed into To or Cc; the texts that are no address come back apart. */
export function readMailboxes(text: string): { mailboxes: Mailbox[]; malformed: string[] } {
  const mailboxes: Mailbox[] = [];
  const malformed: string[] = [];
  for (const entry of splitEntries(text)) {
    const angled = /^(.*)<([^<>]*)>$/s.exec(entry);
    const address = readEmailAddress(angled?.[2] ?? entry);
    if (address === null) malformed.push(entry);
    else if (!mailboxes.some((known) => known.address === address)) {
      mailboxes.push({ name: unquote(angled?.[1] ?? ""), address });
    }
  }
  return { mailboxes, malformed };
}

/** The text that `readMailboxes` reads back. */
export function printMailboxes(mailboxes: readonly Mailbox[]): string {
  return mailboxes
    .map(({ name, address }) => {
      if (name === "") return address;
      return /[",;<>]/.test(name) ? `"${name.replace(/["\\]/g, "\\$&")}" <${address}>` : `${name} <${address}>`;
    })
    .join(", ");
}

/** The entries of such a text, one by one, as they were typed. A comma inside a quoted name does not end one. */
export function splitEntries(text: string): string[] {
  const entries: string[] = [];
  let entry = "";
  let quoted = false;
  for (let at = 0; at < text.length; at += 1) {
    const character = text.charAt(at);
    if (character === "\\" && quoted) {
      entry += character + text.charAt(at + 1);
      at += 1;
    } else if ((character === "," || character === ";" || character === "\n") && !quoted) {
      entries.push(entry);
      entry = "";
    } else {
      if (character === '"') quoted = !quoted;
      entry += character;
    }
  }
  return [...entries, entry].map((one) => one.trim()).filter((one) => one !== "");
}

function unquote(name: string): string {
  const trimmed = name.trim();
  const quoted = /^"(.*)"$/s.exec(trimmed)?.[1];
  return quoted === undefined ? trimmed : quoted.replace(/\\(.)/gs, "$1");
}
