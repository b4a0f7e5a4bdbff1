import { nextUrgency } from "../../../core/kernel/urgency";
import { useCommands } from "../../keys/key-desk";
import type { RowView } from "../../server/base/row-view.server";
import { useDecisions } from "../deciding/decisions";
import type { DialogKind } from "../deciding/dialog-props";
import type { PostedDecision } from "../deciding/posted-decision";
import { useTray } from "../frame/tray-data";
import type { ListCursor, ShownList } from "./list-places";
import type { Selection } from "./selection";

type DecidingProps = {
  /** The first of what would be decided about; null when there is nothing, or one may not. */
  readonly first: RowView | null;
  readonly ask: (dialog: DialogKind) => void;
  readonly act: (decision: PostedDecision) => void;
  readonly answer: () => void;
};

/** The keys that decide, the same wherever conversations are decided about. */
export function useDecidingCommands({ first, ask, act, answer }: DecidingProps): void {
  const { undo, redo } = useDecisions();
  const { member } = useTray();
  const when = (work: () => void) => (first === null ? undefined : work);
  useCommands({
    answer: when(answer),
    assign: when(() => ask("assign")),
    take: when(() => act({ kind: "assign", ownerId: member.id })),
    "give-back": when(() => act({ kind: "assign", ownerId: null })),
    follow: when(() =>
      act({ kind: "follow", memberId: member.id, follows: first?.followerIds.includes(member.id) === false }),
    ),
    categories: when(() => ask("categories")),
    "give-by-key": when(() => ask("give-by-key")),
    file: when(() => ask("file")),
    expect: when(() => ask("expect")),
    rest: when(() => ask("rest")),
    "follow-up": when(() => ask("follow-up")),
    note: when(() => ask("note")),
    urgency: when(() => first !== null && act({ kind: "urgency", urgency: nextUrgency(first.urgency) })),
    settle: when(() => act({ kind: "settle" })),
    keep: when(() => act({ kind: "keep" })),
    "no-answer": when(() => act({ kind: "no-answer" })),
    expire: when(() => ask("expire")),
    acknowledge: when(() => act({ kind: "acknowledge", messageId: null })),
    "let-in": first?.standing === "held" ? when(() => act({ kind: "let-in" })) : undefined,
    junk: when(() => act({ kind: "junk" })),
    unread: when(() => act({ kind: "unread" })),
    bin: when(() => act({ kind: first?.standing === "bin" || first?.standing === "junk" ? "restore" : "bin" })),
    undo: () => undo(),
    redo: () => redo(),
  });
}

type MovingProps = {
  readonly shown: ShownList;
  readonly cursor: ListCursor;
  readonly selection: Selection;
  readonly isOpen: boolean;
  readonly answering: boolean;
  readonly stopAnswering: () => void;
  /** Null when nothing new waits. */
  readonly showNew: (() => void) | null;
};

/** The keys that move in a list and choose in it. */
export function useMovingCommands(props: MovingProps): void {
  const { shown, cursor, selection, isOpen, answering, stopAnswering, showNew } = props;
  const { at, underCursor, neighbour, go } = cursor;
  const inList = (work: () => void) => (isOpen ? undefined : work);
  const back = () => {
    if (!isOpen) selection.clear();
    else if (answering) stopAnswering();
    else cursor.close();
  };
  useCommands({
    down: () => go(at < 0 && !isOpen ? (shown.places[0] ?? null) : neighbour(1)),
    up: () => go(neighbour(-1)),
    open: underCursor === null ? undefined : inList(() => cursor.open(underCursor)),
    back: isOpen || selection.count > 0 ? back : undefined,
    choose: underCursor === null ? undefined : inList(() => selection.toggle(underCursor)),
    "choose-down": inList(() => {
      const next = neighbour(1);
      const inOrder = shown.places.map(({ row }) => row);
      if (underCursor !== null && selection.count === 0) selection.toggle(underCursor);
      if (next !== null) selection.extend(next.row, inOrder);
      go(next);
    }),
    "choose-all": inList(() => selection.chooseAll(shown.total)),
    "show-new": showNew ?? undefined,
  });
}
