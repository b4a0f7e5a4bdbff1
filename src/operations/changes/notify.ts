import { allAbove } from "../../core/categories/category-tree";
import { inCharge } from "../../core/cover/covering";
import type { Docket } from "../../core/docket/derive-docket";
import { groupedBy } from "../../core/kernel/grouped";
import { type ConversationId, type MemberId, type NotificationId, type TrayId, trustedId } from "../../core/kernel/ids";
import type { NotificationEvent } from "../../core/notifications/events";
import { watchesFor } from "../../core/notifications/watches";
import { firstWords } from "../../core/text/new-text";
import type { Database, Transaction } from "../../storage/base/index";
import { addNotifications, type NewNotification } from "../../storage/conversation/index";
import { categoriesOf, type NewEntry, type NewMessage } from "../../storage/facts/index";
import type { Asking, Within } from "../base/deps";
import { cachedTimesOff, cachedWatches } from "../base/routing-cache";

type Told = Pick<NewNotification, "memberId" | "event" | "words" | "about">;

/** Tells members of what others decided that concerns them: what became theirs, notes that name them, drafts. */
export async function notifyOfEntries(trx: Transaction, deps: Within, entries: readonly NewEntry[]): Promise<void> {
  const byConversation = groupedBy(entries, ({ conversationId }) => conversationId);
  const all = [...byConversation.values()].flatMap((some) => {
    // The word that goes with an assignment is told with it, not as a note besides.
    const owners = new Set(some.flatMap(({ effect }) => (effect.kind === "assigned" ? [effect.ownerId] : [])));
    const words = some.flatMap(({ effect }) => (effect.kind === "noted" ? [effect.text] : []))[0] ?? "";
    return some.flatMap((entry) =>
      toldOf(entry, words)
        .filter(({ memberId, event }) => memberId !== entry.by && !(event === "mentioned" && owners.has(memberId)))
        .map((told) => notification(deps, entry, told, entry.by)),
    );
  });
  await addNotifications(trx, together(all));
}

function toldOf({ effect, batchId, id, rule }: NewEntry, assignedWith: string): Told[] {
  switch (effect.kind) {
    case "told":
      return [{ memberId: effect.memberId, event: "rule", words: rule?.name ?? "", about: `told:${id}` }];
    case "assigned": {
      const about = `assigned:${batchId}`;
      return effect.ownerId === null
        ? []
        : [{ memberId: effect.ownerId, event: "assigned", words: firstWords(assignedWith), about }];
    }
    case "noted":
    case "note-edited": {
      const note = effect.kind === "noted" ? id : effect.entryId;
      const told = { event: "mentioned", words: firstWords(effect.text), about: `mentioned:${note}` } as const;
      return (effect.mentions ?? []).map((memberId) => ({ memberId, ...told }));
    }
    case "followed":
      return [{ memberId: effect.memberId, event: "mentioned", words: "", about: `followed:${id}` }];
    case "draft-handed":
    case "draft-returned":
      return [{ memberId: effect.to, event: "draft", words: firstWords(effect.note), about: `draft:${id}` }];
    default:
      return [];
  }
}

type Where = { readonly trayId: TrayId; readonly conversationId: ConversationId };

function notification(
  deps: Within,
  { trayId, conversationId }: Where,
  told: Told,
  by: MemberId | null,
): NewNotification {
  const id = trustedId<NotificationId>(deps.newId());
  return { ...told, id, trayId, conversationId, at: deps.now(), by, count: 1 };
}

// One statement keeps each only once: forty conversations given to somebody in one go are one thing to tell.
function together(all: readonly NewNotification[]): NewNotification[] {
  const grouped = groupedBy(all, ({ memberId, about }) => `${memberId} ${about}`);
  return [...grouped.values()].flatMap((same) => {
    const [first] = same;
    if (first === undefined) return [];
    return same.length === 1 ? [first] : [{ ...first, count: same.length, conversationId: null }];
  });
}

/** A message that came in, and the docket of the conversation that it is in now. */
export type Came = Where & {
  readonly message: Pick<NewMessage, "id" | "classification" | "from" | "subject" | "ownText">;
  readonly docket: Docket;
};

const REPLIES: ReadonlySet<string> = new Set(["person", "calendar", "bounce"]);

/**
 * Tells of a message that came: whoever is in charge of its conversation and those who follow it, where it is one that is
 * answered to; and everybody who watches for one like it.
 */
export async function notifyOfMessage(db: Database, deps: Within, came: Came): Promise<void> {
  const { message } = came;
  const told: Told[] = [];
  const add = (memberId: MemberId, event: NotificationEvent) => {
    // One message is told once to each, by its closest reason.
    if (told.some((one) => one.memberId === memberId)) return;
    const words = message.from.name || message.from.address;
    told.push({ memberId, event, words, about: `message:${message.id}` });
  };
  if (REPLIES.has(message.classification.kind)) {
    for (const memberId of await concerned({ ...deps, db }, came)) add(memberId, "reply");
  }
  for (const { memberId, kind } of await watching(db, deps, came)) add(memberId, kind);
  await addNotifications(
    db,
    told.map((one) => notification(deps, came, one, null)),
  );
}

async function concerned(deps: Asking, { trayId, docket }: Came): Promise<MemberId[]> {
  const { ownerId, followerIds, recordIds } = docket;
  if (ownerId === null) return [...followerIds];
  const now = deps.now();
  const inChargeNow = inCharge(ownerId, { trayId, recordIds }, now, await cachedTimesOff(deps)) ?? ownerId;
  return [inChargeNow, ...followerIds];
}

async function watching(db: Database, deps: Within, { trayId, message, docket }: Came) {
  const watches = (await cachedWatches({ ...deps, db })).filter((watch) => watch.trayId === trayId);
  if (watches.length === 0) return [];
  const asked = docket.categoryIds.length > 0 && watches.some(({ kind }) => kind === "category");
  const tree = asked ? await categoriesOf(db, trayId) : [];
  const categoryIds = docket.categoryIds.flatMap((id) => [id, ...allAbove(tree, id)]);
  return watchesFor(
    { from: message.from.address, subject: message.subject, text: message.ownText, categoryIds },
    watches,
  );
}
