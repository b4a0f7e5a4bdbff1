import { useFetcher } from "react-router";
import { recordsTexts } from "../../../texts/en/records";
import type { ZipExportOutcome } from "../../routes/records/zip-exports";
import { Button } from "../../ui/button";
import { notice } from "../../ui/notices";
import { useSay } from "../../ui/texts/use-say";
import { Tick } from "../../ui/tick";
import { useOutcome } from "../forms/use-form-action";
import { useTray } from "../frame/tray-data";

type TakeOutProps = {
  /** The record that is taken out; null for what the tray has of the words. */
  readonly code: string | null;
  /** The words that it is to have; empty for all of a record. */
  readonly text: string;
  readonly everywhere?: boolean;
  readonly onOrdered?: () => void;
};

/** Has mail packed into a zip, with its documents, printed, and with an index; how far it is stands in the corner. */
export function ExportDialog({ code, text, everywhere = false, onOrdered }: TakeOutProps) {
  const say = useSay(recordsTexts);
  const { tray } = useTray();
  const { Form, data, state } = useFetcher<ZipExportOutcome>();
  useOutcome(data, (ordered) => {
    if (!ordered.ok) return;
    notice(say("records.exportStartedItsProgressIs"));
    onOrdered?.();
  });
  return (
    <Form
      method="post"
      action={`/${tray.slug}/zip-exports`}
      className="flex flex-wrap items-center gap-x-4 gap-y-1.5 pt-2 text-sm"
    >
      <input type="hidden" name="do" value="order" />
      <input type="hidden" name="code" value={code ?? ""} />
      {code === null && <input type="hidden" name="text" value={text} />}
      {everywhere && <input type="hidden" name="everywhere" value="on" />}
      {code !== null && text !== "" && (
        <Tick name="text" value={text} defaultChecked>
          {say("records.onlyWhatHas", { text })}
        </Tick>
      )}
      <Tick name="mbox">{say("records.allMessagesAsOneMbox")}</Tick>
      <Tick name="notes">{say("records.notesInWhatIsPrinted")}</Tick>
      <Button type="submit" disabled={state !== "idle"}>
        {state === "idle" ? say("records.exportAsZip") : say("records.preparing")}
      </Button>
      {data?.ok === false && (
        <p role="alert" className="w-full text-late">
          {data.problem}
        </p>
      )}
    </Form>
  );
}
