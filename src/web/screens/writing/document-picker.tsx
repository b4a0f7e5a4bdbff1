import { useEffect } from "react";
import { useFetcher } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { writingTexts } from "../../../texts/en/writing";
import type { Say } from "../../../texts/say";
import type { loader as documentsToEnclose } from "../../routes/writing/draft-attachments";
import { Picker } from "../../ui/picker";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";

type DocumentPickerProps = {
  /** The codes of the records to choose from. */
  readonly records: readonly string[];
  readonly onPick: (document: { readonly code: string; readonly name: string; readonly sha256: string }) => void;
  readonly onClose: () => void;
};

/** Picks a document of a record to go with a message. */
export default function DocumentPicker({ records, onPick, onClose }: DocumentPickerProps) {
  const say = useSay(writingTexts, commonTexts);
  const { tray } = useTray();
  const { load, data, state } = useFetcher<typeof documentsToEnclose>();
  const asked = new URLSearchParams(records.map((code) => ["record", code])).toString();
  useEffect(() => {
    void load(`/${tray.slug}/draft-attachments?${asked}`);
  }, [load, tray.slug, asked]);
  const documents = data?.documents ?? [];
  return (
    <Picker
      title={say("writing.attachADocumentOf", { records: records.join(", ") })}
      prompt={say("writing.typeAPartOfIts")}
      empty={emptyWords(say, documents.length, state === "idle" && data !== undefined)}
      size="wide"
      isLoading={state !== "idle" || data === undefined}
      choices={documents.map(({ code, name, sha256, words }) => ({
        id: `${code} ${sha256}`,
        words: `${name} ${code} ${words}`,
        face: (
          <>
            <span className="font-serif">{name}</span>
            <span className="pl-2 text-sm text-soft">{records.length > 1 ? `${code}, ${words}` : words}</span>
          </>
        ),
      }))}
      onPick={(id) => {
        const picked = documents.find(({ code, sha256 }) => `${code} ${sha256}` === id);
        if (picked !== undefined) onPick(picked);
        onClose();
      }}
      onClose={onClose}
    />
  );
}

function emptyWords(say: Say<typeof writingTexts & typeof commonTexts>, count: number, isThere: boolean): string {
  if (!isThere) return say("common.searching");
  return count === 0 ? say("writing.thereIsNoDocumentYet") : say("writing.noDocumentThereHasThat");
}
