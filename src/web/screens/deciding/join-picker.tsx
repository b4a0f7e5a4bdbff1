import { useEffect, useState } from "react";
import { useFetcher } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { decidingTexts } from "../../../texts/en/deciding";
import type { action as join, loader as joinChoices } from "../../routes/deciding/join";
import type { RowView } from "../../server/base/row-view.server";
import { notice, noticeProblem } from "../../ui/notices";
import { Picker } from "../../ui/picker";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";

/** Finds the conversation that belongs to this one. */
export function JoinPicker({ row, onClose }: { row: RowView; onClose: () => void }) {
  const say = useSay(decidingTexts, commonTexts);
  const { tray } = useTray();
  const { load, data, state } = useFetcher<typeof joinChoices>();
  const joining = useFetcher<typeof join>();
  const [text, setText] = useState(row.subject);
  const address = `/${tray.slug}/join/${row.id}`;
  useEffect(() => {
    void load(`${address}?${new URLSearchParams({ q: text })}`);
  }, [load, address, text]);
  const done = joining.data;
  useEffect(() => {
    if (done === undefined) return;
    if (done.problem === null) notice(say("common.mergedUndoIsInThe"));
    else noticeProblem(done.problem);
    onClose();
  }, [done, onClose, say]);
  return (
    <Picker
      title={say("deciding.mergeWithAnotherConversation")}
      prompt={say("deciding.typeWordsOfItsSubject")}
      empty={state === "idle" ? say("deciding.noOtherConversationHasThese") : say("common.searching")}
      onType={(typed) => setText(typed.trim() === "" ? row.subject : typed)}
      choices={(data?.choices ?? []).map(({ id, subject, who }) => ({
        id,
        words: subject,
        face: (
          <>
            <span className="font-serif">{subject || say("common.noSubject")}</span>
            <span className="pl-2 text-sm text-soft">{who}</span>
          </>
        ),
      }))}
      onPick={(other) => joining.submit({ other }, { method: "post", action: address })}
      onClose={onClose}
    />
  );
}
