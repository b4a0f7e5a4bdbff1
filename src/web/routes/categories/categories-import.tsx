import { data } from "react-router";
import { CATEGORY_COLUMNS } from "../../../core/categories/category-table";
import { importCategories, type ReportedLine, tryCategoryTable } from "../../../operations/index.server";
import { categoriesTexts } from "../../../texts/en/categories";
import { commonTexts } from "../../../texts/en/common";
import { useDecisions } from "../../screens/deciding/decisions";
import { type ImportedLine, type TableAnswer, TableImport } from "../../screens/forms/table-import";
import { useTray } from "../../screens/frame/tray-data";
import { mostBytesTo } from "../../server/base/body-limits";
import { depsContext, grantContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { speak } from "../../server/base/say.server";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/categories-import";

const MAX_CHARACTERS = 1_000_000;

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, categoriesTexts, "categories.importCategories");
}

export async function action({ request, context }: Route.ActionArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const form = await readForm(request, mostBytesTo("routes/categories/categories-import"));
  const table = String(form.get("table") ?? "");
  const refused = (problem: string, status: number) => data<TableAnswer>({ report: null, problem }, { status });
  if (table.trim() === "") return refused(speak("categories.chooseAFileOrPaste"), 400);
  if (table.length > MAX_CHARACTERS) return refused(speak("categories.thatIsMoreThanA"), 400);
  const tried = await tryCategoryTable(deps, grant, table);
  if (!tried.ok) return refused(speak(tried.error), 400);
  if (form.get("do") !== "import") {
    return data<TableAnswer>({
      report: { lines: tried.value.map(lineView), stepId: null, isDone: false },
      problem: null,
    });
  }
  const taken = await importCategories(deps, grant, table);
  if (!taken.ok) {
    const { error } = taken;
    const words = error.kind === "problems" || error.kind === "uses-changed" ? "" : refusalSaid(error);
    return refused(words, 409);
  }
  const { value, stepId } = taken.value;
  return data<TableAnswer>({ report: { lines: value.map(lineView), stepId, isDone: true }, problem: null });
}

function lineView(line: ReportedLine): ImportedLine {
  return {
    line: line.line,
    words: line.path || speak("categories.noPath"),
    kind: line.kind,
    problem: line.kind === "problem" ? speak(line.problem) : null,
  };
}

/** Takes categories in from a file: first what it would do, line by line, then the doing of it. */
export default function CategoriesImport() {
  const say = useSay(categoriesTexts, commonTexts);
  const { mayAddCategories } = useTray();
  const { undoCategories } = useDecisions();
  return (
    <TableImport
      title={say("categories.importCategories")}
      back={["categories", say("common.categories")]}
      about={say("categories.aTableInCsvWhose", { columns: CATEGORY_COLUMNS.join(", ") })}
      example={say("categories.pathCodeInkInvoicesIn")}
      noun={["category", "categories"]}
      refusal={mayAddCategories ? null : say("categories.onlyThoseWhoMayChange")}
      onUndo={undoCategories}
    />
  );
}
