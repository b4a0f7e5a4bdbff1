import { Command } from "cmdk";
import { type ReactNode, useEffect, useMemo, useState } from "react";
import { useFetcher } from "react-router";
import { scopeName } from "../../../core/lists/scope";
import { FLOW } from "../../../core/standing/standing";
import { commonTexts } from "../../../texts/en/common";
import { keysTexts } from "../../../texts/en/keys";
import { shellTexts } from "../../../texts/en/shell";
import { COMMANDS, type CommandId, keyCap } from "../../keys/commands";
import { useGo, useKeyDesk, useKeyOf } from "../../keys/key-desk";
import type { loader as recordChoices } from "../../routes/records/record-choices";
import { CategoryTab } from "../../ui/category-tab";
import { Dialog } from "../../ui/dialog";
import { entryValue, matchWords } from "../../ui/match-words";
import { useSay } from "../../ui/texts/use-say";
import { OwnerBadge } from "../frame/owner-badge";
import { notePick, recentPicks } from "../frame/recent-picks";
import { useTray } from "../frame/tray-data";
import { DAY_PAGES, OWN_SETTINGS, pagesFor, TRAY_SETTINGS, type TrayPage } from "./tray-pages";

type Entry = {
  readonly id: string;
  readonly group: string;
  readonly words: string;
  readonly face: ReactNode;
  readonly keyName?: string;
  readonly run: () => void;
};

const SCOPES = ["open", ...FLOW] as const;
// Those that no menu names.
const OTHER_PAGES: readonly Omit<TrayPage, "about">[] = [
  { path: "loose-ends", name: "shell.looseEndsPage", also: "shell.looseEndsAlso" },
  { path: "notifications", name: "shell.notificationsWhatThereIs", also: "shell.notificationsAlso" },
  { path: "settings", name: "shell.settings", also: "shell.settingsAlso" },
];

/** Everything by name: what can be done here, lists, records, categories, colleagues; what was used last on top. */
export default function CommandField({ onClose }: { onClose: () => void }) {
  const say = useSay(shellTexts, commonTexts, keysTexts);
  const { tray, categories, members, savedViews, mayLead } = useTray();
  const goTo = useGo();
  const desk = useKeyDesk();
  const keyName = useKeyOf();
  const [text, setText] = useState("");
  const { load, data: found } = useFetcher<typeof recordChoices>();
  const records = found?.records;
  useEffect(() => {
    void load(`/${tray.slug}/record-choices?${new URLSearchParams({ text })}`);
  }, [load, tray.slug, text]);
  // As it was when the field opened: the screen below keeps its commands, but the focus is here now.
  const available = useMemo(() => desk.available(), [desk]);
  const recent = useMemo(() => recentPicks("command"), []);
  const go = (path: string) => () => goTo(`/${tray.slug}/${path}`);
  const pages = [...DAY_PAGES, ...OTHER_PAGES, ...pagesFor([...TRAY_SETTINGS, ...OWN_SETTINGS], mayLead)].map(
    ({ path, name, also }) => ({ path, name: say(name), also: say(also).replaceAll(",", "") }),
  );
  const entries: Entry[] = [
    ...[...available]
      .filter(([id]) => id !== "commands")
      .map(([id, run]: readonly [CommandId, () => void]) => ({
        id: `do ${id}`,
        group: say("shell.do"),
        words: say(COMMANDS[id].name),
        face: say(COMMANDS[id].name),
        keyName: keyCap(keyName(id)),
        run,
      })),
    ...SCOPES.map((scope) => ({
      id: `list ${scope}`,
      group: say("shell.lists"),
      words: say(scopeName(scope)),
      face: say(scopeName(scope)),
      run: go(scope),
    })),
    ...savedViews.map(({ id, name, scope, query }) => ({
      id: `view ${id}`,
      group: say("shell.lists"),
      words: name,
      face: name,
      run: go(`${scope}?${query}`),
    })),
    ...pages.map(({ path, name, also }) => ({
      id: `page ${path}`,
      group: say("shell.pages"),
      words: `${name} ${also}`,
      face: name,
      run: go(path),
    })),
    ...categories.map(({ id, code, name, ink, path, retired }) => ({
      id: `category ${id}`,
      group: say("common.categories"),
      words: `${code} ${path.join(" ")}`,
      face: <CategoryTab code={code} name={name} ink={ink} retired={retired} />,
      run: go(`categories/${id}`),
    })),
    ...members.map(({ id, name }) => ({
      id: `member ${id}`,
      group: say("common.colleagues"),
      words: name,
      face: (
        <span className="flex items-center gap-3">
          <OwnerBadge ownerId={id} /> {name}
        </span>
      ),
      run: go(`open?owner=${id}`),
    })),
    ...(records ?? []).map(({ id, code, title }) => ({
      id: `record ${id}`,
      group: say("common.records"),
      words: `${code} ${title}`,
      face: (
        <>
          <span className="inline-block w-[84px] text-sm text-soft">{code}</span>
          <span className="font-serif">{title}</span>
        </>
      ),
      run: go(`records/${encodeURIComponent(code)}`),
    })),
  ];
  const lately = recent.flatMap((id) => entries.find((entry) => entry.id === id) ?? []);
  const others = entries.filter(({ id }) => text !== "" || !recent.includes(id));
  const shown =
    text === "" ? [...lately.map((entry) => ({ ...entry, group: say("shell.usedLast") })), ...others] : others;
  const groups = [...new Set(shown.map(({ group }) => group))];
  const run = (entry: Entry) => {
    notePick("command", entry.id);
    onClose();
    // The dialog gives the focus back first; what is done may open another one.
    setTimeout(entry.run, 0);
  };
  return (
    <Dialog open onOpenChange={(open) => !open && onClose()} title={say("shell.commandField")} size="wide">
      <Command label={say("shell.commandField")} filter={matchWords} loop className="flex min-h-0 flex-col">
        <Command.Input
          autoFocus
          value={text}
          onValueChange={setText}
          placeholder={say("shell.whatToDoOrWhere")}
          className="mx-4 my-3 h-9 rounded-control border border-rule bg-ground px-2.5 placeholder:text-soft"
        />
        <Command.List className="min-h-0 overflow-y-auto border-t border-hair py-1">
          <Command.Empty className="px-4 py-3 text-soft">{say("shell.nothingHereHasThatName")}</Command.Empty>
          {groups.map((group) => (
            <Command.Group
              key={group}
              heading={group}
              className="[&_[cmdk-group-heading]]:px-4 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:pb-0.5 [&_[cmdk-group-heading]]:text-xs [&_[cmdk-group-heading]]:text-soft"
            >
              {shown
                .filter((entry) => entry.group === group)
                .map((entry) => (
                  <Command.Item
                    key={entry.id}
                    value={entryValue(entry.words, entry.id)}
                    onSelect={() => run(entry)}
                    className="flex cursor-pointer items-center gap-3 px-4 py-1.5 data-[selected=true]:bg-act-soft"
                  >
                    <span className="min-w-0 flex-1 truncate">{entry.face}</span>
                    {entry.keyName !== undefined && (
                      <kbd className="rounded-[2px] border border-rule px-1.5 font-sans text-xs text-soft">
                        {entry.keyName}
                      </kbd>
                    )}
                  </Command.Item>
                ))}
            </Command.Group>
          ))}
        </Command.List>
      </Command>
    </Dialog>
  );
}
