import { execFile, execFileSync, spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { chmodSync, existsSync, mkdirSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { createServer } from "node:net";
import { join, resolve } from "node:path";
import { promisify } from "node:util";

const run = promisify(execFile);

export type ClusterOptions = {
  /** Where its data lives; it is made when it is not there. */
  readonly folder: string;
  /** Durable for data that is to last; not for data that a test throws away. */
  readonly durable: boolean;
};

/** A PostgreSQL cluster of our own, on a loopback port, which nobody else uses. */
export type Cluster = {
  readonly port: number;
  /** The address of a database in it. */
  readonly url: (database: string) => string;
  /** Makes a database, as a copy of another when `template` is given; does nothing where it is. */
  readonly createDatabase: (name: string, template?: string) => Promise<void>;
  readonly dropDatabase: (name: string) => Promise<void>;
  readonly stop: () => Promise<void>;
};

const USER = "tray";
const VERSIONS = "/usr/lib/postgresql";
const START_TRIES = 100;
const RETRY_MS = 100;
const FAST = ["fsync=off", "synchronous_commit=off", "full_page_writes=off", "max_connections=200"];
const DURABLE = ["fsync=on", "synchronous_commit=on", "full_page_writes=on", "max_connections=100"];

/**
 * Starts a private cluster, making it first where there is none. One that still runs, or whose server was killed, is
 * stopped and started anew, since its port may be anybody's by now. PostgreSQL refuses to run as root, so root runs it as
 * the user that Debian's package made.
 */
export async function startCluster(options: ClusterOptions): Promise<Cluster> {
  const folder = reachableFolder(resolve(options.folder));
  const data = join(folder, "data");
  if (!existsSync(join(data, "PG_VERSION"))) {
    rmSync(data, { recursive: true, force: true });
    asOwner("initdb", ["-D", data, "-U", USER, "-A", "trust", "-E", "UTF8", "--locale=C.UTF-8"]);
  }
  stopLeftOver(data);
  const port = await freePort();
  const settings = [
    "listen_addresses=127.0.0.1",
    `port=${port}`,
    "unix_socket_directories=",
    "shared_buffers=256MB",
    ...(options.durable ? DURABLE : FAST),
  ];
  const flags = settings.map((setting) => `-c ${setting.endsWith("=") ? `${setting}''` : setting}`).join(" ");
  asOwner("pg_ctl", ["-D", data, "-W", "-l", join(folder, "server.log"), "-o", flags, "start"]);
  await untilReady(port, join(folder, "server.log"));
  const psql = (sql: string) => run(program("psql"), [...connection(port), "-qtAc", sql], { cwd: "/" });
  return {
    port,
    url: (database) => `postgres://${USER}@127.0.0.1:${port}/${database}`,
    async createDatabase(name, template) {
      const { stdout } = await psql(`select 1 from pg_database where datname = '${name}'`);
      if (stdout.trim() === "")
        await psql(`create database ${name}${template === undefined ? "" : ` template ${template}`}`);
    },
    dropDatabase: async (name) => void (await psql(`drop database if exists ${name} with (force)`)),
    stop: async () => stopServer(data),
  };
}

function connection(port: number): string[] {
  return ["-h", "127.0.0.1", "-p", String(port), "-U", USER, "-d", "postgres"];
}

function program(name: string): string {
  const versions = existsSync(VERSIONS) ? readdirSync(VERSIONS).toSorted((a, b) => Number(a) - Number(b)) : [];
  const newest = versions.findLast((version) => existsSync(join(VERSIONS, version, "bin", name)));
  if (newest === undefined) throw new Error(`PostgreSQL is not installed; as root: apt-get install -y postgresql`);
  return join(VERSIONS, newest, "bin", name);
}

const isRoot = () => process.getuid?.() === 0;

function asOwner(name: string, args: readonly string[]): void {
  const [command, ...rest] = isRoot()
    ? ["runuser", "-u", "postgres", "--", program(name), ...args]
    : [program(name), ...args];
  // Its output goes to a file: a server that inherits a pipe keeps whoever reads it waiting for ever.
  const done = spawnSync(command ?? "", rest, {
    cwd: "/",
    stdio: ["ignore", "ignore", "pipe"],
    encoding: "utf8",
    timeout: 60_000,
  });
  if (done.status !== 0)
    throw new Error(`${name} failed: ${done.stderr || done.error?.message || `exit code ${done.status}`}`);
}

// A clone in root's home cannot be entered by the user that the server runs as.
function reachableFolder(wanted: string): string {
  mkdirSync(wanted, { recursive: true });
  if (!isRoot()) return wanted;
  const enters = spawnSync("runuser", ["-u", "postgres", "--", "test", "-x", wanted], { cwd: "/" }).status === 0;
  const folder = enters
    ? wanted
    : `/var/tmp/common-tray-${createHash("sha256").update(wanted).digest("hex").slice(0, 16)}`;
  mkdirSync(folder, { recursive: true });
  execFileSync("chown", ["postgres", folder]);
  chmodSync(folder, 0o700);
  return folder;
}

function stopLeftOver(data: string): void {
  const pidFile = join(data, "postmaster.pid");
  if (!existsSync(pidFile)) return;
  const pid = Number(readFileSync(pidFile, "utf8").split("\n")[0]);
  // Of a process that was killed, or of another that has its number since, only the file is left.
  if (isPostgres(pid)) stopServer(data);
  else rmSync(pidFile, { force: true });
}

function isPostgres(pid: number): boolean {
  try {
    return (
      readFileSync(`/proc/${pid}/comm`, "utf8").startsWith("postgres") &&
      !readFileSync(`/proc/${pid}/stat`, "utf8").includes(") Z ")
    );
  } catch {
    return false;
  }
}

function stopServer(data: string): void {
  if (existsSync(join(data, "postmaster.pid"))) asOwner("pg_ctl", ["-D", data, "-w", "-t", "20", "-m", "fast", "stop"]);
}

async function untilReady(port: number, logFile: string): Promise<void> {
  for (let tries = 0; tries < START_TRIES; tries += 1) {
    const ready = await run(program("pg_isready"), [...connection(port), "-q"], { cwd: "/" }).then(
      () => true,
      () => false,
    );
    if (ready) return;
    await new Promise((resolveLater) => setTimeout(resolveLater, RETRY_MS));
  }
  throw new Error(`PostgreSQL did not start; its log is ${logFile}`);
}

/** A loopback port that nobody uses at the moment. */
export function freePort(): Promise<number> {
  return new Promise((resolveWith, reject) => {
    const server = createServer();
    server.once("error", reject);
    server.listen(0, "127.0.0.1", () => {
      const address = server.address();
      server.close(() => resolveWith(typeof address === "object" && address !== null ? address.port : 0));
    });
  });
}
