import { FileText } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { useFetcher } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { recordsTexts } from "../../../texts/en/records";
import type { DocumentOutcome } from "../../routes/records/record-documents";
import type { DocumentsView } from "../../server/records/record-view.server";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { FILE_BUTTON } from "../../ui/file-button";
import { notice } from "../../ui/notices";
import { useSay } from "../../ui/texts/use-say";
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
  const say = useSay(recordsTexts, commonTexts);
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
      <RecordLook code={code} text={text} part="documents" hint={say("records.wordsInItsDocuments")} />
      <div className="px-5 py-2">
        {mayDecide && !closed && <AddFile fetcher={fetcher} action={action} />}
        {outcome?.ok === false && (
          <p role="alert" className="pb-2 text-late">
            {outcome.problem}
          </p>
        )}
        {documents.length === 0 && (
          <p className="py-4 text-soft">
            {text === "" ? say("records.noDocumentIsOnThis") : say("records.noDocumentOnHas", { code, text })}
          </p>
        )}
        <ul>
          {documents.map(({ name, versions }) => (
            <li key={name} className="border-b border-hair py-2">
              <p className="flex items-center gap-2 font-serif text-[15px]">
                <FileText size={15} aria-hidden className="shrink-0 text-soft" />
                <span className="truncate">{name}</span>
                {versions.length > 1 && (
                  <span className="font-sans text-sm text-soft">
                    {say("records.versions", { count: versions.length })}
                  </span>
                )}
              </p>
              <ul className="pl-6 text-sm">
                {versions.map((version) => (
                  <li key={version.href} className="flex flex-wrap items-center gap-x-3 py-0.5">
                    <a
                      href={version.href}
                      aria-label={say("records.downloadOf", { name, when: version.when })}
                      className="text-act hover:underline"
                    >
                      {version.when}
                    </a>
                    <span className="text-soft">
                      {version.ours ? say("records.toThem", { who: version.who }) : version.who} · {version.contentType}{" "}
                      · {version.size}
                    </span>
                    {version.isShown && (
                      <button
                        type="button"
                        aria-label={say("records.viewOf", { name, when: version.when })}
                        onClick={() => setShown({ name, version })}
                        className="min-h-6 text-act hover:underline"
                      >
                        {say("records.view")}
                      </button>
                    )}
                    {version.id !== null && mayDecide && (
                      <button
                        type="button"
                        aria-label={say("records.removeOf", { name, when: version.when })}
                        onClick={() =>
                          void fetcher.submit({ do: "remove", document: version.id ?? "" }, { method: "post", action })
                        }
                        className="min-h-6 text-act hover:underline"
                      >
                        {say("common.removeInside")}
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
  const say = useSay(recordsTexts);
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
      aria-label={say("records.addAFile")}
      className="flex flex-wrap items-center gap-2 border-b border-hair pb-2 text-sm"
    >
      <label className="flex items-center gap-2">
        <span className="font-semibold">{say("records.addAFileOrA")}</span>
        <input type="file" name="file" className={`max-w-72 ${FILE_BUTTON}`} />
      </label>
      <Button type="submit" disabled={isBusy}>
        {isBusy ? say("records.adding") : say("records.addIt")}
      </Button>
    </fetcher.Form>
  );
}
