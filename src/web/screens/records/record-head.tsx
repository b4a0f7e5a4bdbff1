import { Link } from "react-router";
import type { FilingRecord } from "../../../operations/index.server";
import { commonTexts } from "../../../texts/en/common";
import { recordsTexts } from "../../../texts/en/records";
import { Button } from "../../ui/button";
import { useSay } from "../../ui/texts/use-say";
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
  const say = useSay(recordsTexts, commonTexts);
  const { tray, mayDecide } = useTray();
  return (
    <header className="border-b border-rule px-5 pt-4 pb-3">
      <p className="text-sm text-soft">
        <Link to={`/${tray.slug}/records`} className="text-act hover:underline">
          {say("common.records")}
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
            {say("records.write")}
          </Link>
        )}
        {onEdit !== undefined && (
          <Button look="quiet" onClick={onEdit}>
            {say("records.change")}
          </Button>
        )}
      </div>
      <p className="text-soft">
        {record.code} · {record.kind}
        {record.closed ? say("records.closed") : ""} · {say("common.conversations", { count: count.filed })}
        {count.open > 0 && say("records.open", { open: count.open })}
      </p>
    </header>
  );
}
