import { spawnSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { setTimeout as pause } from "node:timers/promises";
import { Client } from "pg";
import pino from "pino";
import { pick, seededRandom } from "~/demo/random";
import { type Cluster, startCluster } from "~/main/private-cluster";
import { type Wired, wire } from "~/main/wiring";
import { addMember, search } from "~/operations/index.server";
import { type ServerProcess, startServerProcess } from "../tests/support/server-process";
import { type Person, person } from "./crowd-person";
import { fillLargeTray } from "./large-tray";
import { leadOf } from "./lead";
import { type Figure, medianMs, percentile, plain } from "./measure";
import { fillMillionMessages } from "./million-messages";
import { fillSearchWords, searchQuestions } from "./search-words";

export const CROWD_DATABASE = "bench_crowd";
const CONVERSATIONS = 200_000;
const PEOPLE = 50;
const PASSWORD = "bellows and bourdons";
const NOBODY = "00000000-0000-4000-8000-000000000000";
const OPENS_EVERY_MS = 2_000;
const DECIDES_EVERY_MS = 10_000;
const CROWD_MS = 40_000;
const DECISIONS = 20;
const QUESTIONS = 200;
const SEED = 15;

const LISTS = ["to-sort", "our-move", "waiting", "resting", "settled"];
const OTHERS = [
  "horizon",
  "loose-ends",
  "records",
  "overview",
  "journal",
  "categories",
  "matrix",
  "contacts",
  "follow-ups",
];

/** Fills the database that this part is measured in; it takes some minutes. */
export async function fillCrowd(wired: Wired, url: string): Promise<void> {
  await fillMillionMessages(url, NOBODY, CONVERSATIONS);
  await fillSearchWords(url);
  await fillLargeTray(url);
  await leaveToSort(url);
  await keepBins(url);
  for (let at = 0; at < PEOPLE; at += 1) {
    const named = { signInName: `person${at}`, name: `Person ${at}`, initials: "PE", timeZone: "Europe/London" };
    await addMember(wired.deps, { ...named, password: PASSWORD, role: "member", trays: ["office"] });
  }
}

// What decisions are about has to have messages: one conversation in so many is not settled yet.
const ONE_TO_SORT = 400;

async function leaveToSort(url: string): Promise<void> {
  const client = new Client({ connectionString: url });
  await client.connect();
  await client.query(
    `create table bench_to_sort as select md5('c' || n)::uuid as id from generate_series(${ONE_TO_SORT}, ${CONVERSATIONS}, ${ONE_TO_SORT}) n`,
  );
  await client.query("delete from journal where conversation_id in (select id from bench_to_sort)");
  await client.query(
    "update conversation set standing = 'to-sort', version = version - 1 where id in (select id from bench_to_sort)",
  );
  await client.end();
}

// Ten thousand conversations whose time in the bin is over would be deleted meanwhile: `--bins` measures that.
async function keepBins(url: string): Promise<void> {
  const client = new Client({ connectionString: url });
  await client.connect();
  await client.query("update tray set bin_days = null");
  await client.end();
}

async function conversationsToSort(url: string): Promise<string[]> {
  const client = new Client({ connectionString: url });
  await client.connect();
  const { rows } = await client.query<{ id: string }>("select id from bench_to_sort order by id");
  await client.end();
  return rows.map(({ id }) => id);
}

/** Pages alone, ten people and fifty, and what a decision costs with fifty browsers open, on a million messages. */
export async function crowdFigures(url: string): Promise<Figure[]> {
  // As `npm start` runs it: with as many web processes as there are cores.
  const server = await startServerProcess({ DATABASE_URL: url, WEB_PROCESSES: "", SMTP_OUT_PORT: "9" });
  try {
    const people: Person[] = [];
    // One after the other: of many who try at once from one address some are sent away.
    for (let at = 0; at < PEOPLE; at += 1) people.push(await person(server.httpPort, `person${at}`, PASSWORD));
    const unsorted = await conversationsToSort(url);
    const figures = [
      ...(await pagesAlone(server, people)),
      await crowd(people.slice(0, 10), unsorted),
      await crowd(people, unsorted),
      ...(await decisionCost(server, url, people, unsorted)),
    ];
    const troubles = people.flatMap((one) => one.troubles());
    for (const trouble of troubles.slice(0, 20)) console.log(`answered: ${trouble}`);
    figures.push(
      plain(
        "answers of 500 and above, and decisions that were not taken",
        "",
        troubles.length,
        "none",
        troubles.length === 0,
      ),
    );
    for (const one of people) one.close();
    return figures;
  } finally {
    await server.stop();
  }
}

async function pagesAlone(server: ServerProcess, [first]: readonly Person[]): Promise<Figure[]> {
  if (first === undefined) throw new Error("there is nobody");
  const path = (page: string) => `http://127.0.0.1:${server.httpPort}${page}`;
  const floor = await medianMs(5, async () => (await fetch(path("/sign-in"))).text());
  const figures: Figure[] = [];
  for (const page of [...LISTS, ...OTHERS]) {
    const isList = LISTS.includes(page);
    for (const [name, address, most] of [
      ["page", `/office/${page}`, 60],
      ["data", `/office/${page}.data`, 20],
    ] as const) {
      const took = await medianMs(9, () => first.look(address));
      const weight = (await first.look(address)) / 1_000;
      const isLight = name === "data" || weight <= 80;
      figures.push({
        name: `${page}, the ${name} alone, ${weight.toFixed(0)} kB`,
        unit: "ms",
        measured: took,
        floor,
        floorName: "the page to sign in",
        ratio: took / floor,
        asked: isList ? `${most} ms${name === "page" ? ", 80 kB" : ""}` : "said",
        holds: !isList || (took <= most && isLight),
      });
    }
  }
  return figures;
}

async function crowd(people: readonly Person[], unsorted: readonly string[]): Promise<Figure> {
  const [pages, decisions]: [number[], number[]] = [[], []];
  const end = performance.now() + CROWD_MS;
  await Promise.all(
    people.map(async (one, at) => {
      const random = seededRandom(SEED * 7 + at);
      await pause(random() * OPENS_EVERY_MS);
      let decidesAt = performance.now() + random() * DECIDES_EVERY_MS;
      while (performance.now() < end) {
        const due = performance.now() + OPENS_EVERY_MS;
        const place = random() < 0.8 ? pick(random, LISTS) : pick(random, OTHERS);
        pages.push(await one.open(`/office/${place}`));
        if (performance.now() >= decidesAt) {
          decisions.push(await one.decide(pick(random, unsorted), pick(random, ["keep", "settle"])));
          decidesAt += DECIDES_EVERY_MS;
        }
        await pause(Math.max(0, due - performance.now()));
      }
    }),
  );
  const [p95, middle] = [percentile(pages, 0.95), percentile(pages, 0.5)];
  const rate = (pages.length / CROWD_MS) * 1_000;
  return {
    name: `${people.length} people, ${rate.toFixed(1)} pages a second; 95th percentile of a page (decisions: ${percentile(decisions, 0.95).toFixed(0)} ms)`,
    unit: "ms",
    measured: p95,
    floor: middle,
    floorName: "the median",
    ratio: p95 / middle,
    asked: "300 ms",
    holds: p95 <= 300,
  };
}

async function decisionCost(
  server: ServerProcess,
  url: string,
  people: readonly Person[],
  unsorted: readonly string[],
): Promise<Figure[]> {
  const [decider] = people;
  for (const id of unsorted.slice(0, DECISIONS)) await decider?.decide(id, "keep");
  await Promise.all(people.map((one) => one.open("/office/to-sort")));
  await pause(3_000);
  const client = new Client({ connectionString: url });
  await client.connect();
  const committed = async () => {
    await client.query("select pg_stat_clear_snapshot()");
    const { rows } = await client.query(
      "select xact_commit as n from pg_stat_database where datname = current_database()",
    );
    return Number(rows[0]?.n);
  };
  const reading = async () => {
    // Statistics come some hundred milliseconds late.
    await pause(1_500);
    return { seconds: secondsOf(server.pid), committed: await committed() };
  };
  for (const one of people) one.heard();
  const idle = await reading();
  const begun = await reading();
  for (let at = 0; at < DECISIONS; at += 1) {
    await decider?.decide(unsorted[at] ?? "", "settle");
    await pause(1_000);
  }
  const ended = await reading();
  await client.end();
  const said = people.map((one) => one.heard());
  const each = (total: number) => total / DECISIONS;
  const answers = said.reduce((sum, { answers }) => sum + answers, 0);
  const bytes = said.reduce((sum, one) => sum + one.bytes, 0);
  const about = `a decision with ${people.length} browsers open`;
  const transactions = ended.committed - begun.committed - (begun.committed - idle.committed);
  return [
    plain(
      `${about}: answers to each browser`,
      "answers",
      each(answers) / people.length,
      "about one",
      each(answers) / people.length <= 1.2,
    ),
    plain(`${about}: bytes to each browser`, "bytes", each(bytes) / people.length),
    plain(`${about}: transactions, most of one statement`, "", each(transactions)),
    plain(`${about}: processor of the server`, "ms", each((ended.seconds - begun.seconds) * 1_000)),
  ];
}

/** Cold and warm search over the questions; cold is after the database and what the system keeps of files began anew. */
export async function searchFigures(
  cluster: Cluster,
  folder: string,
): Promise<{ figures: Figure[]; cluster: Cluster }> {
  const questions = await searchQuestions(cluster.url(CROWD_DATABASE), QUESTIONS);
  await cluster.stop();
  const dropped = spawnSync("sh", ["-c", "sync; echo 3 > /proc/sys/vm/drop_caches"]).status === 0;
  const again = await startCluster({ folder, durable: true });
  const wired = wire({ databaseUrl: again.url(CROWD_DATABASE), demo: true }, pino({ level: "silent" }));
  const grant = await leadOf(wired);
  const ask = async () => {
    const times: number[] = [];
    for (const question of questions) {
      const start = performance.now();
      await search(wired.deps, grant, question, undefined, "kept");
      times.push(performance.now() - start);
    }
    return times;
  };
  const figure = (name: string, times: readonly number[], most: number): Figure => ({
    name: `${QUESTIONS} searches ${name}, 95th percentile (the slowest: ${Math.max(...times).toFixed(0)} ms)`,
    unit: "ms",
    measured: percentile(times, 0.95),
    floor: percentile(times, 0.5),
    floorName: "the median",
    ratio: percentile(times, 0.95) / percentile(times, 0.5),
    asked: `${most} ms`,
    holds: percentile(times, 0.95) <= most,
  });
  const cold = figure(dropped ? "cold" : "after a restart (files stayed in memory: that needs root)", await ask(), 500);
  const figures = [cold, figure("warm", await ask(), 100)];
  await wired.close();
  return { figures, cluster: again };
}

/** Processor time of a process and those that it started, in seconds (proc(5)). */
function secondsOf(pid: number): number {
  const children = readFileSync(`/proc/${pid}/task/${pid}/children`, "utf8")
    .trim()
    .split(" ")
    .filter(Boolean)
    .map(Number);
  const ticks = [pid, ...children].map((one) => {
    const fields = readFileSync(`/proc/${one}/stat`, "utf8").split(") ")[1]?.split(" ") ?? [];
    return Number(fields[11]) + Number(fields[12]);
  });
  return ticks.reduce((sum, one) => sum + one, 0) / 100;
}
