import { demoServer } from "@tests/support/demo-server";
import { brokenForms, type OddRequest, oddRequests } from "@tests/support/fuzz";
import { RIGHT_FORMS } from "@tests/support/right-forms";
import { everyPlace } from "@tests/support/site-map";
import { describe, expect, it } from "vitest";

const places = await everyPlace();
// Several at once find what one alone does not; AT_ONCE=8 for more of that, in another order each time.
const AT_ONCE = Number(process.env.AT_ONCE ?? 1);
// More of the same with other seeds: SEED=7 LOOKS=100 TIMES=20 npx vitest run --project processes tests/processes/odd-requests.test.ts
const SEED = BigInt(process.env.SEED ?? 20_261_129);
const LOOKS = Number(process.env.LOOKS ?? 4);
const TIMES = Number(process.env.TIMES ?? 1);

const running = demoServer();

async function knownValues() {
  const { db } = running();
  const all = async (sql: string) => (await db.query(sql)).rows.map((row) => String(Object.values(row)[0]));
  const known = {
    conversation: await all(
      "select c.id from conversation c join tray t on t.id = tray_id where slug = 'office' limit 20",
    ),
    message: await all("select m.id from message m join tray t on t.id = tray_id where slug = 'office' limit 20"),
    member: await all("select id from member limit 4"),
    owner: await all("select id from member limit 4"),
    category: await all("select id from category limit 10"),
    record: await all("select id from record limit 10"),
    code: await all("select code from record limit 10"),
    group: await all("select id from member_group limit 3"),
    type: await all("select id from record_type limit 3"),
    entry: await all("select id from journal where kind = 'noted' limit 5"),
    rule: await all("select id from rule limit 5"),
    standing: ["to-sort", "our-move", "waiting", "resting", "settled", "bin", "junk"],
    scope: ["to-sort", "our-move", "waiting", "follow-ups"],
    part: ["start", "more", "changes", "counts"],
    tray: ["office"],
    index: ["0", "1"],
    version: ["1", "2"],
  };
  return known;
}

// What was answered with a fault of the server.
async function faultsOf(
  requests: Generator<OddRequest>,
  atOnce: number,
): Promise<{ readonly faults: string[]; readonly count: number }> {
  const faults: string[] = [];
  let count = 0;
  const sendAll = async () => {
    for (const one of requests) {
      count += 1;
      const status = await statusOf(one);
      if (status >= 500) faults.push(`${status} ${one.method} ${one.path} ${one.body?.slice(0, 2_000) ?? ""}`);
    }
  };
  await Promise.all(Array.from({ length: atOnce }, sendAll));
  return { faults, count };
}

describe("a request that no page of ours sends", () => {
  it("is answered, whatever it is, and never with a fault of the server", async () => {
    const odd = oddRequests(places, await knownValues(), { seed: SEED, looks: LOOKS });
    const { faults, count } = await faultsOf(odd, 8);
    expect(faults).toEqual([]);
    expect(count).toBeGreaterThan(places.length * 10);
  });

  it("may be right but for one field", async () => {
    const { faults, count } = await faultsOf(
      brokenForms(RIGHT_FORMS, await knownValues(), { seed: SEED, times: TIMES }),
      AT_ONCE,
    );
    expect(faults).toEqual([]);
    expect(count).toBeGreaterThan(RIGHT_FORMS.length * 3);
  });
});

async function statusOf({ method, path, headers, body }: OddRequest): Promise<number> {
  // A stream of events has no end, and what signs out or shuts out leaves the rest without anybody signed in.
  if (method === "GET" && path.includes("/live")) return 200;
  const answer = await running().client.ownPage({ method, path, headers, body });
  if (String(answer.headers.location ?? "").startsWith("/sign-in")) await running().client.comeIn("ines");
  return answer.status;
}
