import {
  createContext,
  type ReactNode,
  Suspense,
  useCallback,
  useContext,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
} from "react";
import { type NavigateOptions, useLocation, useNavigate, useNavigation } from "react-router";
import { COMMANDS, type CommandId, commandsOfKey, type KeyChoices, keyOf } from "./commands";
import { heldKeys, TYPING } from "./held-keys";

/** What the commands of a screen do; one that is undefined cannot be done now. */
export type Handlers = { readonly [Id in CommandId]?: (() => void) | undefined };

type Registered = { readonly current: Handlers };

type KeyDesk = {
  readonly chosen: KeyChoices;
  readonly register: (handlers: Registered) => () => void;
  /** What can be done now, by command; of several who offer the same, the one that came last. */
  readonly available: () => ReadonlyMap<CommandId, () => void>;
  /** Keys belong to something that opens until the function that comes back is called. */
  readonly awaitOpening: () => () => void;
  /** Keys belong to the page that this leads to. */
  readonly awaitPage: (going: () => Promise<void> | void) => Promise<void>;
};

const KeyContext = createContext<KeyDesk | null>(null);

// Enter and the space bar work what has the focus; only elsewhere they are keys of the screen.
const WORKED_BY_ENTER = "button, summary, a[href]:not([data-row])";

/** True for a key that is meant for the screen: not for a text, a dialog, the browser, or a control that has the focus. */
function isForScreen(event: KeyboardEvent): boolean {
  if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return false;
  if (document.querySelector("[role=dialog], [role=menu]") !== null) return false;
  const target = event.target instanceof Element ? event.target : null;
  if (target === null) return true;
  return target.closest(TYPING) === null && (event.key !== "Enter" || target.closest(WORKED_BY_ENTER) === null);
}

/** Works the keys below it: those that the member chose, else those that commands come with. */
export function KeyDeskProvider({ chosen, children }: { chosen: KeyChoices; children: ReactNode }) {
  const registered = useRef<Registered[]>([]);
  const [, setCount] = useState(0);
  const keys = useRef(chosen);
  keys.current = chosen;
  const [held] = useState(heldKeys);
  const desk = useMemo<KeyDesk>(() => {
    const available = () => {
      const offered = registered.current.flatMap(({ current }) => Object.entries(current));
      return new Map(offered.filter((entry): entry is [CommandId, () => void] => entry[1] !== undefined));
    };
    return {
      chosen,
      available,
      awaitOpening: held.await,
      async awaitPage(going) {
        const from = entryOfHistory();
        held.awaitPage();
        await going();
        // Held back, or failed: nothing comes that they could be for.
        if (entryOfHistory() === from) held.drop();
      },
      register(handlers) {
        registered.current = [...registered.current, handlers];
        setCount((count) => count + 1);
        return () => {
          registered.current = registered.current.filter((other) => other !== handlers);
        };
      },
    };
  }, [chosen, held]);
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (!isForScreen(event)) return;
      const available = desk.available();
      const [id] = commandsOfKey(nameOfKey(event), [...available.keys()], keys.current).slice(-1);
      const act = id === undefined ? undefined : available.get(id);
      if (act === undefined) return;
      event.preventDefault();
      act();
      if (id !== undefined && "opens" in COMMANDS[id]) held.begin();
    };
    document.addEventListener("keydown", press);
    return () => document.removeEventListener("keydown", press);
  }, [desk, held]);
  useEffect(() => {
    const early = { capture: true };
    document.addEventListener("keydown", held.press, early);
    document.addEventListener("focusin", held.focus);
    document.addEventListener("pointerdown", held.drop, early);
    return () => {
      document.removeEventListener("keydown", held.press, early);
      document.removeEventListener("focusin", held.focus);
      document.removeEventListener("pointerdown", held.drop, early);
    };
  }, [held]);
  usePageThere(held.arrive);
  return <KeyContext value={desk}>{children}</KeyContext>;
}

const entryOfHistory = () => (history.state as { key?: string } | null)?.key;

/** Calls it when a page is there to which one went, with what its parts make known as they come. */
function usePageThere(arrive: () => void): void {
  const { key } = useLocation();
  const { state } = useNavigation();
  const [there, setThere] = useState(key);
  useEffect(() => {
    if (state === "idle") setThere(key);
  }, [key, state]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: whenever it is another page
  useEffect(arrive, [there]);
}

// What Shift and a digit type differs from keyboard to keyboard; where the digit is does not.
function nameOfKey({ key, code, shiftKey }: KeyboardEvent): string {
  const [, digit] = /^Digit([1-9])$/.exec(code) ?? [];
  return shiftKey && digit !== undefined ? `Shift+${digit}` : key;
}

/** What can be done by key here, and by which. */
export function useKeyDesk(): KeyDesk {
  const desk = useContext(KeyContext);
  if (desk === null) throw new Error("this screen stands outside the keys");
  return desk;
}

/** Offers commands while the screen is there. */
export function useCommands(handlers: Handlers): void {
  const { register } = useKeyDesk();
  const current = useRef(handlers);
  current.current = handlers;
  useEffect(() => register(current), [register]);
}

/** The key of a command for this member. */
export function useKeyOf(): (id: CommandId) => string {
  const { chosen } = useKeyDesk();
  return (id) => keyOf(id, chosen);
}

/** Goes to another page, which has the keys that are pressed from now on. */
export function useGo(): (to: string, options?: NavigateOptions) => void {
  const navigate = useNavigate();
  const { awaitPage } = useKeyDesk();
  return useCallback((to, options) => void awaitPage(() => navigate(to, options)), [navigate, awaitPage]);
}

/** Stands in the place of what is on its way: keys that are pressed until it is there are for it. */
export function Opening() {
  const { awaitOpening } = useKeyDesk();
  useLayoutEffect(() => awaitOpening(), [awaitOpening]);
  return null;
}

/** What opens and may have to be fetched first; keys that are pressed until it is there are for it. */
export function Opens({ children }: { children: ReactNode }) {
  return <Suspense fallback={<Opening />}>{children}</Suspense>;
}
