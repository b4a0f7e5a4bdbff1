import { parse } from "csv-parse/sync";
import { stringify } from "csv-stringify/sync";
import { err, ok, type Result } from "../../core/kernel/result";
import { recordsTexts } from "../../texts/en/records";
import { type Said, saidOf } from "../../texts/said";

const said = saidOf(recordsTexts);

/** A line of a table with its number in the file, counted from one with the heading. */
export type TableLine = { readonly line: number; readonly cells: Readonly<Record<string, string>> };

const MAX_LINES = 10_000;

/**
 * The lines of a table in CSV (RFC 4180, also with semicolons or tabs, as spreadsheets write it), by the names of its
 * columns in the first line, in whatever case and order; columns of other names are left out. The first of `columns` has
 * to be there. A refusal is for the person whose file it is.
 */
export function readTable(text: string, columns: readonly string[]): Result<TableLine[], Said> {
  const [first = ""] = text.split(/\r?\n/, 1);
  const [delimiter = ","] = [",", ";", "\t"].toSorted((a, b) => first.split(b).length - first.split(a).length);
  try {
    const rows: { record: Record<string, string>; info: { lines: number } }[] = parse(text, {
      bom: true,
      delimiter,
      columns: (names: string[]) => names.map((name) => name.trim().toLowerCase()),
      info: true,
      relax_column_count: true,
      skip_empty_lines: true,
      to: MAX_LINES,
    });
    const [needed = ""] = columns;
    if (!first.toLowerCase().includes(needed)) return err(said("records.firstLineHasToName", { needed }));
    return ok(
      rows.map(({ record, info }) => ({
        line: info.lines,
        cells: Object.fromEntries(
          Object.entries(record).flatMap(([name, cell]) => (columns.includes(name) ? [[name, unguarded(cell)]] : [])),
        ),
      })),
    );
  } catch (problem) {
    return err(said("records.isNoTable", { problem: problem instanceof Error ? problem.message : String(problem) }));
  }
}

/** The rows of a table that `writeTable` wrote, by the names of its columns as they stand there; null for what is no table. */
export function readRows(text: string): Readonly<Record<string, string>>[] | null {
  try {
    const rows: Record<string, string>[] = parse(text, { bom: true, columns: true, skip_empty_lines: true });
    return rows.map((row) => Object.fromEntries(Object.entries(row).map(([name, cell]) => [name, unguarded(cell)])));
  } catch {
    return null;
  }
}

// Spreadsheets take a cell that begins like this for a formula.
const guarded = (text: string) => (/^[=+\-@\t\r]/.test(text) ? `'${text}` : text);

function unguarded(cell: string): string {
  return cell.replace(/^'(?=[=+\-@])/, "");
}

/** A table in CSV (RFC 4180) with a heading; a cell that a spreadsheet would take for a formula is marked as text. */
export function writeTable<Column extends string>(
  columns: readonly Column[],
  rows: readonly { readonly [C in Column]: string }[],
): string {
  const cells = rows.map((row) => columns.map((column) => guarded(row[column])));
  return stringify(cells, { header: true, columns: [...columns], bom: true, record_delimiter: "windows" });
}
