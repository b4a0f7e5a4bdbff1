import { type Desk, done, refusal, setUpDesk } from "@tests/support/desk";
import { passes, testTray } from "@tests/support/test-database";
import { beforeEach, describe, expect, it } from "vitest";
import type { Decision } from "../../core/deciding/decision";
import { type CategoryId, trustedId } from "../../core/kernel/ids";
import { closeRecord, decideTogether, examine, openConversation, undoBatch } from "../index.server";

let desk: Desk;
beforeEach(async () => {
  desk = await setUpDesk(await testTray());
  return () => desk.tray.close();
});

const together = async (decisions: readonly Decision[], seenVersion: number | null = null) => {
  const id = await desk.arrive();
  return { id, done: await decideTogether(desk.tray.deps, desk.grant, { ids: [id], seenVersion }, decisions) };
};
const rowOf = async (id: Awaited<ReturnType<Desk["arrive"]>>) => {
  const row = (await openConversation(desk.tray.deps, desk.lead, id, "ahead"))?.row;
  return { standing: row?.standing, ownerId: row?.ownerId, codes: row?.recordCodes, categories: row?.categoryIds };
};

describe("decisions that are accepted together", () => {
  it("are one batch, which is undone as one", async () => {
    const { deps } = desk.tray;
    const record = await desk.opensRecord("Old Wyke");
    const { id, done: accepted } = await together([
      { kind: "file", recordId: record.id, settle: false, means: "proposal" },
      { kind: "assign", ownerId: desk.tobias.id },
      { kind: "settle" },
    ]);
    const { batchId, count } = done(accepted);
    expect(count).toBe(1);
    const decided = { standing: "settled", ownerId: desk.tobias.id, codes: [record.code], categories: [] };
    expect(await rowOf(id)).toEqual(decided);
    expect(await desk.tray.ask("select distinct batch_id from journal where conversation_id = $1", [id])).toHaveLength(
      1,
    );
    passes(desk.tray, 1);
    done(await undoBatch(deps, desk.grant, batchId));
    expect(await rowOf(id)).toEqual({ standing: "to-sort", ownerId: null, codes: [], categories: [] });
    expect((await examine(deps)).differences).toEqual([]);
  });

  it("are none of them done where one is refused, and the refusal is that one's", async () => {
    const { deps } = desk.tray;
    const record = await desk.opensRecord("Old Wyke");
    done(await closeRecord(deps, desk.lead, record.id, true));
    const { id, done: refused } = await together([
      { kind: "assign", ownerId: desk.tobias.id },
      { kind: "file", recordId: record.id, settle: false, means: "proposal" },
      { kind: "settle" },
    ]);
    expect(refusal(refused)).toBe("record-closed");
    const unknown = { kind: "categorise", categoryId: trustedId<CategoryId>(deps.newId()), give: true } as const;
    const target = { ids: [id], seenVersion: null };
    expect(refusal(await decideTogether(deps, desk.grant, target, [{ kind: "settle" }, unknown]))).toBe("no-such");
    expect(await rowOf(id)).toEqual({ standing: "to-sort", ownerId: null, codes: [], categories: [] });
  });
});
