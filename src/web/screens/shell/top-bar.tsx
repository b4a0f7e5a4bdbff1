import { ChevronDown, ChevronsUpDown, Layers, LogOut, PenLine, Search } from "lucide-react";
import { type ReactNode, useRef } from "react";
import { Form, Link, NavLink, useNavigate, useParams, useSearchParams, useSubmit } from "react-router";
import { MINE, THEIRS, WITHOUT } from "../../../core/lists/filter";
import { isScope } from "../../../core/lists/scope";
import { commonTexts } from "../../../texts/en/common";
import { shellTexts } from "../../../texts/en/shell";
import { CommandKey } from "../../keys/command-key";
import { useCommands, useGo, useKeyOf } from "../../keys/key-desk";
import { loadOnFirstInteraction } from "../../ui/load-on-first-interaction";
import { Logo } from "../../ui/logo";
import { MemberBadge } from "../../ui/member-badge";
import { MENU, MENU_ITEM } from "../../ui/menu-look";
import { MenuTrigger } from "../../ui/menu-trigger";
import { useSay } from "../../ui/texts/use-say";
import { Bell } from "./bell";

type TopBarProps = {
  readonly tray: { readonly slug: string; readonly address: string };
  readonly trays: readonly { readonly slug: string; readonly address: string }[];
  readonly member: { readonly name: string; readonly initials: string };
  /** Whether the member decides here and does not only read. */
  readonly mayDecide: boolean;
};

// Fetched with the first thing that somebody does: what stands in a menu is not needed to draw the page.
const places = loadOnFirstInteraction(() =>
  import("./tray-menus").then(({ DayMenuItems, MemberMenuItems }) => ({ DayMenuItems, MemberMenuItems })),
);

/** Name, tray switch, search, the pages of the day's work, and who is signed in. */
export function TopBar({ tray, trays, member, mayDecide }: TopBarProps) {
  const say = useSay(shellTexts, commonTexts);
  const go = useGo();
  const keyName = useKeyOf();
  const [params] = useSearchParams();
  const field = useRef<HTMLInputElement>(null);
  const { standing } = useParams();
  // In the list where one is; pressed again, everything is there again.
  const owned = (whose: string) => () => {
    const list = `/${tray.slug}/${standing !== undefined && isScope(standing) ? standing : "open"}`;
    go(params.get("owner") === whose ? list : `${list}?owner=${whose}`);
  };
  useCommands({
    search: () => field.current?.select(),
    "sort-run": () => go(`/${tray.slug}/sort-run/to-sort`),
    ...(mayDecide ? { write: () => go(`/${tray.slug}/write`) } : {}),
    notifications: () => go(`/${tray.slug}/notifications`),
    mine: owned(MINE),
    nobodys: owned(WITHOUT),
    theirs: owned(THEIRS),
  });
  return (
    <header className="flex h-11 shrink-0 items-center gap-2 px-4 sm:gap-3.5">
      <Link
        to={`/${tray.slug}/to-sort`}
        aria-label={say("shell.commonTray")}
        className="flex items-center gap-2 font-serif text-[17px] font-semibold"
      >
        <Logo />
        <span className="hidden lg:inline">{say("shell.commonTray")}</span>
      </Link>
      <span className="hidden h-6 border-l border-rule lg:block" />
      <TraySwitch address={tray.address} trays={trays} />
      <Link
        to={`/${tray.slug}/search`}
        aria-label={say("common.search")}
        className="ml-auto grid size-9 shrink-0 place-items-center rounded-control text-soft hover:text-ink sm:hidden"
      >
        <Search size={18} aria-hidden />
      </Link>
      <Form
        action={`/${tray.slug}/search`}
        role="search"
        className="relative ml-auto hidden min-w-0 flex-1 sm:block sm:max-w-[360px]"
      >
        <Search size={15} aria-hidden className="absolute top-2 left-2.5 text-soft" />
        <input
          ref={field}
          type="search"
          name="q"
          aria-label={say("shell.searchThisTray")}
          aria-keyshortcuts={keyName("search")}
          placeholder={say("shell.searchPeopleAndWords")}
          defaultValue={params.get("q") ?? ""}
          key={params.get("q") ?? ""}
          // The browser takes the text away; the keys are those of the screen again.
          onKeyDown={(event) => event.key === "Escape" && event.currentTarget.blur()}
          className="h-[30px] w-full min-w-0 rounded-control border border-rule bg-paper pr-1.5 pl-8 placeholder:text-soft sm:pr-8"
        />
        <span className="absolute top-[7px] right-2 hidden text-soft sm:block">
          <CommandKey id="search" />
        </span>
      </Form>
      <Link
        to={`/${tray.slug}/sort-run/to-sort`}
        aria-label={say("shell.sortRun")}
        aria-keyshortcuts={keyName("sort-run")}
        className="hidden h-8 shrink-0 items-center gap-2 rounded-control border border-act px-3 font-semibold text-act hover:bg-act-soft sm:flex"
      >
        <Layers size={15} aria-hidden />
        {say("shell.sortRun")}
        <CommandKey id="sort-run" />
      </Link>
      {mayDecide && (
        <Link
          to={`/${tray.slug}/write`}
          aria-label={say("shell.write")}
          aria-keyshortcuts={keyName("write")}
          className="flex h-8 shrink-0 items-center gap-2 rounded-control border border-rule px-3 font-semibold hover:border-act hover:text-act max-sm:border-transparent max-sm:px-2"
        >
          <PenLine size={15} aria-hidden />
          <span className="max-lg:hidden">{say("shell.write")}</span>
          <CommandKey id="write" />
        </Link>
      )}
      <nav aria-label={say("shell.pages")} className="flex shrink-0 items-center gap-1">
        <PageLink to={`/${tray.slug}/records`}>{say("common.records")}</PageLink>
        <PageLink to={`/${tray.slug}/follow-ups`}>{say("shell.followUps")}</PageLink>
        <DayMenu slug={tray.slug} />
      </nav>
      <Bell />
      <MemberMenu slug={tray.slug} member={member} />
    </header>
  );
}

