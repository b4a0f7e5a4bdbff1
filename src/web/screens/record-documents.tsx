import { FileText } from "lucide-react";
import type { DocumentsView } from "../server/record-view.server";

/** The documents on a record by their names, each with its older versions. */
export function RecordDocuments({ documents }: { readonly documents: DocumentsView }) {
  if (documents.length === 0)
    return <p className="px-5 py-6 text-soft">No message on this record carries a document.</p>;
  return (
    <ul className="px-5 py-2">
      {documents.map(({ name, versions }) => (
        <li key={name} className="border-b border-hair py-2">
          <p className="flex items-center gap-2 font-serif text-[15px]">
            <FileText size={15} aria-hidden className="shrink-0 text-soft" />
            <span className="truncate">{name}</span>
            {versions.length > 1 && <span className="font-sans text-sm text-soft">{versions.length} versions</span>}
          </p>
          <ul className="pl-6 text-sm">
            {versions.map(({ messageId, traySlug, index, who, when, ours, contentType, size }) => (
              <li key={`${messageId} ${index}`} className="flex flex-wrap gap-x-3 py-0.5">
                <a
                  href={`/${traySlug}/messages/${messageId}/attachments/${index}`}
                  aria-label={`Get ${name} of ${when}`}
                  className="text-act hover:underline"
                >
                  {when}
                </a>
                <span className="text-soft">
                  {ours ? `${who}, to them` : who} · {contentType} · {size}
                </span>
              </li>
            ))}
          </ul>
        </li>
      ))}
    </ul>
  );
}
