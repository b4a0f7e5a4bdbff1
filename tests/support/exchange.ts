import type { Effect, JournalEntry } from "~/core/journal/entry";
import type { EmailAddress } from "~/core/kernel/email-address";
import { type EntryId, type ExpectationId, type MemberId, type MessageId, trustedId } from "~/core/kernel/ids";
import { HOUR, type Instant, instant } from "~/core/kernel/instant";
import type { MessageKind } from "~/core/message/mail-message";
import type { ConversationFacts, MessageFact } from "~/core/standing/derive-standing";

// An exchange as a line of words, one an hour, counted from one:
//   V T Q      a person writes: Vane, Thrane, Quayle; v is Vane's other address, H somebody else of Vane's house
//   w          we write; n Tobias notes something
//   V!  V!20   Vane's machine answers; it says that she is back at hour 20
//   VT#        a bounce: neither Vane nor Thrane could be reached
//   L C R      list mail, an invitation by Vane, a delivery report
//   ?V ?VT     we await any of them; ?V+T each of them; ?* anybody; ?@V anybody of Vane's house; ?~ Tobias
//   ?V=12      until hour 12
//   -1         the first expectation is withdrawn; >1=30 it is extended; ok3 what came at hour 3 is no answer
//   kept done  by hand: still our move; no answer needed
//   3.5:V      it was written at half past three and came only now

export const PEOPLE = {
  V: "vane@vanehouse.example" as EmailAddress,
  T: "casework@calder.example" as EmailAddress,
  Q: "otto@quayle.example" as EmailAddress,
  v: "p.vane@telephone.example" as EmailAddress,
  H: "housekeeper@vanehouse.example" as EmailAddress,
};
const TOBIAS = trustedId<MemberId>("tobias");
const INES = trustedId<MemberId>("ines");

/** The nth hour. */
export const hour = (n: number): Instant => instant(Math.round(n * HOUR));

/** The facts that an exchange comes to. */
export function exchanged(line: string): ConversationFacts {
  const messages: MessageFact[] = [];
  const entries: JournalEntry[] = [];
  let expectations = 0;
  for (const [at, word] of line.split(/\s+/).filter(Boolean).entries()) {
    const version = at + 1;
    const [, dated, what = word] = /^([\d.]+):(.+)$/.exec(word) ?? [];
    const message = messageOf(what);
    if (message !== null) {
      const when = { at: hour(dated === undefined ? version : Number(dated)), arrivedAt: hour(version) };
      messages.push({ ...message, ...when, version, id: trustedId<MessageId>(`m${version}`) });
      continue;
    }
    if (what.startsWith("?")) expectations += 1;
    const [effect, by] = entryOf(what, expectations, messages);
    entries.push({ id: trustedId<EntryId>(`e${version}`), version, at: hour(version), by, effect });
  }
  return { messages, entries, replacedCategories: [], replacedOwners: [] };
}

type Bare = Omit<MessageFact, "id" | "version" | "at" | "arrivedAt">;

function messageOf(word: string): Bare | null {
  const from = (letter: string): EmailAddress => PEOPLE[letter as keyof typeof PEOPLE];
  const bare = (direction: "in" | "out", kind: MessageKind, sender: EmailAddress, more: Partial<Bare> = {}): Bare => ({
    direction,
    kind,
    from: sender,
    fromName: "",
    authorId: null,
    failedRecipients: [],
    ...more,
  });
  if (/^[VTQvH]$/.test(word)) return bare("in", "person", from(word));
  if (word === "w") return bare("out", "person", "office@ottermoor.example" as EmailAddress, { authorId: INES });
  if (word === "L") return bare("in", "list", PEOPLE.Q);
  if (word === "C") return bare("in", "calendar", PEOPLE.V);
  if (word === "R") return bare("in", "delivery-report", PEOPLE.Q);
  const [, machine, back] = /^([VTQvH])!(\d*)$/.exec(word) ?? [];
  if (machine !== undefined) {
    return bare("in", "automatic", from(machine), { returnsAt: back === "" ? null : hour(Number(back)) });
  }
  const [, failed] = /^([VTQ]+)#$/.exec(word) ?? [];
  if (failed === undefined) return null;
  const failedRecipients = [...failed].map(from);
  return bare("in", "bounce", "mailer-daemon@x.example" as EmailAddress, { failedRecipients });
}

function entryOf(word: string, expectations: number, messages: readonly MessageFact[]): [Effect, MemberId] {
  const named = (at: string) => trustedId<ExpectationId>(`x${at}`);
  if (word === "kept") return [{ kind: "kept" }, INES];
  if (word === "done") return [{ kind: "turn-set", turn: "nobody" }, INES];
  if (word === "settled") return [{ kind: "settled" }, INES];
  if (word === "n") return [{ kind: "noted", text: "a note" }, TOBIAS];
  const [, withdrawn] = /^-(\d)$/.exec(word) ?? [];
  if (withdrawn !== undefined) return [{ kind: "withdrawn", expectationId: named(withdrawn) }, INES];
  const [, extended, until] = /^>(\d)=(\d+)$/.exec(word) ?? [];
  if (extended !== undefined)
    return [{ kind: "extended", expectationId: named(extended), until: hour(Number(until)) }, INES];
  const [, acknowledged] = /^ok(\d+)$/.exec(word) ?? [];
  if (acknowledged !== undefined) return [{ kind: "acknowledged", messageId: trustedId(`m${acknowledged}`) }, INES];
  const [, whom, by] = /^\?([^=]+)(?:=(\d+))?$/.exec(word) ?? [];
  if (whom === undefined) throw new Error(`“${word}” is no word of an exchange`);
  const expected: Extract<Effect, { kind: "expected" }> = {
    kind: "expected" as const,
    expectationId: named(String(expectations)),
    from: [],
    until: by === undefined ? null : hour(Number(by)),
    messageId: messages.findLast(({ direction }) => direction === "out")?.id ?? null,
    ...awaitedOf(whom),
  };
  return [expected, INES];
}

function awaitedOf(whom: string): Partial<Extract<Effect, { kind: "expected" }>> {
  if (whom === "*") return {};
  if (whom === "~") return { colleagueId: TOBIAS };
  if (whom === "@V") return { from: [PEOPLE.V], organisation: "vanehouse.example" };
  const letters = whom.split("+");
  const from = [...letters.join("")].map((letter) => PEOPLE[letter as keyof typeof PEOPLE]);
  const aliases = from.includes(PEOPLE.V) ? [{ address: PEOPLE.v, of: PEOPLE.V }] : [];
  return { from, aliases, ...(letters.length > 1 ? { need: "each" } : {}) };
}
