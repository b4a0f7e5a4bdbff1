import { ok, type Result } from "../../core/kernel/result";
import { rulesOfScript, type WrittenRule } from "../../core/sieve/rules-of-script";
import { scriptOfRules } from "../../core/sieve/script-of-rules";
import type { ScriptProblem } from "../../core/sieve/script-problem";
import { writtenDown } from "../base/written-down";

/** Something about a script or its rules, in words. */
type Told = { readonly line: number; readonly column: number; readonly problem: string };

const told = ({ line, column, problem }: ScriptProblem): Told => ({ line, column, problem: writtenDown(problem) });

/** The rules of a script, and what of it they lack; or where it is none. */
export function rulesFromSieve(
  script: string,
): Result<{ readonly rules: readonly WrittenRule[]; readonly leftOut: readonly Told[] }, Told> {
  const read = rulesOfScript(script);
  if (!read.ok) return { ok: false, error: told(read.error) };
  return ok({ rules: read.value.rules, leftOut: read.value.leftOut.map(told) });
}

/** Rules as a script, and what a mail server cannot do of them. */
export function sieveFromRules(rules: readonly WrittenRule[]) {
  const { script, lacks } = scriptOfRules(rules);
  return { script, lacks: lacks.map((one) => ({ ...one, lacks: writtenDown(one.lacks) })) };
}
