import type { EmailAddress } from "../../src/core/kernel/email-address";
import { instant } from "../../src/core/kernel/instant";
import type { AddressMatch, AddressPlace, TestOf, TextMatch, TextPlace } from "../../src/core/rules/condition";
import type { RuledMessage } from "../../src/core/rules/ruled-message";

// Monday, 30 November 2026, at 9:30 UTC.
const ARRIVED = instant(Date.UTC(2026, 10, 30, 9, 30));

/** A message as rules see it: from a person to us, with nothing remarkable but what is given. */
export function aRuledMessage(given: Partial<RuledMessage> = {}): RuledMessage {
  return {
    from: "vane@vane.example" as EmailAddress,
    to: ["office@ottermoor.example" as EmailAddress],
    cc: [],
    ours: ["office@ottermoor.example" as EmailAddress],
    envelope: { from: null, to: [] },
    subject: "",
    ownText: "",
    restText: "",
    kind: "person",
    list: null,
    isFirst: true,
    attachments: [],
    size: 1_000,
    headers: [],
    addressFields: new Map(),
    isVerified: false,
    arrived: { at: ARRIVED, zone: "Europe/Berlin", isOpen: true },
    references: [],
    correspondents: new Map(),
    conversation: null,
    ...given,
  };
}

/** A test for addresses, or for everybody of a domain (`@x.example`). */
export function addressed(where: AddressPlace, ...of: readonly string[]): TestOf<"address"> {
  const matches = of.map(
    (one): AddressMatch =>
      one.startsWith("@")
        ? { kind: "domain", domain: one.slice(1) }
        : { kind: "address", address: one as EmailAddress },
  );
  return { kind: "address", where, of: matches };
}

/** A test for words. */
export function worded(where: TextPlace, how: TextMatch["how"], ...values: readonly string[]): TestOf<"text"> {
  return { kind: "text", where, match: { how, values } };
}
