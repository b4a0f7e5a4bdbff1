import { buffer } from "node:stream/consumers";
import { type Desk, done, setUpDesk } from "@tests/support/desk";
import { onRecordOf, zipOfRecord } from "@tests/support/on-record";
import { type TestTray, testTray } from "@tests/support/test-database";
import { filesInZip } from "@tests/support/zips";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type CategoryId, type ConversationId, type RecordId, trustedId } from "../../core/kernel/ids";
import { DAY, type Instant, later } from "../../core/kernel/instant";
import { calendarDay } from "../../core/time/calendar-day";
import type { Deps } from "../base/deps";
import {
  addDocument,
  buildZipExport,
  categoryMatrix,
  changesInList,
  countsForFilter,
  createRecord,
  decide,
  documentsOf,
  documentsToAttach,
  editArrangement,
  exportConversation,
  exportRecords,
  exportSearch,
  getAssigneeSuggestions,
  getCategoriesInCare,
  getCategory,
  getJournal,
  getLooseEnds,
  getTray,
  getTypes,
  getWaiting,
  getZipExports,
  handOutArrangement,
  holdRecord,
  listConversations,
  listNotifications,
  lookAtArrangement,
  lookAtRetention,
  type Member,
  openConversation,
  orderZipExport,
  pinPlace,
  planTimeOff,
  proposalsFor,
  recordPage,
  recordsToFileOn,
  register,
  retentionOf,
  search,
  setUpCategories,
  shelfOf,
  summaryOf,
  type TrayGrant,
  traysOf,
  whereMerged,
} from "../index.server";

let tray: TestTray;
let desk: Desk;
let secret: { readonly id: RecordId; readonly code: string };
let filed: ConversationId;
let waiting: ConversationId;
let categoryId: CategoryId;

const DOCUMENT = { name: "drawing.txt", contentType: "text/plain", content: Buffer.from("A drawing.") };
const told: unknown[] = [];
/** As when pages are open: what they are told is kept. */
const watched = (): Deps => ({ ...tray.deps, publishChange: (change) => void told.push(change) });

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
  const [client] = await getTypes(tray.deps);
  const access = { memberIds: [desk.ines.id], groupIds: [] };
  const draft = { typeId: client?.id ?? trustedId(""), title: "Secret matter", parentId: null, responsibleId: null };
  secret = done(
    await createRecord(tray.deps, desk.lead, { ...draft, note: "", addresses: "c@secret.example", access }),
  );
  const [category] = await setUpCategories(tray.deps, [{ code: "KY", name: "Keys", ink: "moss", parentCode: null }]);
  categoryId = category?.id ?? trustedId("");
  // Nothing in the mail itself names it.
  filed = await desk.arrive({ subject: "The key", from: "c@secret.example" });
  waiting = await desk.arrive({ subject: "The lock", from: "c@secret.example" });
  const file = { kind: "file", recordId: secret.id, settle: false } as const;
  await desk.does(desk.lead, [filed, waiting], file, { kind: "categorise", categoryId, give: true }, { kind: "keep" });
  await desk.does(desk.lead, filed, { kind: "assign", ownerId: desk.mara.id });
  const until = later(tray.clock.now as Instant, 5 * DAY);
  await desk.does(desk.lead, waiting, { kind: "expect", until, expectationId: trustedId(tray.deps.newId()) });
  done(await addDocument(tray.deps, desk.lead, desk.ines, secret, DOCUMENT));
  done(await holdRecord(tray.deps, desk.lead, secret.id, "Lawsuit"));
  done(await pinPlace(tray.deps, desk.lead, { kind: "record", target: secret.id, isForAll: true }));
  const arranged = [{ kind: "record", recordId: secret.id, name: "" }] as const;
  done(await editArrangement(tray.deps, desk.lead, arranged, 0));
  done(await handOutArrangement(tray.deps, desk.lead, { role: "member" }, "Handed"));
});
afterAll(() => tray.close());

const view = { order: "date", reversed: false, grouping: "record" } as const;
const inList = { scope: "our-move", filter: {}, view } as const;
type Asks = (who: TrayGrant, member: Member) => Promise<unknown>;
/** Somebody who leads, so that nothing is refused her but what she may not know of. */
const asLead = (who: TrayGrant) => ({ ...who, role: "lead" }) as TrayGrant;
const textOf = async (file: { readonly content: NodeJS.ReadableStream } | null) =>
  file === null ? "" : (await buffer(file.content)).toString("latin1");

// Every way in which the application speaks of records. `isShown` is false where nobody at all is told of them there.
type Way = readonly [way: string, asks: Asks, isShown?: boolean];
const filesOf = async (zip: Buffer | null) =>
  zip === null ? null : [...(await filesInZip(zip))].map(([name, content]) => [name, content.toString("latin1")]);

