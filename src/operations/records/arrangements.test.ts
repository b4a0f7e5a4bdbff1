import { type Desk, done, type OpenedRecord, refusal, setUpDesk } from "@tests/support/desk";
import { type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { RecordId } from "../../core/kernel/ids";
import { type Arranged, type Arrangement, MOST_ARRANGED } from "../../core/records/arrangement";
import { arrangedRecords, changeRecord, editArrangement, handOutArrangement, lookAtArrangement } from "../index.server";

let tray: TestTray;
let desk: Desk;
let sorrel: OpenedRecord;
let veldt: OpenedRecord;

const rec = (recordId: RecordId, name = ""): Arranged => ({ kind: "record", recordId, name });
const folder = (key: string, ...items: readonly Arranged[]): Arranged => ({ kind: "folder", key, name: key, items });
const told = (tree: Arrangement): string =>
  tree.map((item) => (item.kind === "folder" ? `${item.name}(${told(item.items)})` : item.name || "record")).join(" ");
const seen = async (who = desk.lead) => told((await lookAtArrangement(tray.deps, who)).tree);
const asReader = () => ({ ...desk.maraGrant, role: "reader" }) as typeof desk.lead;

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
  [sorrel, veldt] = [await desk.opensRecord("Abbey of Sorrel"), await desk.opensRecord("Concert hall, Veldt")];
});
afterAll(() => tray.close());

describe("a member's own arrangement", () => {
  it("is kept as she has it, one window after the other", async () => {
    expect(await seen()).toBe("");
    const tree = [folder("Mine", rec(sorrel.id, "The abbey")), rec(veldt.id)];
    expect(done(await editArrangement(tray.deps, desk.lead, tree, 0))).toBe(1);
    expect(await seen()).toBe("Mine(The abbey) record");
    expect(refusal(await editArrangement(tray.deps, desk.lead, [], 0))).toBe("changed-since");
    expect(done(await editArrangement(tray.deps, desk.lead, tree.toReversed(), 1))).toBe(2);
    expect(refusal(await editArrangement(tray.deps, desk.lead, tree, 1))).toBe("changed-since");
    const much = Array.from({ length: MOST_ARRANGED + 1 }, () => rec(sorrel.id));
    expect(refusal(await editArrangement(tray.deps, desk.lead, much, 2))).toBe("too-arranged");
    expect(await seen()).toBe("record Mine(The abbey)");
  });

  it("stands first in the picker, found by her own name as well", async () => {
    const picked = async (text: string) =>
      (await arrangedRecords(tray.deps, desk.lead, text)).map(({ code, name }) => [code, name]);
    expect(await picked("")).toEqual([
      [veldt.code, ""],
      [sorrel.code, "The abbey"],
    ]);
    expect(await picked("the ABB")).toEqual([[sorrel.code, "The abbey"]]);
    expect(await picked("nothing")).toEqual([]);
  });

  it("has nothing that she may not know of, also what she knew of once", async () => {
    const { records } = await lookAtArrangement(tray.deps, desk.lead);
    expect(records).toHaveLength(2);
    done(await editArrangement(tray.deps, desk.maraGrant, [rec(sorrel.id, "Mine"), rec(veldt.id)], 0));
    const access = { memberIds: [desk.ines.id], groupIds: [] };
    const draft = { ...sorrel, addresses: "", access, version: sorrel.version };
    sorrel = done(await changeRecord(tray.deps, desk.lead, sorrel.id, draft));
    expect(await seen(desk.maraGrant)).toBe("record");
    expect((await arrangedRecords(tray.deps, desk.maraGrant, "")).map(({ code }) => code)).toEqual([veldt.code]);
    expect(await seen()).toBe("record Mine(The abbey)");
  });
});

describe("what a lead hands out", () => {
  it("is what those of a role begin with, until they have their own", async () => {
    expect(refusal(await handOutArrangement(tray.deps, desk.maraGrant, { role: "member" }, "From Mara"))).toBe(
      "leads-only",
    );
    expect(await seen(asReader())).toBe("record");
    done(await handOutArrangement(tray.deps, desk.lead, { role: "member" }, "From Ines"));
    const tobias = await desk.grantNow(desk.tobias);
    expect(await lookAtArrangement(tray.deps, tobias)).toMatchObject({ isHanded: true, version: 0 });
    // Without the record that only Ines may know of.
    expect(await seen(tobias)).toBe("record Mine()");
    done(await editArrangement(tray.deps, tobias, [], 0));
    expect(await seen(tobias)).toBe("");
  });

  it("goes beside what a colleague has, as often as it is handed out", async () => {
    const to = { memberIds: [desk.mara.id] };
    expect(done(await handOutArrangement(tray.deps, desk.lead, to, "From Ines"))).toBe(1);
    expect(done(await handOutArrangement(tray.deps, desk.lead, to, "Again"))).toBe(1);
    expect(await seen(desk.maraGrant)).toBe("record From Ines(record Mine()) Again(record Mine())");
    expect(refusal(await handOutArrangement(tray.deps, desk.lead, { memberIds: [] }, "x"))).toBe("nothing-chosen");
    expect(refusal(await handOutArrangement(tray.deps, desk.lead, { memberIds: [desk.ines.id] }, "x"))).toBe(
      "nothing-chosen",
    );
  });
});
