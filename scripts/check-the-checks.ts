import { spawnSync } from "node:child_process";
import { cpSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";

// A check that reports nothing may be switched off: each breach is planted in a copy of the sources and must be reported.

type Breach = {
  readonly file: string;
  /** What stands in the file, or goes into it after some words that stand there already. */
  readonly code: string;
  readonly after?: string;
  readonly tool: "biome" | "depcruise" | "house" | "transactions" | "texts" | "knip" | "tsc";
  readonly says: string;
  /** What the report names, where that is not the file. */
  readonly names?: string;
};

// A kind of decision of which nothing else is declared: each table of decisions has to miss it.
const DECISION_TABLES = [
  "src/core/deciding/plan-decision.ts",
  "src/core/deciding/decision-shown.ts",
  "src/web/server/deciding/decision-form.server.ts",
];

// A message is said here by a key; another one has to be missed.
const KEY_PLACE = "src/web/screens/list/new-rows.tsx";

const BREACHES: readonly Breach[] = [
  {
    file: "src/core/breach-1.ts",
    code: 'import { openDatabase } from "../storage/base/index";\nexport const a = openDatabase;\n',
    tool: "depcruise",
    says: "layer-core",
  },
  {
    file: "src/core/breach-2.ts",
    code: 'import knex from "knex";\nexport const a = knex;\n',
    tool: "depcruise",
    says: "core-is-pure",
  },
  {
    file: "src/web/breach-3.ts",
    code: 'import { addTray } from "../storage/access/trays";\nexport const a = addTray;\n',
    tool: "depcruise",
    says: "layer-web",
  },
  {
    file: "src/jobs/breach-4.ts",
    code: 'import { decide } from "../operations/deciding/decide";\nexport const a = decide;\n',
    tool: "depcruise",
    says: "one-door",
  },
  {
    file: "src/operations/breach-5.ts",
    code: 'import { knexOf } from "../storage/base/knex-of";\nexport const a = knexOf;\n',
    tool: "depcruise",
    says: "sql-in-storage",
  },
  { file: "src/core/breach-6.ts", code: "export const a = () => Date.now();\n", tool: "biome", says: "core is pure" },
  {
    file: "src/operations/breach-7.ts",
    code: 'export const a = (db: { raw: (sql: string) => void }) => db.raw("select 1");\n',
    tool: "biome",
    says: "SQL stays in src/storage",
  },
  {
    file: "src/operations/breach-8.ts",
    code: 'import { allTrays } from "../storage/access/index";\nimport { inTransaction } from "../storage/base/index";\nimport type { Deps } from "./base/deps";\nexport const a = (deps: Deps) => inTransaction(deps.db, async () => 1).then(() => inTransaction(deps.db, (_trx) => allTrays(deps.db)));\n',
    tool: "transactions",
    says: "the pool is asked within a transaction: deps.db",
  },
  { file: "src/storage/breach-9.ts", code: "export const a = () => new Date();\n", tool: "biome", says: "one clock" },
  {
    file: "src/core/journal/breach-10.ts",
    code: 'import { planDecision } from "../deciding/plan-decision";\nexport const a = planDecision;\n',
    tool: "house",
    says: "is in a circle of rooms",
    names: "src/core/journal",
  },
  { file: "src/core/breach-11.ts", code: "export const a = 1;\n", tool: "knip", says: "src/core/breach-11.ts" },
  {
    file: "src/web/screens/breach-12.tsx",
    code: "export const A = () => <p>Nobody has translated this sentence</p>;\n",
    tool: "texts",
    says: "a text that stands in no catalogue",
  },
  {
    file: "src/web/screens/frame/breach-14.tsx",
    code: 'export const A = ({ by }: { by: string | null }) => <b>{by ?? "nobody"}</b>;\n',
    tool: "texts",
    says: "a text that stands in no catalogue: nobody",
  },
  {
    file: "src/core/breach-13.ts",
    code: 'export const a = "Not done: somebody wrote meanwhile.";\n',
    tool: "texts",
    says: "a text that stands in no catalogue",
  },
  {
    file: "src/texts/en/list.ts",
    after: "catalogue({",
    code: '\n  "list.planted": "Said by nobody",',
    tool: "texts",
    says: "nothing says the message list.planted",
  },
  {
    file: "src/texts/en/writing.ts",
    after: "catalogue({",
    code: '\n  "writing.broken": "{count, plural, one {1}",',
    tool: "texts",
    says: "the message writing.broken is broken",
  },
  {
    file: KEY_PLACE,
    after: 'say("list.new',
    code: "Planted",
    tool: "tsc",
    says: "list.newPlanted",
  },
  ...DECISION_TABLES.map(
    (names) =>
      ({
        file: "src/core/deciding/decision.ts",
        after: "export type Decision =",
        code: '\n  | { readonly kind: "planted" }',
        tool: "tsc",
        says: "Property 'planted' is missing",
        names,
      }) as const,
  ),
];

const COMMANDS: {
  readonly [Tool in Breach["tool"]]: (files: readonly string[]) => readonly [program: string, ...string[]];
} = {
  biome: (files) => ["biome", "lint", "--vcs-enabled=false", "--reporter=github", ...files],
  depcruise: () => ["depcruise", "src", "--output-type", "err"],
  house: () => ["tsx", resolve("scripts/house.ts"), "--check"],
  knip: () => ["knip"],
  texts: () => ["tsx", resolve("scripts/check-texts.ts"), copy],
  transactions: () => ["tsx", resolve("scripts/check-transactions.ts"), copy],
  tsc: () => ["tsc", "--noEmit", "--project", "tables.json"],
};

const copy = mkdtempSync(join(tmpdir(), "common-tray-breach-"));
for (const name of [
  "src",
  "lint",
  "biome.json",
  "knip.json",
  ".dependency-cruiser.cjs",
  "tsconfig.json",
  "package.json",
]) {
  cpSync(name, join(copy, name), { recursive: true });
}
symlinkSync(resolve("node_modules"), join(copy, "node_modules"));
const bin = resolve("node_modules/.bin");
let missed = 0;
// Each tool reads all of the sources, so that all breaches are there at once; every line that reports one names its file.
for (const { file, code, after } of BREACHES) writeFileSync(join(copy, file), planted(file, code, after));
writeFileSync(
  join(copy, "tables.json"),
  JSON.stringify({ extends: "./tsconfig.json", include: [], files: [...DECISION_TABLES, KEY_PLACE] }),
);
for (const [tool, commandOf] of Object.entries(COMMANDS)) {
  const breaches = BREACHES.filter((breach) => breach.tool === tool);
  const [program, ...args] = commandOf(breaches.map(({ file }) => file));
  const { stdout, stderr, status } = spawnSync(join(bin, program), args, { cwd: copy, encoding: "utf8" });
  const lines = `${stdout}${stderr}`.split("\n");
  for (const { file, says, names = file } of breaches) {
    if (status !== 0 && lines.some((line) => line.includes(names) && line.includes(says))) continue;
    console.error(`not reported by ${tool}: ${says} in ${file}\n${lines.join("\n")}`);
    missed += 1;
  }
}
rmSync(copy, { recursive: true, force: true });
process.exitCode = missed === 0 ? 0 : 1;

function planted(file: string, code: string, after?: string): string {
  if (after === undefined) return code;
  const now = readFileSync(join(copy, file), "utf8");
  return now.includes(code) ? now : now.replace(after, after + code);
}
