import { spawnSync } from "node:child_process";
import { cpSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";

// A check that reports nothing may be switched off: each breach is planted in a copy of the sources and must be reported.

type Breach = {
  readonly file: string;
  readonly code: string;
  readonly tool: "biome" | "depcruise" | "transactions";
  readonly says: string;
};

const BREACHES: readonly Breach[] = [
  {
    file: "src/core/breach.ts",
    code: 'import { openDatabase } from "../storage/index";\nexport const a = openDatabase;\n',
    tool: "depcruise",
    says: "layer-core",
  },
  {
    file: "src/core/breach.ts",
    code: 'import knex from "knex";\nexport const a = knex;\n',
    tool: "depcruise",
    says: "core-is-pure",
  },
  {
    file: "src/web/breach.ts",
    code: 'import { addTray } from "../storage/trays";\nexport const a = addTray;\n',
    tool: "depcruise",
    says: "layer-web",
  },
  {
    file: "src/jobs/breach.ts",
    code: 'import { decide } from "../operations/decide";\nexport const a = decide;\n',
    tool: "depcruise",
    says: "one-door",
  },
  {
    file: "src/operations/breach.ts",
    code: 'import { knexOf } from "../storage/knex-of";\nexport const a = knexOf;\n',
    tool: "depcruise",
    says: "sql-in-storage",
  },
  { file: "src/core/breach.ts", code: "export const a = () => Date.now();\n", tool: "biome", says: "core is pure" },
  {
    file: "src/operations/breach.ts",
    code: 'export const a = (db: { raw: (sql: string) => void }) => db.raw("select 1");\n',
    tool: "biome",
    says: "SQL stays in src/storage",
  },
  {
    file: "src/operations/breach.ts",
    code: 'import { allTrays, inTransaction } from "../storage/index";\nimport type { Deps } from "./deps";\nexport const a = (deps: Deps) => inTransaction(deps.db, async () => 1).then(() => inTransaction(deps.db, (_trx) => allTrays(deps.db)));\n',
    tool: "transactions",
    says: "the pool is asked within a transaction: deps.db",
  },
  { file: "src/storage/breach.ts", code: "export const a = () => new Date();\n", tool: "biome", says: "one clock" },
];

const COMMANDS: { readonly [Tool in Breach["tool"]]: (file: string) => readonly [program: string, ...string[]] } = {
  biome: (file) => ["biome", "lint", "--vcs-enabled=false", file],
  depcruise: () => ["depcruise", "src", "--output-type", "err"],
  transactions: () => ["tsx", resolve("scripts/check-transactions.ts"), copy],
};

const copy = mkdtempSync(join(tmpdir(), "common-tray-breach-"));
for (const name of ["src", "lint", "biome.json", ".dependency-cruiser.cjs", "tsconfig.json", "package.json"]) {
  cpSync(name, join(copy, name), { recursive: true });
}
symlinkSync(resolve("node_modules"), join(copy, "node_modules"));
const bin = resolve("node_modules/.bin");
let missed = 0;
for (const { file, code, tool, says } of BREACHES) {
  const path = join(copy, file);
  writeFileSync(path, code);
  const [program, ...args] = COMMANDS[tool](file);
  const { stdout, stderr, status } = spawnSync(join(bin, program), args, { cwd: copy, encoding: "utf8" });
  if (status === 0 || !`${stdout}${stderr}`.includes(says)) {
    console.error(`not reported by ${tool}: ${says}\n${stdout}${stderr}`);
    missed += 1;
  }
  rmSync(path);
}
rmSync(copy, { recursive: true, force: true });
process.exit(missed === 0 ? 0 : 1);
