import { randomUUID } from "node:crypto";
import { get } from "node:http";
import { pick } from "~/demo/random";
import { type RawAnswer, type RawClient, rawClient } from "../tests/support/raw-client";

/** What a browser got that no browser should get; without a status where there was no answer. */
export type Trouble = { readonly path: string; readonly status: number | string };

/** Somebody at work without a screen: keeps a page open, looks around, and decides. */
export type SimulatedBrowser = {
  /** One thing that somebody does in a tray, drawn by chance. */
  readonly act: () => Promise<void>;
  /** How many requests were sent, those that a change of somebody else led to among them. */
  readonly requests: () => number;
  readonly close: () => void;
};

type Listed = { readonly lanes: readonly { readonly rows: readonly { readonly id: string }[] }[] };

const NO_ANSWER: RawAnswer = { status: 0, headers: {}, text: "" };
const FORM = { "content-type": "application/x-www-form-urlencoded" };
const UUID = /[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[0-9a-f]{4}-[0-9a-f]{12}/g;
const SCOPES = ["to-sort", "our-move", "waiting", "resting", "settled"];
const PAGES = [
  "to-sort",
  "our-move",
  "waiting",
  "settled",
  "overview",
  "journal",
  "records",
  "horizon",
  "loose-ends",
  "categories",
  "matrix",
  "contacts",
  "notifications",
  "outgoing",
];
const WORDS = ["organ", "tuning", "invoice", "pipes", "tuesday", "bellows"];
// A screen gathers what changes before it asks for it.
const GATHERED_MS = 1_000;

/** Signs a colleague of the demo in and keeps a page with its live events open. */
export async function simulatedBrowser(
  port: number,
  name: string,
  random: () => number,
  onTrouble: (trouble: Trouble) => void,
): Promise<SimulatedBrowser> {
  const client = rawClient(port);
  await client.comeIn(name);
  const changed = new Set<string>();
  let [requests, listed]: [number, string[]] = [0, []];
  const send = async (request: Parameters<RawClient["ownPage"]>[0]): Promise<RawAnswer> => {
    requests += 1;
    const answer = await client.ownPage(request).catch((problem) => {
      onTrouble({ path: request.path, status: String(problem) });
      return NO_ANSWER;
    });
    if (answer.status >= 500) onTrouble({ path: request.path, status: answer.status });
    return answer;
  };
  const look = (path: string) => send({ path: `/office/${path}` });
  const post = (path: string, fields: Readonly<Record<string, string>>) => {
    const body = new URLSearchParams(fields).toString();
    return send({ method: "POST", path: `/office/${path}.data?command=${randomUUID()}`, headers: FORM, body });
  };
  const catchUp = setInterval(async () => {
    if (changed.size === 0) return;
    const ids = [...changed].slice(0, 100);
    changed.clear();
    await look(`lists/to-sort/changes?${ids.map((id) => `changed=${id}`).join("&")}`);
  }, GATHERED_MS);
  let leaveLive = openLive(port, client.cookie(), changed);
  const list = async () => {
    const scope = pick(random, SCOPES);
    const answer = await look(`lists/${scope}/start`);
    const { lanes }: Listed = answer.status === 200 ? JSON.parse(answer.text) : { lanes: [] };
    listed = lanes.flatMap(({ rows }) => rows.map(({ id }) => id)).slice(0, 60);
  };
  const open = async () => {
    const id = pick(random, listed);
    await send({ path: `/office/to-sort/${id}${random() < 0.3 ? "" : ".data"}` });
    await post(`presence/${id}`, { page: randomUUID(), doing: "looking" });
  };
  const decided = async (decision: object) => {
    const conversation = pick(random, listed);
    const answer = await post("decide", { conversation, decisions: JSON.stringify([decision]) });
    const batch = answer.text.match(UUID)?.[0];
    if (answer.status === 200 && batch !== undefined && random() < 0.3) await post("undo", { batch });
  };
  const deeds: readonly (readonly [share: number, deed: () => Promise<unknown>])[] = [
    [20, list],
    [30, open],
    [8, () => decided({ kind: "keep" })],
    [8, () => decided({ kind: "settle" })],
    [4, () => decided({ kind: "bin" })],
    [4, () => decided({ kind: "note", text: `Spoke to them about ${pick(random, WORDS)}.` })],
    [4, () => decided({ kind: "follow-up", dueAt: Date.UTC(2027, 0, 4, 9), text: "Call them", forMember: "" })],
    [8, () => look(`${pick(random, PAGES)}${random() < 0.5 ? "" : ".data"}`)],
    [4, () => look(`search?q=${pick(random, WORDS)}`)],
    [
      4,
      () =>
        post(`answer/${pick(random, listed)}`, {
          to: "otto@quayle.example",
          cc: "",
          subject: "Your letter",
          html: "<p>Thank you; we will look at it this week.</p>",
          after: "expect",
          day: "2026-12-20",
          anyway: "on",
        }),
    ],
    [2, () => look(`export/${pick(random, listed)}?format=${pick(random, ["eml", "mbox"])}`)],
    [1, () => look(`export/search?q=${pick(random, WORDS)}&format=mbox`)],
    [1, () => post("zip-exports", { do: "order", code: "", text: pick(random, WORDS), everywhere: "" })],
    [
      2,
      async () => {
        leaveLive();
        leaveLive = openLive(port, client.cookie(), changed);
      },
    ],
  ];
  const whole = deeds.reduce((sum, [share]) => sum + share, 0);
  await list();
  return {
    async act() {
      if (listed.length === 0) return list();
      let left = random() * whole;
      for (const [share, deed] of deeds) {
        left -= share;
        if (left < 0) return void (await deed());
      }
    },
    requests: () => requests,
    close() {
      clearInterval(catchUp);
      leaveLive();
      client.close();
    },
  };
}

function openLive(port: number, cookie: string, changed: Set<string>): () => void {
  const request = get({ host: "127.0.0.1", port, path: "/office/live", headers: { cookie } }, (response) => {
    response.on("data", (chunk) => {
      for (const id of String(chunk).match(UUID) ?? []) changed.add(id);
    });
    response.on("error", () => {});
  });
  request.on("error", () => {});
  return () => request.destroy();
}
