import { inEnglish } from "@tests/support/english";
import { type Office, setUpOffice, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type CategoryId, type PinId, type RecordId, trustedId } from "../../core/kernel/ids";
import { USUAL_VIEW } from "../../core/lists/sheet-view";
import { hoursOfTray, setHoursOfTray } from "../../storage/access/index";
import {
  arrangePlaces,
  choosePreference,
  chooseView,
  datesToOffer,
  editView,
  namePlace,
  pinPlace,
  preferencesOf,
  setUpCategories,
  setUpRecords,
  shelfOf,
  type TrayGrant,
  understandDate,
  unpinPlace,
  viewOf,
} from "../index.server";

let tray: TestTray;
let office: Office;
let lead: TrayGrant;
let tuning: CategoryId;
let sorrel: RecordId;

beforeAll(async () => {
  tray = await testTray();
  office = await setUpOffice(tray.deps);
  lead = { ...office.tobiasGrant, role: "lead" };
  const [category] = await setUpCategories(tray.deps, [{ code: "TU", name: "Tuning", ink: "moss", parentCode: null }]);
  const [record] = await setUpRecords(tray.deps, [
    { code: "P-26-012", title: "Sorrel case", kind: "project", parentCode: null, closed: false },
  ]);
  tuning = category?.id ?? trustedId("");
  sorrel = record?.id ?? trustedId("");
});
afterAll(() => tray.close());

const titles = async (grant = office.grant) =>
  inEnglish(await shelfOf(tray.deps, grant)).places.map(
    ({ title, name, note, count }) => `${name || title} (${note}, ${count})`,
  );

describe("a shelf", () => {
  it("has the places that a member pinned, in her order and under her names", async () => {
    await pinPlace(tray.deps, office.grant, { kind: "record", target: sorrel, isForAll: false });
    await pinPlace(tray.deps, office.grant, { kind: "category", target: tuning, isForAll: false });
    await pinPlace(tray.deps, office.grant, { kind: "member", target: office.tobias.id, isForAll: false });
    expect(await titles()).toEqual(["Sorrel case (P-26-012, 0)", "Tuning (category, 0)", "Tobias Lund (colleague, 0)"]);
    const [first, second, third] = (await shelfOf(tray.deps, office.grant)).places.map(({ id }) => id);
    if (first === undefined || second === undefined || third === undefined) throw new Error("three were pinned");
    await arrangePlaces(tray.deps, office.grant, [third, first, second]);
    await namePlace(tray.deps, office.grant, first, { name: "The abbey", folder: "Big ones" });
    expect(await titles()).toEqual(["Tobias Lund (colleague, 0)", "The abbey (P-26-012, 0)", "Tuning (category, 0)"]);
    expect(await titles(office.tobiasGrant)).toEqual([]);
    await unpinPlace(tray.deps, office.grant, third);
    expect(await titles()).toHaveLength(2);
  });
  it("has nothing twice, and nothing that is not there", async () => {
    await pinPlace(tray.deps, office.grant, { kind: "category", target: tuning, isForAll: false });
    expect(await titles()).toHaveLength(2);
    for (const kind of ["record", "category", "member", "view"] as const) {
      const pinned = await pinPlace(tray.deps, office.grant, { kind, target: tray.deps.newId(), isForAll: false });
      expect([kind, pinned]).toEqual([kind, { ok: false, error: { kind: "no-such", what: "place" } }]);
    }
  });
  it("has what a lead put on everybody's, which others cannot change", async () => {
    const place = { kind: "category", target: tuning, isForAll: true } as const;
    expect(await pinPlace(tray.deps, office.tobiasGrant, place)).toMatchObject({
      ok: false,
      error: { kind: "leads-only" },
    });
    const pinned = await pinPlace(tray.deps, lead, place);
    const id = pinned.ok ? pinned.value : trustedId<PinId>("");
    expect(await titles(office.tobiasGrant)).toEqual(["Tuning (category, 0)"]);
    expect((await titles())[0]).toBe("Tuning (category, 0)");
    expect(await unpinPlace(tray.deps, office.grant, id)).toMatchObject({ ok: false });
    expect(await unpinPlace(tray.deps, lead, id)).toMatchObject({ ok: true });
  });
  it("keeps views under a name, replaced by one of the same name, and shows one that is gone as gone", async () => {
    const view = { name: "Quotes of Tobias", scope: "open", query: `owner=${office.tobias.id}` };
    await editView(tray.deps, office.grant, view);
    await editView(tray.deps, office.grant, { ...view, scope: "settled" });
    const { places, views } = await shelfOf(tray.deps, office.grant);
    expect(views.map(({ name, scope }) => [name, scope])).toEqual([["Quotes of Tobias", "settled"]]);
    expect(places.at(-1)).toMatchObject({ title: "Quotes of Tobias", leadsTo: { scope: "settled" } });
    await unpinPlace(tray.deps, office.grant, places.at(-1)?.id ?? trustedId(""));
    expect((await shelfOf(tray.deps, office.grant)).views).toEqual([]);
    await tray.ask("update place set target = $1 where kind = 'record'", [tray.deps.newId()]);
    expect((await shelfOf(tray.deps, office.grant)).places.find(({ kind }) => kind === "record")?.leadsTo).toBeNull();
  });
});