const PAGE_LINK = "flex h-8 items-center gap-1 rounded-control px-2 font-semibold hover:bg-sunk";

function PageLink({ to, children }: { readonly to: string; readonly children: ReactNode }) {
  return (
    <NavLink to={to} className={({ isActive }) => `${PAGE_LINK} max-md:hidden ${isActive ? "text-act" : ""}`}>
      {children}
    </NavLink>
  );
}

/** Everything else that the day's work needs, by name. */
function DayMenu({ slug }: { readonly slug: string }) {
  const say = useSay(shellTexts);
  const loaded = places.use();
  const face = (
    <>
      {say("shell.goTo")} <ChevronDown size={14} aria-hidden className="text-soft" />
    </>
  );
  return (
    <MenuTrigger
      className={PAGE_LINK}
      menu={({ DropdownMenu }, isOpen) => (
        <DropdownMenu.Root defaultOpen={isOpen}>
          <DropdownMenu.Trigger className={PAGE_LINK}>{face}</DropdownMenu.Trigger>
          <DropdownMenu.Portal>
            <DropdownMenu.Content className={`${MENU} max-h-[calc(100dvh-60px)] w-80 overflow-y-auto`} align="end">
              {loaded !== null && <loaded.DayMenuItems slug={slug} />}
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
      )}
    >
      {face}
    </MenuTrigger>
  );
}

const SWITCH = "flex h-8 min-w-0 items-center gap-1.5 rounded-control px-1 text-soft hover:text-ink";

function TraySwitch({ address, trays }: { address: string; trays: TopBarProps["trays"] }) {
  const say = useSay(shellTexts);
  const navigate = useNavigate();
  const face = (
    <>
      <span className="truncate">{address}</span>
      <ChevronsUpDown size={14} aria-label={say("shell.switchTray")} className="shrink-0" />
    </>
  );
  return (
    <MenuTrigger
      className={SWITCH}
      menu={({ DropdownMenu }, isOpen) => (
        <DropdownMenu.Root defaultOpen={isOpen}>
          <DropdownMenu.Trigger className={SWITCH}>{face}</DropdownMenu.Trigger>
          <DropdownMenu.Portal>
            <DropdownMenu.Content className={MENU} align="start">
              {trays.map((other) => (
                <DropdownMenu.Item
                  key={other.slug}
                  className={MENU_ITEM}
                  onSelect={() => navigate(`/${other.slug}/to-sort`)}
                >
                  {other.address}
                </DropdownMenu.Item>
              ))}
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
      )}
    >
      {face}
    </MenuTrigger>
  );
}

function MemberMenu({ slug, member }: { slug: string; member: TopBarProps["member"] }) {
  const say = useSay(shellTexts);
  const submit = useSubmit();
  const loaded = places.use();
  const trigger = {
    className: "flex h-8 items-center rounded-control px-0.5",
    "aria-label": say("shell.signedInAs", { name: member.name }),
    children: <MemberBadge initials={member.initials} name={member.name} own />,
  };
  return (
    <MenuTrigger
      {...trigger}
      menu={({ DropdownMenu }, isOpen) => (
        <DropdownMenu.Root defaultOpen={isOpen}>
          <DropdownMenu.Trigger {...trigger} />
          <DropdownMenu.Portal>
            <DropdownMenu.Content className={MENU} align="end">
              <DropdownMenu.Label className="px-3 py-1.5 text-soft">{member.name}</DropdownMenu.Label>
              {loaded !== null && <loaded.MemberMenuItems slug={slug} />}
              <DropdownMenu.Separator className="my-1 border-t border-hair" />
              <DropdownMenu.Item
                className={`${MENU_ITEM} gap-2`}
                onSelect={() => submit(null, { method: "post", action: "/sign-out" })}
              >
                <LogOut size={14} aria-hidden /> {say("shell.signOut")}
              </DropdownMenu.Item>
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
      )}
    />
  );
}
