import { useEffect, useState } from "react";
import { useFetcher } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { listTexts } from "../../../texts/en/list";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { Field } from "../../ui/field";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";

type SaveViewDialogProps = { readonly scope: string; readonly query: string; readonly onClose: () => void };

/** Keeps a filtered list under a name, on the shelf and in the command field. */
export default function SaveViewDialog({ scope, query, onClose }: SaveViewDialogProps) {
  const say = useSay(listTexts, commonTexts);
  const { tray } = useTray();
  const fetcher = useFetcher<{ problem: string | null }>();
  const [name, setName] = useState("");
  useEffect(() => {
    if (fetcher.state === "idle" && fetcher.data?.problem === null) onClose();
  }, [fetcher.state, fetcher.data, onClose]);
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title={say("list.saveThisView")}
      description={say("list.itStandsOnYourShelf")}
    >
      <form
        className="flex items-end gap-2 p-4"
        onSubmit={(event) => {
          event.preventDefault();
          void fetcher.submit(
            { do: "save-view", name, scope, query },
            { method: "post", action: `/${tray.slug}/shelf` },
          );
        }}
      >
        <Field
          className="flex-1"
          label={say("common.name")}
          autoFocus
          value={name}
          onChange={(event) => setName(event.target.value)}
          problem={fetcher.data?.problem ?? undefined}
        />
        <Button type="submit" look="filled" className="h-9">
          {say("common.save")}
        </Button>
      </form>
    </Dialog>
  );
}
