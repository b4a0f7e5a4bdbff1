import { readFile } from "node:fs/promises";
import type { Command } from "commander";
import { readInstant } from "../core/kernel/instant";
import type * as Operations from "../operations/index.server";
import { Refused, Usage } from "./outcome";
import { addressFrom, zoneFrom } from "./read-options";

type Tells = { readonly out: (line: string) => void; readonly note: (line: string) => void };
type Loads = () => Promise<typeof Operations>;

/** The verbs about rules in files: none of them needs a database. */
export function addRulesVerbs(command: Command, operations: Loads, { out, note }: Tells): void {
  command
    .command("to-sieve <rules>")
    .description("write rules (JSON) as a script for a mail server (RFC 5228); what it cannot do is told, exit 1")
    .action(async (path: string) => {
      const all = await operations();
      const { script, lacks } = all.sieveFromRules(await rulesIn(path, all));
      out(script.trimEnd());
      for (const { rule, lacks: what, isLeftOut } of lacks) note(`${rule}: ${isLeftOut ? "left out. " : ""}${what}`);
      if (lacks.length > 0) throw new Refused("a mail server cannot do all of it");
    });
  command
    .command("from-sieve <script>")
    .description("read a script (RFC 5228) as rules (JSON); what has no counterpart is told line by line")
    .action(async (path: string) => {
      const { rulesFromSieve, asJson } = await operations();
      const read = rulesFromSieve(await contentOf(path));
      if (!read.ok) throw new Refused(inScript(path, read.error));
      for (const one of read.value.leftOut) note(inScript(path, one));
      out(JSON.stringify(asJson(read.value.rules), null, 2));
    });
  command
    .command("try <rules> <mail>")
    .description("what rules (JSON) would do with each message of an mbox, one JSON object a line")
    .option("--ours <addresses>", "our own addresses, separated by commas", "")
    .option("--time-zone <zone>", "of the office, an IANA name", "UTC")
    .option("--now <instant>", "as if all of it arrived then, as 2026-11-24T10:00:00Z; else when it says that it did")
    .action(async (path: string, mail: string, options: { ours: string; timeZone: string; now?: string }) => {
      const all = await operations();
      const rules = await rulesIn(path, all);
      for (const name of all.rulesOfATray(rules))
        note(`${name}: it asks for what only a tray knows; nothing is known of that here`);
      const ours = options.ours.split(",").filter(Boolean).map(addressFrom);
      const now = options.now === undefined ? null : readInstant(options.now);
      if (options.now !== undefined && now === null)
        throw new Usage(`${options.now} is no instant: write it as 2026-11-24T10:00:00Z`);
      const as = { ours, timeZone: zoneFrom(options.timeZone), now };
      for await (const tried of all.tryWrittenRules(rules, mail, as)) out(JSON.stringify(tried));
    });
}

const inScript = (path: string, { line, column, problem }: { line: number; column: number; problem: string }) =>
  `${path}: line ${line}, column ${column}: ${problem}`;

async function rulesIn(path: string, { readWrittenRules }: Awaited<ReturnType<Loads>>) {
  const read = readWrittenRules(await contentOf(path));
  if (read.ok) return read.value;
  throw new Refused(read.error.map(({ at, problem }) => `${path}: ${at}: ${problem}`).join("\n"));
}

async function contentOf(path: string): Promise<string> {
  try {
    return await readFile(path, "utf8");
  } catch (problem) {
    throw new Refused(`${path} cannot be read: ${problem instanceof Error ? problem.message : String(problem)}`);
  }
}
