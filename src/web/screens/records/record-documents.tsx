import { FileText } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { useFetcher } from "react-router";
import type { DocumentOutcome } from "../../routes/records/record-documents";
import type { DocumentsView } from "../../server/records/record-view.server";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { FILE_BUTTON } from "../../ui/file-button";
import { notice } from "../../ui/notices";
import { useTray } from "../frame/tray-data";
import { RecordLook } from "./record-look";

type RecordDocumentsProps = {
  readonly documents: DocumentsView;
  readonly code: string;
  readonly closed: boolean;
  readonly text: string;
};

type Version = DocumentsView[number]["versions"][number];

/** The documents on a record by their names, each with its older versions, to look at, to get and to add to. */
export function RecordDocuments({ documents, code, closed, text }: RecordDocumentsProps) {
  const { tray, mayDecide } = useTray();
  const fetcher = useFetcher<DocumentOutcome>();
  const [shown, setShown] = useState<{ readonly name: string; readonly version: Version } | null>(null);
  const action = `/${tray.slug}/records/${code}/documents`;
  const { data: outcome } = fetcher;
  useEffect(() => {
    if (outcome?.ok === true) notice(outcome.said);
  }, [outcome]);
  return (
    <>
      <RecordLook code={code} text={text} part="documents" hint="words in its documents" />
      <div className="px-5 py-2">
        {mayDecide && !closed && <AddFile fetcher={fetcher} action={action} />}
        {outcome?.ok === false && (
          <p role="alert" className="pb-2 text-late">
            {outcome.problem}
          </p>
        )}
        {documents.length === 0 && (
          <p className="py-4 text-soft">
            {text === "" ? "No document is on this record yet." : `No document on ${code} has “${text}”.`}
          </p>
        )}
        <ul>
          {documents.map(({ name, versions }) => (
            <li key={name} className="border-b border-hair py-2">
              <p className="flex items-center gap-2 font-serif text-[15px]">
                <FileText size={15} aria-hidden className="shrink-0 text-soft" />
                <span className="truncate">{name}</span>
                {versions.length > 1 && <span className="font-sans text-sm text-soft">{versions.length} versions</span>}
              </p>
              <ul className="pl-6 text-sm">
                {versions.map((version) => (
                  <li key={version.href} className="flex flex-wrap items-center gap-x-3 py-0.5">
                    <a
                      href={version.href}
                      aria-label={`Download ${name} of ${version.when}`}
                      className="text-act hover:underline"
                    >
                      {version.when}
                    </a>
                    <span className="text-soft">
                      {version.ours ? `${version.who}, to them` : version.who} · {version.contentType} · {version.size}
                    </span>
                    {version.isShown && (
                      <button
                        type="button"
                        aria-label={`View ${name} of ${version.when}`}
                        onClick={() => setShown({ name, version })}
                        className="min-h-6 text-act hover:underline"
                      >
                        view
                      </button>
                    )}
                    {version.id !== null && mayDecide && (
                      <button
                        type="button"
                        aria-label={`Remove ${name} of ${version.when}`}
                        onClick={() =>
                          void fetcher.submit({ do: "remove", document: version.id ?? "" }, { method: "post", action })
                        }
                        className="min-h-6 text-act hover:underline"
                      >
                        remove
                      </button>
                    )}
                  </li>
                ))}
              </ul>
            </li>
          ))}
        </ul>
        {shown !== null && (
          <Dialog
            open
            onOpenChange={() => setShown(null)}
            title={shown.name}
            description={`${shown.version.who}, ${shown.version.when}`}
            size="page"
          >
            <iframe
              title={shown.name}
              src={`${shown.version.href}?shown`}
              className="h-[64vh] w-full bg-white scheme-light"
            />
          </Dialog>
        )}
      </div>
    </>
  );
}

type AddFileProps = { readonly fetcher: ReturnType<typeof useFetcher<DocumentOutcome>>; readonly action: string };

/** Brings a file to the record; a message as .eml is filed as what it is. */
function AddFile({ fetcher, action }: AddFileProps) {
  const form = useRef<HTMLFormElement>(null);
  const isBusy = fetcher.state !== "idle";
  useEffect(() => {
    if (fetcher.state === "idle" && fetcher.data?.ok === true) form.current?.reset();
  }, [fetcher.state, fetcher.data]);
  return (
    <fetcher.Form
      ref={form}
      method="post"
      action={action}
      encType="multipart/form-data"
      aria-label="Add a file"
      className="flex flex-wrap items-center gap-2 border-b border-hair pb-2 text-sm"
    >
      <label className="flex items-center gap-2">
        <span className="font-semibold">Add a file, or a message as .eml</span>
        <input type="file" name="file" className={`max-w-72 ${FILE_BUTTON}`} />
      </label>
      <Button type="submit" disabled={isBusy}>
        {isBusy ? "Adding…" : "Add it"}
      </Button>
    </fetcher.Form>
  );
}
