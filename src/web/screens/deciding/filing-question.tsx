import { useState } from "react";
import { useFetcher } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { decidingTexts } from "../../../texts/en/deciding";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { useSay } from "../../ui/texts/use-say";
import { Tick } from "../../ui/tick";
import { useTray } from "../frame/tray-data";

/** Asks what becomes of what was dropped on a record, which can be remembered. */
export default function FilingQuestion({
  code,
  onChoose,
  onClose,
}: {
  code: string;
  onChoose: (settle: boolean) => void;
  onClose: () => void;
}) {
  const say = useSay(decidingTexts, commonTexts);
  const { tray } = useTray();
  const fetcher = useFetcher();
  const [remember, setRemember] = useState(true);
  const choose = (settle: boolean) => {
    const value = JSON.stringify(settle ? "file-and-settle" : "file");
    if (remember)
      void fetcher.submit({ name: "drop-on-record", value }, { method: "post", action: `/${tray.slug}/settings` });
    onChoose(settle);
  };
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title={say("deciding.fileTo", { code })}
      description={say("deciding.isItSettledWithThat")}
    >
      <div className="space-y-3 p-4">
        <div className="flex gap-2">
          <Button look="filled" onClick={() => choose(true)}>
            {say("common.fileAndSettle")}
          </Button>
          <Button onClick={() => choose(false)}>{say("deciding.fileAndLeaveItWhere")}</Button>
        </div>
        <Tick checked={remember} onTick={setRemember}>
          {say("deciding.doThisFromNowOn")}
        </Tick>
      </div>
    </Dialog>
  );
}
