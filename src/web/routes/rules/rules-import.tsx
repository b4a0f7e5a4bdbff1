import { data } from "react-router";
import { bringInScript, type ScriptLine, tryScript } from "../../../operations/index.server";
import { commonTexts } from "../../../texts/en/common";
import { rulesTexts } from "../../../texts/en/rules";
import { type ImportedLine, type TableAnswer, TableImport } from "../../screens/forms/table-import";
import { useTray } from "../../screens/frame/tray-data";
import { mostBytesTo } from "../../server/base/body-limits";
import { depsContext, grantContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { speak } from "../../server/base/say.server";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/rules-import";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, rulesTexts, "rules.bringInAScript");
}

export async function action({ request, context }: Route.ActionArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const form = await readForm(request, mostBytesTo("routes/rules/rules-import"));
  const script = String(form.get("table") ?? "");
  const refused = (problem: string, status: number) => data<TableAnswer>({ report: null, problem }, { status });
  if (grant.role !== "lead") return refused(refusalSaid({ kind: "leads-only" }), 409);
  if (script.trim() === "") return refused(speak("rules.chooseAScript"), 400);
  const isDone = form.get("do") === "import";
  const read = isDone ? await bringInScript(deps, grant, script) : await tryScript(deps, grant, script);
  if (read.ok) {
    const lines = read.value.map((line) => lineView(line, script));
    return data<TableAnswer>({ report: { lines, stepId: null, isDone }, problem: null });
  }
  const { error } = read;
  if (error.kind === "no-script") return refused(speak("rules.inTheScript", error.at), 400);
  const isOfRule = error.kind === "problems" || error.kind === "sweeping";
  return refused(isOfRule ? speak("rules.thatIsNoRule") : refusalSaid(error), 409);
}

function lineView({ line, name, kind, problem }: ScriptLine, script: string): ImportedLine {
  const written = script.split("\n")[line - 1]?.trim() ?? "";
  return { line, words: name ?? written, kind, problem: problem === null ? null : speak(problem) };
}

/** Takes rules in from a script of a mail server: first what it would do, line by line, then the doing of it. */
export default function RulesImport() {
  const say = useSay(rulesTexts, commonTexts);
  const { mayLead } = useTray();
  return (
    <TableImport
      title={say("rules.bringInAScript")}
      back={["rules", say("rules.rules")]}
      about={say("rules.aScriptInTheLanguage")}
      example={
        'require "fileinto";\n\n# Invoices\nif header :contains "subject" "invoice" {\n  fileinto "Invoices";\n}'
      }
      noun={["rule", "rules"]}
      accept=".sieve,.siv,application/sieve,text/plain"
      refusal={mayLead ? null : say("rules.onlyLeadsOfTheTray")}
    />
  );
}
