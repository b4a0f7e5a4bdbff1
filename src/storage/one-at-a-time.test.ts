import { testTray } from "@tests/support/test-database";
import { Client } from "pg";
import { afterEach, expect, it } from "vitest";
import { inTransaction } from "./database";
import { knexOf } from "./knex-of";
import { runPrepared } from "./prepared";

type Query = (this: Client, ...args: unknown[]) => unknown;
const prototype = Client.prototype as unknown as { query: Query };
const { query } = prototype;
afterEach(() => {
  prototype.query = query;
});

it("what is asked at once in a transaction goes to the driver one after the other, also after one that failed", async () => {
  const tray = await testTray();
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
  const answers = await inTransaction(tray.deps.db, async (trx) => {
    const slow = (at: number) => knexOf(trx).raw("select pg_sleep(0.02), ?::int as at", [at]);
    const prepared = runPrepared<{ at: number }>(trx, "select cast(:at as int) as at", { at: 9 });
    const [one, two, [three]] = await Promise.all([slow(1), slow(2), prepared]);
    return [one.rows[0].at, two.rows[0].at, three?.at];
  });
  expect([answers, most]).toEqual([[1, 2, 9], 1]);
  const failing = inTransaction(tray.deps.db, (trx) =>
    Promise.all([knexOf(trx).raw("select 1 / 0"), knexOf(trx).raw("select 1")]),
  );
  await expect(failing).rejects.toThrow("division by zero");
  expect((await knexOf(tray.deps.db).raw("select 1 as one")).rows).toEqual([{ one: 1 }]);
  expect([under, most]).toEqual([0, 1]);
  await tray.close();
});
