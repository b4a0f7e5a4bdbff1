import { testTray } from "@tests/support/test-database";
import { Client } from "pg";
import { afterEach, expect, it } from "vitest";
import { inTransaction } from "./database";
import type { Database } from "./handle";
import { knexOf } from "./knex-of";
import { runPrepared } from "./prepared";

type Query = (this: Client, ...args: unknown[]) => unknown;
const prototype = Client.prototype as unknown as { query: Query };
const { query } = prototype;
afterEach(() => {
  prototype.query = query;
});

it("what is asked at once in a transaction goes on its way at once, in order, and comes to nothing when one of it fails", async () => {
  const tray = await testTray();
  const { db } = tray.deps;
  let [under, most] = [0, 0];
  prototype.query = function counted(...args) {
    under += 1;
    most = Math.max(most, under);
    const done = () => {
      under -= 1;
    };
    // Knex gives a callback as the last argument, the prepared statements await a promise.
    const hears = args.at(-1);
    if (typeof hears !== "function") {
      const answer = query.apply(this, args) as Promise<unknown>;
      answer.then(done, done);
      return answer;
    }
    const counting = (...answer: unknown[]) => {
      done();
      hears(...answer);
    };
    return query.apply(this, [...args.slice(0, -1), counting]);
  };
  const answers = await inTransaction(db, async (trx) => {
    const slow = (at: number) => knexOf(trx).raw("select pg_sleep(0.02), ?::int as at", [at]);
    const prepared = (at: number) => runPrepared<{ at: number }>(trx, "select cast(:at as int) as at", { at });
    const [one, two, [three], [four]] = await Promise.all([slow(1), slow(2), prepared(8), prepared(9)]);
    return [one.rows[0].at, two.rows[0].at, three?.at, four?.at];
  });
  expect([answers, most]).toEqual([[1, 2, 8, 9], 4]);

  await knexOf(db).raw("create table written (n int)");
  const written = async () => (await knexOf(db)("written").select("n")).length;
  const insert = (trx: Database) => knexOf(trx)("written").insert({ n: 1 });
  const failing = inTransaction(db, (trx) => Promise.all([insert(trx), knexOf(trx).raw("select 1 / 0"), insert(trx)]));
  await expect(failing).rejects.toThrow("division by zero");
  expect([await written(), under]).toEqual([0, 0]);
  await inTransaction(db, (trx) => Promise.all([insert(trx), insert(trx)]));
  expect(await written()).toBe(2);
  await tray.close();
});
