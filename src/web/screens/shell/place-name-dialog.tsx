import { useEffect, useState } from "react";
import { useFetcher } from "react-router";
import type { ShelfPlace } from "../../../operations/index.server";
import { commonTexts } from "../../../texts/en/common";
import { shellTexts } from "../../../texts/en/shell";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { Field } from "../../ui/field";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";

/** Names a place for oneself, without renaming what it stands for. */
export default function PlaceNameDialog({ place, onClose }: { place: ShelfPlace; onClose: () => void }) {
  const say = useSay(shellTexts, commonTexts);
  const { tray } = useTray();
  const fetcher = useFetcher<{ problem: string | null }>();
  const [name, setName] = useState(place.name);
  const [folder, setFolder] = useState(place.folder);
  useEffect(() => {
    if (fetcher.state === "idle" && fetcher.data?.problem === null) onClose();
  }, [fetcher.state, fetcher.data, onClose]);
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title={say("shell.nameOfThePlace")}
      description={say("shell.itStandsFor", { title: place.title })}
    >
      <form
        className="space-y-3 p-4"
        onSubmit={(event) => {
          event.preventDefault();
          void fetcher.submit(
            { do: "name", id: place.id, name, folder },
            { method: "post", action: `/${tray.slug}/shelf` },
          );
        }}
      >
        <Field
          label={say("common.name")}
          value={name}
          placeholder={place.title}
          onChange={(event) => setName(event.target.value)}
          problem={fetcher.data?.problem ?? undefined}
        />
        <Field
          label={say("shell.folder")}
          value={folder}
          onChange={(event) => setFolder(event.target.value)}
          maxLength={30}
        />
        <div className="text-end">
          <Button type="submit" look="filled">
            {say("common.save")}
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
