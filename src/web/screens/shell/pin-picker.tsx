import { useEffect, useState } from "react";
import { useFetcher } from "react-router";
import { shellTexts } from "../../../texts/en/shell";
import type { loader as recordChoices } from "../../routes/records/record-choices";
import { CategoryTab } from "../../ui/category-tab";
import { noticeProblem } from "../../ui/notices";
import { Picker } from "../../ui/picker";
import { useSay } from "../../ui/texts/use-say";
import { OwnerBadge } from "../frame/owner-badge";
import { useShelf, useTray } from "../frame/tray-data";

/** Picks a record, category, colleague or saved view for the shelf. */
export default function PinPicker({ onClose }: { onClose: () => void }) {
  const say = useSay(shellTexts);
  const { tray, categories, members, savedViews } = useTray();
  const shelf = useShelf();
  const { load, data: answer } = useFetcher<typeof recordChoices>();
  const records = answer?.records;
  const pinning = useFetcher<{ problem: string | null }>();
  const [text, setText] = useState("");
  useEffect(() => {
    void load(`/${tray.slug}/record-choices?${new URLSearchParams({ text })}`);
  }, [load, tray.slug, text]);
  useEffect(() => {
    if (pinning.state !== "idle" || pinning.data === undefined) return;
    if (pinning.data.problem !== null) noticeProblem(pinning.data.problem);
    else onClose();
  }, [pinning.state, pinning.data, onClose]);
  const isThere = (kind: string, target: string) =>
    shelf.some((place) => place.kind === kind && place.target === target);
  const fits = (words: string) => words.toLowerCase().includes(text.trim().toLowerCase());
  const choices = [
    ...savedViews.map(({ id, name }) => ({
      id: `view ${id}`,
      words: name,
      face: (
        <>
          {name} <span className="pl-2 text-sm text-soft">{say("shell.savedView")}</span>
        </>
      ),
    })),
    ...categories.map(({ id, code, name, ink }) => ({
      id: `category ${id}`,
      words: `${code} ${name}`,
      face: <CategoryTab code={code} name={name} ink={ink} />,
    })),
    ...members.map(({ id, name }) => ({
      id: `member ${id}`,
      words: name,
      face: (
        <span className="flex items-center gap-3">
          <OwnerBadge ownerId={id} /> {name}
        </span>
      ),
    })),
  ].filter(({ words }) => fits(words));
  const found = (records ?? []).map(({ id, code, title }) => ({
    id: `record ${id}`,
    words: `${code} ${title}`,
    face: (
      <>
        <span className="inline-block w-[84px] text-sm text-soft">{code}</span>
        <span className="font-serif">{title}</span>
      </>
    ),
  }));
  return (
    <Picker
      title={say("shell.pinAPlaceToThe")}
      prompt={say("shell.typeARecordCategoryColleague")}
      empty={say("shell.nothingHasThatName")}
      onType={setText}
      choices={[...found, ...choices].map((choice) => {
        const [kind = "", target = ""] = choice.id.split(" ");
        return { ...choice, on: isThere(kind, target) };
      })}
      onPick={(id) => {
        const [kind = "", target = ""] = id.split(" ");
        void pinning.submit({ do: "pin", kind, target }, { method: "post", action: `/${tray.slug}/shelf` });
      }}
      onClose={onClose}
    />
  );
}
