import { deriveDocket } from "../../core/docket/derive-docket";
import { type EmailAddress, readEmailAddress, withoutSubaddress } from "../../core/kernel/email-address";
import type { MailMessage } from "../../core/message/mail-message";
import type { RuleActionOf } from "../../core/rules/rule";
import { NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import { htmlOfText } from "../../core/writing/html-of-text";
import type { Tray } from "../../storage/access/index";
import type { Transaction } from "../../storage/base/index";
import { factsOf, lockConversations, type NewMessage } from "../../storage/facts/index";
import { answersTexts } from "../../texts/en/answers";
import { saidOf } from "../../texts/said";
import type { Within } from "../base/deps";
import { factOf } from "../base/message-fact";
import { ownAddresses } from "../base/routing-cache";
import { writtenDown } from "../base/written-down";
import type { ArrivingMessage } from "../rules/rule-facts";
import { resentLetter, saveLetter, storedLetter } from "../sending/letters";
import type { StoredArrival } from "./answer-by-itself";

const said = saidOf(answersTexts);

type SendsOn = RuleActionOf<"forward" | "redirect"> & { readonly rule: string };

/** Sends a message on where rules that are for it say so: within the transaction that stores it, so once, and each address once. */
export async function sendOn(
  trx: Transaction,
  deps: Within,
  tray: Tray,
  arrival: ArrivingMessage,
  { stored, place, rules }: Pick<StoredArrival, "stored" | "place" | "rules">,
): Promise<void> {
  const all = rules.flatMap(({ name, actions }) =>
    actions.flatMap((action): SendsOn[] => {
      if (action.kind !== "forward" && action.kind !== "redirect") return [];
      // As it stands in a field of the header.
      const to = readEmailAddress(action.to);
      return to === null ? [] : [{ ...action, to, rule: name }];
    }),
  );
  const each = [...new Map(all.map((action) => [action.to, action])).values()];
  if (each.length === 0 || stored.direction !== "in" || arrival.isHistory || arrival.imported) return;
  if (await cameRound(trx, deps, tray, arrival.message)) return;
  for (const action of each) {
    const [conversation] = await lockConversations(trx, tray.id, [place.conversationId]);
    if (conversation === undefined) throw new Error(`conversation ${place.conversationId} went away under its message`);
    const facts = (await factsOf(trx, [conversation.id])).get(conversation.id) ?? NOTHING_HAPPENED;
    const { standing } = deriveDocket(facts);
    if (standing.kind === "junk" || standing.kind === "bin") return;
    const ours = await letterOf(deps, tray, action, arrival);
    const version = conversation.version + 1;
    const after = { ...facts, messages: [...facts.messages, factOf(ours, version)] };
    const at = { conversationId: conversation.id, start: null, version, who: null, facts: after };
    await saveLetter(trx, deps, ours, at, place.newestText);
  }
}

const LOOP_FIELD = "X-Loop";

// What went through here before comes round, and would for ever; so would what is ours.
async function cameRound(trx: Transaction, deps: Within, tray: Tray, message: MailMessage): Promise<boolean> {
  const ours = await ownAddresses({ ...deps, db: trx });
  const isOurs = (address: EmailAddress | null) =>
    address !== null && (ours.includes(address) || ours.includes(withoutSubaddress(address)));
  const marks = message.headers
    .filter(({ name }) => name === LOOP_FIELD.toLowerCase())
    .map(({ value }) => readEmailAddress(value.trim()));
  return (
    marks.some((address) => address !== null && tray.addresses.includes(address)) ||
    isOurs(message.from?.address ?? null)
  );
}

function letterOf(
  deps: Within,
  tray: Tray,
  { kind, to, rule }: SendsOn,
  { message, raw }: ArrivingMessage,
): Promise<NewMessage> {
  const headers = { [LOOP_FIELD]: tray.addresses[0] ?? "" };
  const why = said("answers.sentOnBy", { name: rule });
  if (kind === "redirect") return resentLetter(deps, { tray, why }, raw, { to, headers });
  const letter = {
    ...{ to: [{ name: "", address: to }], cc: [], subject: `Fwd: ${message.subject}`.trim() },
    html: htmlOfText(writtenDown(said("answers.sentOnText", { name: rule, tray: tray.name }))),
    ...{ inReplyTo: null, references: [], carries: raw, enclosed: [], recordCodes: [] },
  };
  const automatic = { ...headers, "Auto-Submitted": "auto-generated" };
  return storedLetter(deps, { tray, memberId: null, why }, letter, { headers: automatic });
}
