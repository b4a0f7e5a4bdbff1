import { spawn } from "node:child_process";
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { makeTemplates, startTestCluster } from "../tests/support/test-cluster";

// Everything that has to hold, in the order in which it is quickest to know; the last line counts it.

const RESULTS = ".tray/results";
const BIN = "node_modules/.bin";

type Count = { passed: number; failed: number };

const total: Count = { passed: 0, failed: 0 };
const count = (passed: number, failed: number) => {
  total.passed += passed;
  total.failed += failed;
};

function run(command: string, args: readonly string[], environment: Record<string, string> = {}): Promise<boolean> {
  return new Promise((resolve) => {
    const child = spawn(command, args, {
      stdio: ["ignore", "inherit", "inherit"],
      env: { ...process.env, ...environment },
    });
    child.on("error", () => resolve(false));
    child.on("close", (code) => resolve(code === 0));
  });
}

/** Runs a check beside others; what it says is printed in one piece when it ends. */
function check(name: string, command: string, args: readonly string[]): Promise<void> {
  return new Promise((resolve) => {
    const child = spawn(command, args, { stdio: ["ignore", "pipe", "pipe"] });
    const said: string[] = [];
    for (const stream of [child.stdout, child.stderr]) stream.on("data", (chunk) => said.push(String(chunk)));
    const end = (passed: boolean) => {
      console.log(`\n— ${name}\n${said.join("")}`);
      count(passed ? 1 : 0, passed ? 0 : 1);
      resolve();
    };
    child.once("error", () => end(false));
    child.once("close", (code) => end(code === 0));
  });
}

/** Adds what a runner wrote into its results; a runner that wrote none has failed. */
async function suite(
  name: string,
  file: string,
  ran: Promise<boolean>,
  read: (results: never) => Count,
): Promise<void> {
  console.log(`\n— ${name}`);
  const passed = await ran;
  const counted = existsSync(file) ? read(JSON.parse(readFileSync(file, "utf8")) as never) : { passed: 0, failed: 0 };
  count(counted.passed, counted.failed);
  if (!passed && counted.failed === 0) count(0, 1);
}

function vitest(name: string, projects: readonly string[], environment: Record<string, string>): Promise<void> {
  const file = `${RESULTS}/${projects.join("-")}.json`;
  const chosen = projects.flatMap((project) => ["--project", project]);
  return suite(
    name,
    file,
    run(
      `${BIN}/vitest`,
      ["run", ...chosen, "--reporter=dot", "--reporter=json", `--outputFile.json=${file}`],
      environment,
    ),
    (results: { numPassedTests: number; numFailedTests: number }) => ({
      passed: results.numPassedTests,
      failed: results.numFailedTests,
    }),
  );
}

const JOURNEYS = ".tray/journeys";
const MOST_OF_A_PAGE = 6_000;

/** Prints what was on the pages where journeys failed: of a machine elsewhere nothing else is left to look at. */
function printPages(): void {
  const folders = existsSync(JOURNEYS) ? readdirSync(JOURNEYS) : [];
  for (const folder of folders) {
    const file = `${JOURNEYS}/${folder}/error-context.md`;
    const context = existsSync(file) ? readFileSync(file, "utf8") : "";
    const [, page] = context.split(/^# Test source$/m)[0]?.split(/^# Page snapshot$/m) ?? [];
    if (page !== undefined) console.log(`\n— the page of ${folder}\n${page.trim().slice(0, MOST_OF_A_PAGE)}`);
  }
}

rmSync(RESULTS, { recursive: true, force: true });
mkdirSync(RESULTS, { recursive: true });

const cluster = await startTestCluster();
const stop = () => void cluster.stop().finally(() => process.exit(1));
process.on("SIGINT", stop);
process.on("SIGTERM", stop);
try {
  const folders = ["src", "tests", "bench", "scripts"];
  // Beside the tests, which wait for other processes much of the time; what measures time runs last of these.
  const checks = Promise.all([
    check("types", "npm", ["run", "--silent", "typecheck"]),
    check("style and purity", `${BIN}/biome`, ["check", "--error-on-warnings", "."]),
    check("one way of dependency", `${BIN}/depcruise`, [...folders, "--output-type", "err"]),
    check("rooms in one direction", `${BIN}/tsx`, ["scripts/house.ts", "--check"]),
    check("texts in catalogues", `${BIN}/tsx`, ["scripts/check-texts.ts"]),
    check("nothing left over", `${BIN}/knip`, []),
    check("transactions ask no pool", `${BIN}/tsx`, ["scripts/check-transactions.ts"]),
    check("planted breaches are reported", `${BIN}/tsx`, ["scripts/check-the-checks.ts"]),
  ]);
  await makeTemplates(cluster);
  const environment = { TEST_CLUSTER_PORT: String(cluster.port), NO_COLOR: "1", FORCE_COLOR: "0" };
  await vitest("core, storage, operations", ["core", "database", "alone"], environment);
  await checks;
  const journeys = `${RESULTS}/playwright.json`;
  await Promise.all([
    vitest("processes", ["processes"], environment),
    suite(
      "journeys in the browser",
      journeys,
      run(`${BIN}/playwright`, ["test"], { ...environment, PLAYWRIGHT_JSON_OUTPUT_NAME: journeys }),
      ({ stats }: { stats: { expected: number; unexpected: number; flaky: number } }) => ({
        passed: stats.expected,
        failed: stats.unexpected + stats.flaky,
      }),
    ),
  ]);
  printPages();
} finally {
  await cluster.stop();
}
console.log(`\n${total.passed} passed, ${total.failed} failed`);
process.exit(total.failed === 0 ? 0 : 1);
