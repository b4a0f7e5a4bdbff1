import { Search } from "lucide-react";
import { type KeyboardEvent, useState } from "react";
import { NavLink } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { shellTexts } from "../../../texts/en/shell";
import { useGo } from "../../keys/key-desk";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";
import { OWN_SETTINGS, pagesFor, type SaidPage, saidPages, TRAY_SETTINGS } from "./tray-pages";

const GROUPS = [
  ["shell.thisTray", TRAY_SETTINGS],
  ["common.you", OWN_SETTINGS],
] as const;

type FoundPage = SaidPage & {
  /** What was found on it that its name does not say. */
  readonly found: readonly string[];
};

const has = (text: string, words: readonly string[]) => words.every((word) => text.toLowerCase().includes(word));

// A page is found by its name and line, or by a thing that stands on it.
function matching(pages: readonly SaidPage[], words: readonly string[]): FoundPage[] {
  return pages.flatMap((page) => {
    const found = words.length === 0 ? [] : page.also.filter((one) => has(one, words));
    return found.length > 0 || has(`${page.name} ${page.about}`, words) ? [{ ...page, found }] : [];
  });
}

type Settings = {
  readonly text: string;
  readonly setText: (text: string) => void;
  readonly groups: readonly (readonly [name: string, pages: readonly FoundPage[]])[];
};

/** The pages of settings, and those among them that fit what is typed. */
export function useSettings(): Settings {
  const say = useSay(shellTexts, commonTexts);
  const { mayLead } = useTray();
  const [text, setText] = useState("");
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const groups = GROUPS.map(
    ([name, pages]) => [say(name), matching(saidPages(say, pagesFor(pages, mayLead)), words)] as const,
  );
  return { text, setText, groups: groups.filter(([, pages]) => pages.length > 0) };
}

/** The field that finds a setting; Enter opens the first page that fits. */
export function FindSetting({ text, setText, groups }: Settings) {
  const say = useSay(shellTexts);
  const { tray } = useTray();
  const go = useGo();
  const press = (event: KeyboardEvent) => {
    const [first] = groups[0]?.[1] ?? [];
    if (event.key === "Enter" && first !== undefined) go(`/${tray.slug}/${first.path}`);
    else if (event.key === "Escape" && text !== "") setText("");
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <search className="relative block">
      <Search size={14} aria-hidden className="absolute top-2.5 left-2.5 text-soft" />
      <input
        type="search"
        aria-label={say("shell.findASetting")}
        placeholder={say("shell.findASetting")}
        value={text}
        onChange={(event) => setText(event.target.value)}
        onKeyDown={press}
        className="h-8 w-full rounded-control border border-rule bg-paper pr-2 pl-8 placeholder:text-soft"
      />
    </search>
  );
}

/** All settings by name, at the side of each of their pages. */
export function SettingsIndex() {
  const say = useSay(shellTexts);
  const settings = useSettings();
  const { tray } = useTray();
  return (
    <nav
      aria-label={say("shell.settings")}
      className="mt-2.5 ml-4 w-[226px] shrink-0 overflow-y-auto rounded-tl-sheet border border-r-0 border-b-0 border-rule bg-sunk/60 px-2.5 py-3 [scrollbar-width:thin] max-md:hidden"
    >
      <p className="px-2 pb-2 font-serif text-xl">
        <NavLink to={`/${tray.slug}/settings`} className="hover:underline">
          {say("shell.settings")}
        </NavLink>
      </p>
      <div className="px-2 pb-1">
        <FindSetting {...settings} />
      </div>
      {settings.groups.length === 0 && <NoSetting />}
      {settings.groups.map(([group, pages]) => (
        <section key={group} aria-label={group}>
          <h2 className="px-2 pt-2.5 pb-0.5 text-sm font-semibold text-soft">{group}</h2>
          <ul>
            {pages.map(({ path, name, found }) => (
              <li key={path}>
                <NavLink
                  to={`/${tray.slug}/${path}`}
                  className={({ isActive }) =>
                    `block rounded-control border-l-2 px-2 py-[3px] ${isActive ? "border-act bg-paper font-semibold" : "border-transparent hover:bg-paper/70"}`
                  }
                >
                  {name}
                  {found.length > 0 && <span className="block text-sm font-normal text-soft">{found.join(", ")}</span>}
                </NavLink>
              </li>
            ))}
          </ul>
        </section>
      ))}
    </nav>
  );
}

export function NoSetting() {
  const say = useSay(shellTexts);
  return <p className="px-2 py-3 text-soft">{say("shell.noSettingMatches")}</p>;
}
