import { useState } from "react";
import { Link } from "react-router";
import { type RecordId, trustedId } from "../../../core/kernel/ids";
import type { AskedFields } from "../../../core/records/filing-field";
import { commonTexts } from "../../../texts/en/common";
import { recordsTexts } from "../../../texts/en/records";
import { Opens } from "../../keys/key-desk";
import type { FilingsView } from "../../server/records/record-view.server";
import { Cell, ColumnHead, DataTable } from "../../ui/layout/data-table";
import { useSay } from "../../ui/texts/use-say";
import { Tick } from "../../ui/tick";
import { useDecisions } from "../deciding/decisions";
import { FilingSheet } from "../deciding/lazy-filing-sheet";
import { useTray } from "../frame/tray-data";

type Row = FilingsView["rows"][number];
type Column = {
  readonly key: string;
  readonly name: string;
  readonly words: (row: Row) => string;
  readonly sorts?: (row: Row) => number;
};

type FilingTableProps = {
  readonly filings: FilingsView;
  readonly record: { readonly id: string; readonly code: string; readonly title: string };
};

/** What is filed on a record with all its particulars, in the order of any of them; columns can be left out. */
export function FilingTable({ filings: { rows, fields }, record }: FilingTableProps) {
  const say = useSay(recordsTexts, commonTexts);
  const { members, tray, mayDecide } = useTray();
  const { decide } = useDecisions();
  const [changed, setChanged] = useState<Row | null>(null);
  const mayChange = (row: Row) => mayDecide && fields.length > 0 && row.traySlug === tray.slug;
  const [order, setOrder] = useState<{ readonly key: string; readonly down: boolean }>({ key: "newest", down: true });
  const [hidden, setHidden] = useState<readonly string[]>([]);
  const columns: readonly Column[] = [
    { key: "who", name: say("records.who"), words: ({ who }) => who },
    { key: "count", name: say("records.messages"), words: ({ count }) => String(count), sorts: ({ count }) => count },
    {
      key: "newest",
      name: say("records.newest"),
      words: ({ newest }) => newest.words,
      sorts: ({ newest }) => newest.key,
    },
    ...fields.map(({ key, label }) => ({ key, name: label, words: (row: Row) => row.fields[key] ?? "" })),
    { key: "filed", name: say("records.filed"), words: ({ filed }) => filed.words, sorts: ({ filed }) => filed.key },
    {
      key: "by",
      name: say("records.by"),
      words: ({ filedBy }) => members.find(({ id }) => id === filedBy)?.name ?? "",
    },
    { key: "means", name: say("records.how"), words: ({ means }) => means },
  ];
  const shown = columns.filter(({ key }) => !hidden.includes(key));
  const by = columns.find(({ key }) => key === order.key);
  const ordered = rows.toSorted((a, b) => (order.down ? -1 : 1) * compare(a, b, by));
  if (rows.length === 0) return <p className="px-5 py-6 text-soft">{say("records.nothingFiledYet")}</p>;
  return (
    <div className="overflow-x-auto px-5 py-3">
      <fieldset className="flex flex-wrap gap-x-4 pb-2 text-sm text-soft">
        <legend className="sr-only">{say("common.columns")}</legend>
        {columns.map(({ key, name }) => (
          <Tick
            key={key}
            checked={!hidden.includes(key)}
            onTick={(isOn) => setHidden((before) => (isOn ? before.filter((one) => one !== key) : [...before, key]))}
          >
            {name}
          </Tick>
        ))}
      </fieldset>
      <DataTable
        head={[{ key: "subject", name: say("common.subject") }, ...shown].map(({ key, name }) => (
          <ColumnHead
            key={key}
            sorted={order.key === key ? (order.down ? "down" : "up") : null}
            onSort={() => setOrder({ key, down: order.key === key && !order.down })}
          >
            {name}
          </ColumnHead>
        ))}
      >
        {ordered.map((row) => (
          <tr key={row.id} className="align-top">
            <Cell isTight className="max-w-72">
              <Link to={`/${row.traySlug}/open/${row.id}`} className="font-serif text-[15px] hover:text-act">
                {row.subject || say("common.noSubject")}
              </Link>
              {mayChange(row) && (
                <button
                  type="button"
                  aria-label={say("records.changeTheParticularsOf", {
                    subject: row.subject || say("common.noSubjectInside"),
                  })}
                  onClick={() => setChanged(row)}
                  className="block min-h-6 text-act hover:underline"
                >
                  {say("records.changeInside")}
                </button>
              )}
            </Cell>
            {shown.map(({ key, words }) => (
              <Cell key={key} isTight>
                {words(row)}
              </Cell>
            ))}
          </tr>
        ))}
      </DataTable>
      {changed !== null && (
        <Opens>
          <FilingSheet
            asked={askedOf(changed, fields, record)}
            count={1}
            changes
            onFile={(values) => {
              const posted = { recordId: trustedId<RecordId>(record.id), called: record.code, fields: values };
              const target = { rows: [{ ...changed, version: 0 }], everything: null };
              decide(
                { kind: "particulars", ...posted },
                target,
                say("records.particularsChanged", { subject: changed.subject }),
              );
              setChanged(null);
            }}
            onClose={() => setChanged(null)}
          />
        </Opens>
      )}
    </div>
  );
}

// As if it were filed now, with what it has.
function askedOf(row: Row, fields: FilingsView["fields"], { code, title }: FilingTableProps["record"]): AskedFields {
  return {
    code,
    title,
    problems: {},
    fields: fields.map((field) => ({ ...field, value: row.fields[field.key] ?? "" })),
  };
}

function compare(a: Row, b: Row, column: Column | undefined): number {
  if (column === undefined) return a.subject.localeCompare(b.subject);
  const { sorts, words } = column;
  return sorts === undefined ? words(a).localeCompare(words(b), undefined, { numeric: true }) : sorts(a) - sorts(b);
}
