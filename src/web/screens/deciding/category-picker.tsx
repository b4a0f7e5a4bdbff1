import { useMemo, useState } from "react";
import { pathInWords } from "../../../core/categories/category-tree";
import { type CategoryId, trustedId } from "../../../core/kernel/ids";
import { commonTexts } from "../../../texts/en/common";
import { decidingTexts } from "../../../texts/en/deciding";
import { Button, KeyCap } from "../../ui/button";
import { CategoryTab } from "../../ui/category-tab";
import { Picker } from "../../ui/picker";
import { useSay } from "../../ui/texts/use-say";
import { notePick, recentPicks } from "../frame/recent-picks";
import { useTray } from "../frame/tray-data";
import type { DialogProps } from "./dialog-props";
import { useCategoryChange } from "./use-category-change";

const CLEAR = "clear";

/** Gives and takes categories, several one after the other; creates one of the typed name where one may. */
export function CategoryPicker({ target, onDecide, onClose }: DialogProps) {
  const say = useSay(decidingTexts, commonTexts);
  const { categories, mayAddCategories } = useTray();
  const [text, setText] = useState("");
  const name = text.trim().replaceAll(/\s+/g, " ");
  // Once for the time that it is open: what one has just picked does not jump away under the next key.
  const recent = useMemo(() => recentPicks("category"), []);
  const [creating, setCreating] = useState("");
  const { post, isBusy } = useCategoryChange(({ created }) => {
    if (created !== null) give(created, true, creating);
  });
  const given = (id: string) => target.rows.filter(({ categoryIds }) => categoryIds.some((one) => one === id)).length;
  const isOnAll = (id: string) => target.everything === null && given(id) === target.rows.length;
  const give = (id: string, gives: boolean, own?: string) => {
    if (gives) notePick("category", id);
    onDecide({
      kind: "categorise",
      categoryId: trustedId<CategoryId>(id),
      give: gives,
      ...(own === undefined ? {} : { called: own }),
    });
  };
  // What is retired can be taken off, and no longer given; what is found by name only waits until one types.
  const offered = categories.filter(
    ({ id, retired, listed }) => given(id) > 0 || (!retired && (listed !== "never" || text !== "")),
  );
  const known = recent.flatMap((id) => offered.find((category) => category.id === id) ?? []);
  const ordered = [...known, ...offered.filter(({ id }) => !recent.includes(id))];
  const onAny = categories.filter(({ id }) => given(id) > 0);
  const isNew = name !== "" && !categories.some((one) => one.name.toLowerCase() === name.toLowerCase());
  return (
    <Picker
      title={say("common.categories")}
      prompt={say("deciding.typeACategorySName")}
      empty={say("deciding.thereIsNoSuchCategory")}
      onText={setText}
      choices={ordered.map(({ id, code, name: own, ink, key, path, depth, retired }) => ({
        id,
        words: `${code} ${path.join(" ")}`,
        on: isOnAll(id) ? true : given(id) > 0 ? "some" : false,
        face: (
          <span
            className="flex items-center gap-2"
            style={{ paddingLeft: text === "" && !recent.includes(id) ? depth * 20 : 0 }}
          >
            <CategoryTab code={code} name={own} ink={ink} retired={retired} />
            {(text !== "" || recent.includes(id)) && path.length > 1 && (
              <span className="truncate text-sm text-soft">{pathInWords(path.slice(0, -1))}</span>
            )}
            {key !== null && (
              <span className="ml-auto text-soft">
                <KeyCap>{`g ${key}`}</KeyCap>
              </span>
            )}
          </span>
        ),
      }))}
      always={[
        ...(isNew && mayAddCategories && !isBusy
          ? [
              {
                id: "create",
                words: name,
                face: <span className="font-semibold text-act">{say("deciding.createAndAddIt", { name })}</span>,
              },
            ]
          : []),
        ...(onAny.length > 1 && target.everything === null && text === ""
          ? [
              {
                id: CLEAR,
                words: say("deciding.clearAll"),
                face: <span className="text-soft">{say("deciding.removeAll", { count: onAny.length })}</span>,
              },
            ]
          : []),
      ]}
      onPick={(id) => {
        if (id === "create") {
          setCreating(name);
          post({ do: "create", name, ink: "slate" });
        } else if (id === CLEAR) for (const one of onAny) give(one.id, false);
        else give(id, !isOnAll(id));
      }}
      onClose={onClose}
      footer={
        <span className="flex items-center justify-between">
          <span className="text-sm text-soft">{say("deciding.severalCanBeAddedOne")}</span>
          <Button onClick={onClose}>{say("common.done")}</Button>
        </span>
      }
    />
  );
}
