import { Pool } from "pg";
import pino from "pino";
import { inject } from "vitest";
import { type EmailAddress, readEmailAddress } from "~/core/kernel/email-address";
import type { TrayId } from "~/core/kernel/ids";
import { type Instant, instant, later, MINUTE } from "~/core/kernel/instant";
import type { Envelope, HandOver, Job } from "~/core/ports";
import { workAside } from "~/mail/index";
import { wire } from "~/main/wiring";
import { addMember, type Deps, type Member, setUpTray, type TrayGrant, traysOf } from "~/operations/index.server";
import { cloneDatabase } from "./clones";
import { EMPTY_TEMPLATE } from "./test-cluster";

// What PostgreSQL calls a connection that an administrator ended (appendix A of its manual).
const CUT_OFF = "57P01";

/** A database of a test's own, with a clock that it sets and a world outside that it plays. */
export type TestTray = {
  readonly url: string;
  deps: Deps;
  readonly clock: { now: Instant };
  readonly jobs: Job[];
  readonly handedOver: { envelope: Envelope; raw: Uint8Array; reportId: string | null }[];
  /** What the next message handed over meets; accepted when empty. */
  readonly outcomes: HandOver[];
  /** Looks into the tables, for what no operation shows. */
  // biome-ignore lint/suspicious/noExplicitAny: rows of whatever was asked for
  readonly ask: (sql: string, values?: readonly unknown[]) => Promise<any[]>;
  readonly close: () => Promise<void>;
};

// To start a thread costs seconds; the files of a worker follow each other and share theirs.
const aside = workAside();

const START = instant(Date.UTC(2026, 10, 24, 9, 0));

/** A migrated database, empty or with the demo's world, wired to a clock and an outside world that the test sets. */
export async function testTray(template = EMPTY_TEMPLATE): Promise<TestTray> {
  const { url, drop } = await cloneDatabase(inject("clusterPort"), template);
  const wired = wire({ databaseUrl: url, demo: true, poolSize: 8, aside }, pino({ level: "silent" }));
  const clock = { now: START };
  const jobs: Job[] = [];
  const handedOver: TestTray["handedOver"] = [];
  const outcomes: HandOver[] = [];
  const deps: Deps = {
    ...wired.deps,
    now: () => clock.now,
    jobs: { enqueue: async (_trx, job) => void jobs.push(job) },
    mail: {
      async handOver(envelope, raw, reportId) {
        handedOver.push({ envelope, raw, reportId });
        return outcomes.shift() ?? { kind: "accepted" };
      },
    },
  };
  const asked = new Pool({ connectionString: url, max: 2 });
  // The pool says that it has ended while its connections are on their way out; dropping the database cuts them off.
  asked.on("error", (problem: Error & { code?: string }) => {
    if (problem.code !== CUT_OFF) throw problem;
  });
  const ask: TestTray["ask"] = async (sql, values = []) => (await asked.query(sql, [...values])).rows;
  const close = async () => {
    await asked.end();
    await wired.close();
    await drop();
  };
  return { url, deps, clock, jobs, handedOver, outcomes, ask, close };
}

/** Lets time pass. */
export function passes(tray: TestTray, minutes: number): void {
  tray.clock.now = later(tray.clock.now, minutes * MINUTE);
}

/** An address that is one. */
export function address(text: string): EmailAddress {
  const read = readEmailAddress(text);
  if (read === null) throw new Error(`${text} is no address`);
  return read;
}

export type Office = {
  readonly ines: Member;
  readonly tobias: Member;
  readonly grant: TrayGrant;
  readonly tobiasGrant: TrayGrant;
  readonly reader: TrayGrant;
};

/** An office with one tray, two members, and one who only reads. */
export async function setUpOffice(deps: Deps): Promise<Office> {
  await setUpTray(deps, {
    slug: "office",
    name: "Ottermoor",
    timeZone: "UTC",
    addresses: [address("office@ottermoor.example")],
  });
  const add = async (signInName: string, name: string, initials: string, role: "member" | "reader") => {
    const added = await addMember(deps, {
      signInName,
      name,
      initials,
      role,
      timeZone: "UTC",
      password: "ottermoor",
      trays: ["office"],
    });
    if (!added.ok) throw new Error(added.error.kind);
    const [grant] = await traysOf(deps, added.value);
    if (grant === undefined) throw new Error("no grant");
    return { member: added.value, grant };
  };
  const ines = await add("ines", "Ines Varga", "IV", "member");
  const tobias = await add("tobias", "Tobias Lund", "TL", "member");
  const reader = await add("rook", "Rook Reader", "RR", "reader");
  return {
    ines: ines.member,
    tobias: tobias.member,
    grant: ines.grant,
    tobiasGrant: tobias.grant,
    reader: reader.grant,
  };
}

/** Lets a member lead a tray: her grant then. */
export async function asLead(tray: TestTray, member: Member, trayId?: TrayId): Promise<TrayGrant> {
  const [grant] = (await traysOf(tray.deps, member)).filter(
    ({ tray: { id } }) => trayId === undefined || id === trayId,
  );
  if (grant === undefined) throw new Error("no grant");
  await tray.ask(
    `update tray_member set role = 'lead' where member_id = '${member.id}' and tray_id = '${grant.tray.id}'`,
  );
  const led = (await traysOf(tray.deps, member)).find(({ tray: { id } }) => id === grant.tray.id);
  if (led === undefined) throw new Error("no grant");
  return led;
}

/** A second tray, with somebody who leads it and may not look into any other. */
export async function setUpParts(deps: Deps): Promise<{ readonly col: Member; readonly grant: TrayGrant }> {
  const addresses = [address("parts@ottermoor.example")];
  await setUpTray(deps, { slug: "parts", name: "Parts", timeZone: "UTC", addresses });
  const added = await addMember(deps, {
    signInName: "col",
    name: "Col Whitaker",
    initials: "CW",
    role: "lead",
    timeZone: "UTC",
    password: "ottermoor",
    trays: ["parts"],
  });
  if (!added.ok) throw new Error(added.error.kind);
  const [grant] = await traysOf(deps, added.value);
  if (grant === undefined) throw new Error("no grant");
  return { col: added.value, grant };
}
