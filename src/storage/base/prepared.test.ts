import { type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, expect, it } from "vitest";
import { inTransaction } from "./database";
import { knexOf } from "./knex-of";
import { runPrepared } from "./prepared";

let tray: TestTray;
beforeAll(async () => {
  tray = await testTray();
});
afterAll(() => tray.close());

const INSERT = "insert into sign_in_failure (sign_in_name, at) values (:name, :at), (:name || :more, :at)";
const names = async () => knexOf(tray.deps.db)("sign_in_failure").pluck("sign_in_name").orderBy("sign_in_name");

it("fills each name in wherever it stands, and takes what is not given for null", async () => {
  await runPrepared(tray.deps.db, INSERT, { name: "a", at: new Date(0), more: "b" });
  expect(await names()).toEqual(["a", "ab"]);
  await expect(runPrepared(tray.deps.db, INSERT, { name: "c", at: new Date(0) })).rejects.toThrow("null value");
});

it("is part of the transaction it is given", async () => {
  const undone = inTransaction(tray.deps.db, async (trx) => {
    await runPrepared(trx, INSERT, { name: "x", at: new Date(0), more: "y" });
    throw new Error("rolled back");
  });
  await expect(undone).rejects.toThrow("rolled back");
  expect(await names()).toEqual(["a", "ab"]);
});

it("gives its connection back, after a failure too", async () => {
  const tries = Array.from({ length: 40 }, () =>
    runPrepared(tray.deps.db, "select 1 / cast(:by as int)", { by: 0 }).catch(() => "failed"),
  );
  expect(new Set(await Promise.all(tries))).toEqual(new Set(["failed"]));
  expect(await names()).toHaveLength(2);
});
