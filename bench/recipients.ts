import { Client } from "pg";
import type { EmailAddress } from "~/core/kernel/email-address";
import type { Wired } from "~/main/wiring";
import { findRecipients } from "~/operations/index.server";
import { leadOf } from "./lead";
import { type Figure, percentile, plain } from "./measure";

const CORRESPONDENTS = 50_000;
const ASKED = 500;
const MOST_MS = 30;

/** How fast recipients are completed over fifty thousand who wrote, as somebody types; and the first time, when they are counted. */
export async function* recipientFigures({ deps }: Wired, url: string): AsyncGenerator<Figure> {
  const grant = await leadOf({ deps } as Wired);
  const client = new Client({ connectionString: url });
  await client.connect();
  const { rowCount } = await client.query(
    /* sql */ `
    update conversation set who = format('Given%s Family%s', at % 211, at % 499),
      who_address = format('given%s.family%s@house%s.example', at % 211, at % 499, at)
    from (select id, row_number() over (order by id) % $2 as at from conversation where tray_id = $1) as placed
    where placed.id = conversation.id`,
    [grant.tray.id, CORRESPONDENTS],
  );
  await client.end();
  const ask = (typed: string, taken: readonly EmailAddress[]) => findRecipients(deps, grant, typed, taken);
  const cold = performance.now();
  await ask("given1", []);
  const people = Math.min(rowCount ?? 0, CORRESPONDENTS).toLocaleString("en");
  yield plain(`the first recipient completed over ${people} correspondents`, "ms", performance.now() - cold);
  const times: number[] = [];
  for (let at = 0; at < ASKED; at++) {
    const typed =
      ["g", "fam", `given${at % 211} fam`, `given${at % 211}.family${at % 499}@`, `house${at}`][at % 5] ?? "";
    const began = performance.now();
    await ask(typed, at % 2 === 0 ? [] : [`given${at}.family${at}@house${at}.example` as EmailAddress]);
    times.push(performance.now() - began);
  }
  const slow = percentile(times, 0.95);
  const asked = `at most ${MOST_MS} ms`;
  yield plain(
    `a recipient completed over ${people} correspondents, of 20 all but one`,
    "ms",
    slow,
    asked,
    slow <= MOST_MS,
  );
}