describe("what a member chose", () => {
  it("is remembered for her alone, and forgotten when she goes back to what is usual", async () => {
    const view = { ...USUAL_VIEW, grouping: "owner" as const };
    await chooseView(tray.deps, office.grant, "waiting", view);
    expect(await viewOf(tray.deps, office.grant, "waiting")).toEqual(view);
    expect(await viewOf(tray.deps, office.grant, "resting")).toEqual(USUAL_VIEW);
    expect(await viewOf(tray.deps, office.tobiasGrant, "waiting")).toEqual(USUAL_VIEW);
    await chooseView(tray.deps, office.grant, "waiting", null);
    expect(await viewOf(tray.deps, office.grant, "waiting")).toEqual(USUAL_VIEW);
    await choosePreference(tray.deps, office.grant, "after-decision", "list");
    await choosePreference(tray.deps, office.grant, "keys", { settle: "q" });
    await choosePreference(tray.deps, office.grant, "drop-on-record", "burn");
    expect(await preferencesOf(tray.deps, office.grant)).toEqual({
      keys: { settle: "q" },
      afterDecision: "list",
      dropOnRecord: null,
      categoriesListed: {},
      proposals: "often",
    });
    expect((await preferencesOf(tray.deps, office.tobiasGrant)).afterDecision).toBe("next");
  });
});

describe("the hours of a tray", () => {
  it("are the usual ones until others are set, and dates follow them", async () => {
    const { tray: own } = office.grant;
    const usual = await hoursOfTray(tray.deps.db, own);
    expect(usual.week[0]).toEqual({ from: 480, to: 1_020 });
    const week = usual.week.map((open) => (open === null ? null : { from: 600, to: 900 }));
    await setHoursOfTray(tray.deps.db, own, { week, holidays: ["2026-11-25"] });
    // The clock of the test stands on Tuesday the 24th at nine; the 25th is a holiday.
    const read = await understandDate(tray.deps, office.grant, "in 1 working day", "opens");
    expect(read).toEqual({ ok: true, value: { at: Date.UTC(2026, 10, 26, 10), other: null } });
    const refused = await understandDate(tray.deps, office.grant, "yesterday at 9", "opens");
    expect(inEnglish(refused)).toEqual({ ok: false, error: "That is in the past; choose a time to come." });
    const offers = await datesToOffer(tray.deps, office.grant, null, "closes");
    expect(offers.find(({ label }) => inEnglish(label) === "before we close today")?.at).toBe(
      Date.UTC(2026, 10, 24, 15),
    );
  });
});
