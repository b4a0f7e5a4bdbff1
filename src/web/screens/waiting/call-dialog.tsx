import { useEffect } from "react";
import { useFetcher } from "react-router";
import { waitingTexts } from "../../../texts/en/waiting";
import type { loader as callScript } from "../../routes/conversation/call-script";
import { useSay } from "../../ui/texts/use-say";
import type { DialogProps } from "../deciding/dialog-props";
import { NoteDialog } from "../deciding/note-dialog";
import { useTray } from "../frame/tray-data";

/** Telephoning instead of waiting: a note with the number and what to ask, to write down what was said. */
export function CallDialog(props: DialogProps) {
  const say = useSay(waitingTexts);
  const { tray } = useTray();
  const { load, data } = useFetcher<typeof callScript>();
  const id = props.target.rows[0]?.id ?? "";
  useEffect(() => {
    void load(`/${tray.slug}/call-script/${id}`);
  }, [load, tray.slug, id]);
  return data === undefined ? null : <NoteDialog {...props} title={say("waiting.noteOfACall")} start={data.text} />;
}
