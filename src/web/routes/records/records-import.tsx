import { data, Link } from "react-router";
import { RECORD_COLUMNS } from "../../../core/records/register-table";
import { importRecords, type RecordLine } from "../../../operations/index.server";
import { commonTexts } from "../../../texts/en/common";
import { recordsTexts } from "../../../texts/en/records";
import { type ImportedLine, type TableAnswer, TableImport } from "../../screens/forms/table-import";
import { useTray } from "../../screens/frame/tray-data";
import { mostBytesTo } from "../../server/base/body-limits";
import { depsContext, grantContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { speak } from "../../server/base/say.server";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/records-import";

const MAX_CHARACTERS = 5_000_000;

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, recordsTexts, "records.importExportRecords");
}

export async function action({ request, context }: Route.ActionArgs) {
  const form = await readForm(request, mostBytesTo("routes/records/records-import"));
  const table = String(form.get("table") ?? "");
  const refused = (problem: string, status: number) => data<TableAnswer>({ report: null, problem }, { status });
  if (table.trim() === "") return refused(speak("records.chooseAFileOrPaste"), 400);
  if (table.length > MAX_CHARACTERS) return refused(speak("records.thatIsTooLargeFor"), 400);
  const isTrial = form.get("do") !== "import";
  const taken = await importRecords(context.get(depsContext), context.get(grantContext), table, isTrial);
  if (!taken.ok) return refused(speak(taken.error), 400);
  return data<TableAnswer>({
    report: { lines: taken.value.map(lineView), stepId: null, isDone: !isTrial },
    problem: null,
  });
}

function lineView(line: RecordLine): ImportedLine {
  const { words, kind } = line;
  return { line: line.line, words, kind, problem: line.kind === "problem" ? speak(line.problem) : null };
}

/** The register as a table, out and in. */
export default function RecordsImport() {
  const say = useSay(recordsTexts, commonTexts);
  const { tray, mayDecide } = useTray();
  return (
    <TableImport
      title={say("records.importExportRecords")}
      back={["records", say("common.records")]}
      about={say("records.aTableInCsvWhose", { columns: RECORD_COLUMNS.join(", ") })}
      example={say("records.titleTypeUnderResponsibleSorrel")}
      noun={["record", "records"]}
      refusal={mayDecide ? null : say("records.youMayOnlyReadThis")}
    >
      <p>
        <a href={`/${tray.slug}/records.csv`} className="text-act hover:underline">
          {say("records.exportAllRecordsAsCsv")}
        </a>
      </p>
      <p>
        <Link to={`/${tray.slug}/import?as=record`} className="text-act hover:underline">
          {say("records.importARecordWithEverything")}
        </Link>
      </p>
    </TableImport>
  );
}
