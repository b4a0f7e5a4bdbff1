import { randomUUID } from "node:crypto";
import { get } from "node:http";
import { setTimeout as pause } from "node:timers/promises";
import { type RawAnswer, rawClient } from "../tests/support/raw-client";

/** Somebody who works in the office's tray: what their browser asks for, and how long it waits. */
export type Person = {
  /** Opens a page as a browser does, with its live line; gives how long the page took, in milliseconds. */
  readonly open: (path: string) => Promise<number>;
  /** Asks for something alone; gives its weight in bytes. */
  readonly look: (path: string) => Promise<number>;
  /** Decides about a conversation; gives how long the answer took. */
  readonly decide: (conversation: string, kind: "keep" | "settle") => Promise<number>;
  /** Bytes of what came because of changes, and how many answers, since the last time this was asked. */
  readonly heard: () => { readonly bytes: number; readonly answers: number };
  /** What was answered with 500 or more, or not at all, and decisions that were not taken. */
  readonly troubles: () => readonly string[];
  readonly close: () => void;
};

const FORM = { "content-type": "application/x-www-form-urlencoded" };
const UUID = /[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}/g;
// As the screens do: changes are gathered, and asked about at most so often.
const GATHER_MS = 80;
const SPACED_MS = 1_000;
const SCOPE = "to-sort";

const timed = async (work: () => Promise<unknown>): Promise<number> => {
  const start = performance.now();
  await work();
  return performance.now() - start;
};

/** Signs somebody in. */
export async function person(port: number, name: string, password: string): Promise<Person> {
  const client = rawClient(port);
  const troubles: string[] = [];
  const heard = { bytes: 0, answers: 0 };
  const body = new URLSearchParams({ name, password }).toString();
  const signIn = await client.ownPage({ method: "POST", path: "/sign-in", headers: FORM, body });
  if (signIn.status !== 302) throw new Error(`${name} was not let in: ${signIn.status}`);
  const [first = ""] = [signIn.headers["set-cookie"] ?? []].flat();
  const cookie = first.split(";")[0] ?? "";
  const send = async (request: Parameters<typeof client.ownPage>[0]): Promise<RawAnswer | null> => {
    const headers = { ...request.headers, cookie };
    const answer = await client.ownPage({ ...request, headers }).catch(() => null);
    if (answer === null || answer.status >= 500) troubles.push(`${answer?.status ?? "no answer"} ${request.path}`);
    return answer;
  };
  const hear = (text: string) => {
    heard.bytes += Buffer.byteLength(text);
    heard.answers += 1;
  };
  let leave = () => {};
  const listen = (seen: string) => {
    const ask = askingAbout(async (ids) => {
      const parts =
        ids === null
          ? [`/office/${SCOPE}.data?_routes=routes%2Ftray`, `/office/lists/${SCOPE}/start`]
          : [`/office/news?scope=${SCOPE}&${new URLSearchParams(ids.map((id) => ["changed", id]))}`];
      for (const path of parts) hear((await send({ path }))?.text ?? "");
    });
    const close = liveLine(port, cookie, seen, (text) => {
      heard.bytes += text.length;
      ask.about(text.includes("data: null") ? null : (text.match(UUID) ?? []));
    });
    return () => {
      ask.stop();
      close();
    };
  };
  return {
    async open(path) {
      leave();
      let text = "";
      const took = await timed(async () => {
        text = (await send({ path }))?.text ?? "";
      });
      leave = listen(/liveState\\",\\"([^"\\]+)/.exec(text)?.[1] ?? "");
      // As the screen does where it came without.
      if (!text.includes("Loose ends, ")) void send({ path: "/office/loose-ends/count" });
      return took;
    },
    async look(path) {
      return Buffer.byteLength((await send({ path }))?.text ?? "");
    },
    decide(conversation, kind) {
      const fields = { conversation, decisions: JSON.stringify([{ kind }]), said: "Decided" };
      const path = `/office/decide.data?command=${randomUUID()}`;
      const body = new URLSearchParams(fields).toString();
      return timed(async () => {
        const answer = await send({ method: "POST", path, headers: FORM, body });
        if (answer?.status !== 200) troubles.push(`${answer?.status} for a decision`);
      });
    },
    heard() {
      const now = { ...heard };
      Object.assign(heard, { bytes: 0, answers: 0 });
      return now;
    },
    troubles: () => troubles,
    close() {
      leave();
      client.close();
    },
  };
}

/** Gathers what changed, as the screens do, and asks about it; null is about anything. */
function askingAbout(ask: (ids: readonly string[] | null) => Promise<void>) {
  let changed: Set<string> | null = new Set();
  let [isOver, isAsking, last] = [false, false, Number.NEGATIVE_INFINITY];
  const work = async () => {
    isAsking = true;
    while (!isOver && changed?.size !== 0) {
      await pause(Math.max(GATHER_MS, last + SPACED_MS - performance.now()));
      if (isOver) return;
      last = performance.now();
      const ids = changed === null ? null : [...changed];
      changed = new Set();
      await ask(ids);
    }
    isAsking = false;
  };
  return {
    about(ids: readonly string[] | null) {
      changed = ids === null || changed === null ? null : new Set([...changed, ...ids]);
      if (!isAsking) void work();
    },
    stop() {
      isOver = true;
    },
  };
}

/** Hears of changes over the live line; gives how it is closed. */
function liveLine(port: number, cookie: string, seen: string, onChange: (text: string) => void): () => void {
  const path = `/office/live?seen=${encodeURIComponent(seen)}`;
  const request = get({ host: "127.0.0.1", port, path, headers: { cookie } }, (response) => {
    response.on("error", () => {});
    response.on("data", (chunk) => {
      const text = String(chunk);
      if (text.includes("event: change")) onChange(text);
    });
  });
  request.on("error", () => {});
  return () => request.destroy();
}
