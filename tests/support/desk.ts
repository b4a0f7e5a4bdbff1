import type { Decision } from "~/core/deciding/decision";
import { type BatchId, type ConversationId, trustedId } from "~/core/kernel/ids";
import type { Result } from "~/core/kernel/result";
import type { EntryDraft } from "~/core/records/register-entry";
import {
  addMember,
  answerConversation,
  createRecord,
  decide,
  getTypes,
  type Member,
  openConversation,
  receiveMessage,
  type TrayGrant,
  traysOf,
} from "~/operations/index.server";
import { aMessage } from "./mail";
import { address, asLead, type Office, passes, setUpOffice, type TestTray } from "./test-database";

/** An office at work: Ines leads it, Tobias and Mara decide, Rook reads. */
export type Desk = Office & {
  readonly tray: TestTray;
  readonly lead: TrayGrant;
  readonly mara: Member;
  readonly maraGrant: TrayGrant;
  /** Somebody writes: a new conversation, or into one (`into`, whose newest message is answered). */
  readonly arrive: (given?: {
    readonly from?: string;
    readonly subject?: string;
    readonly into?: ConversationId;
    readonly body?: string;
    /** When it says it was written. */
    readonly date?: string;
  }) => Promise<ConversationId>;
  /** Carries decisions out, a minute apart, and gives their batches. */
  readonly does: (
    who: TrayGrant,
    about: ConversationId | readonly ConversationId[],
    ...decisions: readonly Decision[]
  ) => Promise<BatchId[]>;
  readonly answers: (who: Member, id: ConversationId, html?: string) => Promise<void>;
  /** Opens a record of the first type, known to everybody unless something else is said. */
  readonly opensRecord: (title: string, given?: Partial<EntryDraft>) => Promise<OpenedRecord>;
  /** Her grant as of now. */
  readonly grantNow: (member: Pick<Member, "id">) => Promise<TrayGrant>;
  /** Where a conversation is, whose it is, and how often it was written in. */
  readonly isNow: (
    id: ConversationId,
  ) => Promise<{ readonly standing: string; readonly ownerId: string | null; readonly count: number }>;
};

/** A record as it was opened. */
export type OpenedRecord = Extract<Awaited<ReturnType<typeof createRecord>>, { ok: true }>["value"];

/** Known to these and nobody else. */
export const only = (...members: readonly Pick<Member, "id">[]): EntryDraft["access"] => ({
  memberIds: members.map(({ id }) => id),
  groupIds: [],
});

/** What was done, or a failure that says what it was refused for. */
export function done<T>(result: Result<T, unknown>): T {
  if (!result.ok) throw new Error(JSON.stringify(result.error));
  return result.value;
}

/** What something was refused for; "done" when it was not. */
export function refusal(result: Result<unknown, { readonly kind: string }>): string {
  return result.ok ? "done" : result.error.kind;
}

export async function setUpDesk(tray: TestTray): Promise<Desk> {
  const { deps } = tray;
  const office = await setUpOffice(deps);
  const lead = await asLead(tray, office.ines);
  const added = await addMember(deps, {
    signInName: "mara",
    name: "Mara Quell",
    initials: "MQ",
    role: "member",
    timeZone: "UTC",
    password: "ottermoor",
    trays: ["office"],
  });
  const mara = done(added);
  const grantNow = async ({ id }: Pick<Member, "id">) => {
    const [grant] = await traysOf(deps, { id } as Member);
    if (grant === undefined) throw new Error("she may look into no tray");
    return grant;
  };
  let count = 0;
  const newest = new Map<ConversationId, string>();
  const arrive: Desk["arrive"] = async ({ from, subject, into, body, date } = {}) => {
    passes(tray, 5);
    count += 1;
    const id = `desk${count}@vanehouse.example`;
    const raw = aMessage({
      id,
      subject: `${into === undefined ? "" : "Re: "}${subject ?? `Letter ${count}`}`,
      ...(from === undefined ? {} : { from }),
      ...(body === undefined ? {} : { body }),
      ...(date === undefined ? {} : { date }),
      ...(into === undefined ? {} : { inReplyTo: newest.get(into) ?? "" }),
    });
    const recipients = [address("office@ottermoor.example")];
    const [kept] = await receiveMessage(deps, { raw, envelopeSender: "a@x.example", recipients });
    const conversationId = kept?.conversationId ?? trustedId<ConversationId>("");
    newest.set(conversationId, id);
    return conversationId;
  };
  const opensRecord: Desk["opensRecord"] = async (title, given = {}) => {
    const [type] = await getTypes(deps);
    if (type === undefined) throw new Error("there are types from the start");
    const entry = { typeId: type.id, title, parentId: null, responsibleId: null, note: "", addresses: "" };
    return done(await createRecord(deps, lead, { ...entry, access: null, ...given }));
  };
  const does: Desk["does"] = async (who, about, ...decisions) => {
    const batches: BatchId[] = [];
    for (const decision of decisions) {
      passes(tray, 1);
      const ids = typeof about === "string" ? [about] : about;
      batches.push(done(await decide(deps, who, { ids, seenVersion: null }, decision)).batchId);
    }
    return batches;
  };
  const answers: Desk["answers"] = async (who, id, html = "<p>Yes.</p>") => {
    passes(tray, 1);
    const to = [{ name: "P. Vane", address: address("vane@vanehouse.example") }];
    const answer = { to, cc: [], subject: "Re", html, after: { kind: "settle" as const } };
    done(await answerConversation(deps, await grantNow(who), who, id, answer));
  };
  const isNow: Desk["isNow"] = async (id) => {
    const row = (await openConversation(deps, lead, id, "ahead"))?.row;
    if (row === undefined) throw new Error("there is no such conversation");
    return { standing: row.standing, ownerId: row.ownerId, count: row.messageCount };
  };
  const maraGrant = await grantNow(mara);
  return { ...office, tray, lead, mara, maraGrant, arrive, opensRecord, does, answers, grantNow, isNow };
}
