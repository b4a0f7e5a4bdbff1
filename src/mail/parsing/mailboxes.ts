import { type Address, addressParser } from "postal-mime";
import { looseAddress, type Mailbox } from "../../core/kernel/email-address";
import { plainLine } from "../../core/text/plain-line";
import { repairText } from "./repair-text";

const MAX_ADDRESSES = 1_000;
const MAX_NAME_CHARACTERS = 300;

/** The mailboxes of a field (RFC 5322 3.4), groups opened, at most 1,000; also those written as the standard does not have it. */
export function mailboxesOf(addresses: readonly Address[] | undefined): Mailbox[] {
  const flat = (addresses ?? []).slice(0, MAX_ADDRESSES).flatMap((address) => address.group ?? [address]);
  return withWholeNames(flat.map(({ name, address = "" }) => ({ name, address: withoutRoute(address) })))
    .slice(0, MAX_ADDRESSES)
    .map(({ name, address }) => ({
      name: plainLine(repairText(name)).slice(0, MAX_NAME_CHARACTERS),
      address: looseAddress(address),
    }));
}

/**
 * Whom a message is from. Of several that one who is named in Sender as well, which says who of them sent it (RFC 5322
 * 3.6.2); else the first with an address.
 */
export function fromOf(from: string | null, sender: string | null): Mailbox | null {
  const [all, [sent]] = [mailboxesOf(addressParser(from ?? "")), mailboxesOf(addressParser(sender ?? ""))];
  const isSender = all.find(({ address }) => address !== "" && address === sent?.address);
  return isSender ?? all.find(({ address }) => address !== "") ?? all[0] ?? null;
}

type Written = { readonly name: string; readonly address: string };

// An unquoted comma in a name parts it from its address: `Doe, John <john@x.example>`.
function withWholeNames(written: readonly Written[]): Written[] {
  const whole: Written[] = [];
  let before: string[] = [];
  for (const { name, address } of written) {
    if (address === "") {
      if (name !== "") before.push(name);
    } else if (name === "") {
      // An address alone is no end of a name.
      whole.push(...before.map((one) => ({ name: one, address: "" })), { name, address });
      before = [];
    } else {
      whole.push({ name: [...before, name].join(", "), address });
      before = [];
    }
  }
  return [...whole, ...before.map((one) => ({ name: one, address: "" }))];
}

// `<@one.example,@two.example:john@x.example>`: the way it was to take, which is to be ignored (RFC 5322 4.4).
const withoutRoute = (address: string) => address.replace(/^@[^:]*:/, "");
