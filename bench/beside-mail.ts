import { createTransport } from "nodemailer";
import { Client } from "pg";
import { letter } from "./letter";

/** What was seen while mail came in over SMTP beside a piece of work. */
export type BesideMail = {
  /** How long the work took, in milliseconds. */
  readonly took: number;
  /** How long messages took from the sender's side, in milliseconds: half of them at most, and all but one in a hundred. */
  readonly median: number;
  readonly slow: number;
  readonly delivered: number;
  /** The longest that any transaction was open, in milliseconds. */
  readonly longestTransaction: number;
  /** How often a connection was seen to wait for a lock of another; a table that grows is held for moments, and not counted. */
  readonly lockWaits: number;
};

const SENDERS = 2;
const OFTEN_MS = 4;

let rounds = 0;

/** Delivers mail one after the other on some connections while the work goes on, and looks at all transactions again and again. */
export async function besideMail(url: string, port: number, work: () => Promise<unknown>): Promise<BesideMail> {
  let goesOn = true;
  const times: number[] = [];
  const seen = { longest: 0, waits: 0 };
  rounds += 1;
  const senders = Array.from({ length: SENDERS }, (_, sender) =>
    sendWhile(() => goesOn, port, `beside${rounds}-${sender}`, times),
  );
  const watching = watchWhile(() => goesOn, url, seen);
  const start = performance.now();
  try {
    await work();
  } finally {
    goesOn = false;
  }
  const took = performance.now() - start;
  await Promise.all([...senders, watching]);
  const inOrder = times.toSorted((a, b) => a - b);
  const at = (share: number) => inOrder[Math.floor((inOrder.length - 1) * share)] ?? Number.NaN;
  return {
    took,
    median: at(0.5),
    slow: at(0.99),
    delivered: times.length,
    longestTransaction: seen.longest,
    lockWaits: seen.waits,
  };
}

async function sendWhile(goesOn: () => boolean, port: number, round: string, times: number[]): Promise<void> {
  const transport = createTransport({ host: "127.0.0.1", port, ignoreTLS: true, pool: true, maxConnections: 1 });
  for (let at = 0; goesOn(); at += 1) {
    const raw = letter(at, round);
    const start = performance.now();
    await transport.sendMail({ envelope: { from: "a@bench.example", to: "office@ottermoor.example" }, raw });
    times.push(performance.now() - start);
  }
  transport.close();
}

async function watchWhile(goesOn: () => boolean, url: string, seen: { longest: number; waits: number }): Promise<void> {
  const client = new Client({ connectionString: url });
  await client.connect();
  while (goesOn()) {
    const { rows } = await client.query(`
      select coalesce(max(extract(epoch from clock_timestamp() - xact_start)), 0)::float * 1000 as age,
        array_agg(query) filter (where wait_event_type = 'Lock' and wait_event <> 'extend') as waiting
      from pg_stat_activity where datname = current_database() and backend_type = 'client backend'
        and pid <> pg_backend_pid() and state <> 'idle'`);
    seen.longest = Math.max(seen.longest, rows[0].age);
    for (const query of rows[0].waiting ?? []) console.log(`waits for a lock: ${query.trim().slice(0, 160)}`);
    seen.waits += rows[0].waiting?.length ?? 0;
    await new Promise((resolve) => setTimeout(resolve, OFTEN_MS));
  }
  await client.end();
}