const WAYS: readonly Way[] = [
  ["the register", (who) => register(tray.deps, who, "", false)],
  ["the register by code", (who) => register(tray.deps, who, secret.code, true)],
  ["the table of the register", (who) => exportRecords(tray.deps, who)],
  ["the picker", (who) => recordsToFileOn(tray.deps, who, "secret")],
  ["its page", (who) => recordPage(tray.deps, who, secret.code)],
  [
    "what is on it",
    async (who) => [await onRecordOf(tray.deps, who, secret.code), who === desk.lead ? secret.id : null],
  ],
  ["where it was merged", (who) => whereMerged(tray.deps, who, secret.code), false],
  [
    "its zip",
    async (who) => filesOf(await zipOfRecord(tray.deps, who, secret.code, { format: "mbox", withNotes: true })),
  ],
  [
    "the conversation, its docket and its journal",
    async (who) => {
      const open = await openConversation(tray.deps, who, filed, "ahead");
      // What is derived stays on the server: a page is given the records that she may know of.
      const { docket: _, ...shown } = open ?? { docket: null };
      return shown;
    },
  ],
  ["a list, its lanes and its rows", (who, member) => listConversations(tray.deps, who, member, inList)],
  ["what becomes of a list", (who, member) => changesInList(tray.deps, who, member, inList, [filed])],
  ["the counts to filter by", (who, member) => countsForFilter(tray.deps, who, member, inList, "record")],
  ["what a search finds", async (who) => search(tray.deps, who, "key")],
  [
    "what a search takes out with its index",
    async (who) => {
      const what = { recordId: null, text: "key", everywhere: true };
      const packed = await buildZipExport(tray.deps, who, what, { format: "eml", withNotes: true });
      return packed === null ? null : filesOf(await buffer(packed.content));
    },
  ],
  [
    "what is being taken out",
    async (who) => {
      const what = { recordId: secret.id, text: "", everywhere: false };
      const ordered = await orderZipExport(tray.deps, who, what, { format: "eml", withNotes: false });
      return [ordered, await getZipExports(tray.deps, who)];
    },
  ],
  ["the documents to attach", (who) => documentsToAttach(tray.deps, who, [secret.code])],
  ["what a search takes out", async (who) => textOf(await exportSearch(tray.deps, who, "key", "eml")), false],
  [
    "a conversation that is taken out",
    async (who) => textOf(await exportConversation(tray.deps, who, filed, "mbox")),
    false,
  ],
  ["what waits", (who) => getWaiting(tray.deps, who)],
  ["loose ends", (who) => getLooseEnds(tray.deps, who), false],
  ["the journal of the tray", (who) => getJournal(tray.deps, who, { by: null, before: null, kind: "filed" })],
  ["the shelf", (who) => shelfOf(tray.deps, who)],
  ["her arrangement, also what was handed to her", (who) => lookAtArrangement(tray.deps, who)],
  ["how long records are kept", (who) => lookAtRetention(tray.deps, asLead(who))],
  ["the figures of a category", (who) => getCategory(tray.deps, who, categoryId)],
  ["the care of categories", (who) => getCategoriesInCare(tray.deps, who), false],
  ["the matrix", (who) => categoryMatrix(tray.deps, who, "owner"), false],
  [
    "who could take it",
    async (who) => {
      const could = await getAssigneeSuggestions(tray.deps, who, waiting);
      // What speaks for a colleague is that she had others of its record: that there is one.
      return could.some(({ withRecord }) => withRecord.all > 0) ? secret.code : could;
    },
  ],
  [
    "what is proposed",
    async (who) => {
      const again = await desk.arrive({ subject: `Again ${secret.code}`, from: "c@secret.example" });
      const row = (await openConversation(tray.deps, who, again, "ahead"))?.row;
      if (row === undefined) throw new Error("it arrived");
      const { proposals, records } = await proposalsFor(tray.deps, who, row);
      return { records, filing: proposals.filter(({ kind }) => kind === "file") };
    },
  ],
  ["what she is told", (who) => listNotifications(tray.deps, who), false],
  ["what the tray is", (who, member) => getTray(tray.deps, member, who), false],
];

describe("a record that a member may not know of", () => {
  const names = (asked: unknown) => {
    const text = typeof asked === "string" ? asked : JSON.stringify(asked);
    return [secret.code, secret.id, "Secret matter"].filter((name) => text?.includes(name));
  };

  it.each(WAYS.map(([way, asks, isShown = true]) => ({ way, asks, isShown })))(
    "is not in $way",
    async ({ asks, isShown }) => {
      expect(names(await asks(desk.maraGrant, desk.mara))).toEqual([]);
      // Whoever may is shown it there: otherwise this would say nothing.
      expect(names(await asks(desk.lead, desk.ines)).length > 0).toBe(isShown);
    },
  );

  it("is not in what happened while she was away", async () => {
    const day = (days: number) => calendarDay(later(tray.clock.now as Instant, days * DAY), "UTC");
    const from = tray.clock.now as Instant;
    const off = { memberId: desk.mara.id, from, until: later(from, 2 * DAY), covers: [] };
    const id = done(await planTimeOff(tray.deps, desk.maraGrant, off));
    const target = { ids: [filed], seenVersion: null };
    done(await decide(watched(), desk.lead, target, { kind: "unfile", recordId: secret.id }));
    done(await decide(watched(), desk.lead, target, { kind: "file", recordId: secret.id, settle: false }));
    done(await addDocument(watched(), desk.lead, desk.ines, secret, { ...DOCUMENT, name: "other.txt" }));
    tray.clock.now = later(from, 3 * DAY);
    expect(day(0) > calendarDay(from, "UTC")).toBe(true);
    expect(names(await summaryOf(tray.deps, desk.maraGrant, trustedId(String(id))))).toEqual([]);
  });

  it("is in no update of a page that is open: those name trays and conversations alone", () => {
    expect(told.length).toBeGreaterThan(1);
    expect(names(told)).toEqual([]);
  });

  it("has neither documents nor a term for her", async () => {
    expect(await documentsOf(tray.deps, desk.lead, secret)).toHaveLength(2);
    expect(await onRecordOf(tray.deps, desk.maraGrant, secret.code)).toBeNull();
    expect((await retentionOf(tray.deps, desk.lead, secret.id)).term.kind).toBe("held");
    const [grant] = await traysOf(tray.deps, desk.mara);
    expect(grant?.role).toBe("member");
  });
});
