import { type EmailAddress, readEmailAddress } from "../core/kernel/email-address";
import { Usage } from "./outcome";

/** An address that was given as an option. Throws `Usage` for what is none. */
export function addressFrom(text: string): EmailAddress {
  const address = readEmailAddress(text);
  if (address === null) throw new Usage(`${text} is no address`);
  return address;
}

/** A time zone that was given as an option. Throws `Usage` for what is none. */
export function zoneFrom(text: string): string {
  try {
    return new Intl.DateTimeFormat("en", { timeZone: text }).resolvedOptions().timeZone;
  } catch {
    throw new Usage(`${text} is no time zone: give an IANA name such as Europe/London`);
  }
}
