import { Link } from "react-router";
import type { FilingRecord } from "../../../operations/index.server";
import { Button } from "../../ui/button";
import { useTray } from "../frame/tray-data";

type RecordHeadProps = {
  readonly record: FilingRecord;
  readonly count: { readonly filed: number; readonly open: number };
  readonly parent: { readonly code: string; readonly title: string } | null;
  /** Begins to change it; left out where one may not, or does so already. */
  readonly onEdit: (() => void) | undefined;
};

/** What a record is, where it stands, and what one can begin there. */
export function RecordHead({ record, count, parent, onEdit }: RecordHeadProps) {
  const { tray, mayDecide } = useTray();
  return (
    <header className="border-b border-rule px-5 pt-4 pb-3">
      <p className="text-sm text-soft">
        <Link to={`/${tray.slug}/records`} className="text-act hover:underline">
          Records
        </Link>
        {parent !== null && (
          <>
            {" / "}
            <Link to={`/${tray.slug}/records/${parent.code}`} className="text-act hover:underline">
              {parent.code} {parent.title}
            </Link>
          </>
        )}
      </p>
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <h1 className="mr-auto min-w-0 font-serif text-2xl">{record.title}</h1>
        {mayDecide && !record.closed && (
          <Link
            to={`/${tray.slug}/write?record=${record.code}`}
            className="inline-flex h-8 items-center rounded-control border border-rule px-3 font-semibold hover:border-act"
          >
            Write…
          </Link>
        )}
        {onEdit !== undefined && (
          <Button look="quiet" onClick={onEdit}>
            Change…
          </Button>
        )}
      </div>
      <p className="text-soft">
        {record.code} · {record.kind}
        {record.closed ? ", closed" : ""} ·{" "}
        {count.filed === 1 ? "1 conversation" : `${count.filed.toLocaleString("en")} conversations`}
        {count.open > 0 && `, ${count.open.toLocaleString("en")} open`}
      </p>
    </header>
  );
}
