import { LinkifyIt } from "linkify-it";
import { mentionsIn } from "../../../core/notes/mentions";
import { type NoteLine, noteBlocks } from "../../../core/notes/note-text";
import { recordCodePlaces } from "../../../core/threading/record-codes";
import type { Member, NamedInNotes } from "../../../operations/index.server";

/** A piece of a note: words, somebody named, or what leads somewhere. */
export type NotePiece = {
  readonly key: number;
  readonly text: string;
  readonly kind: "text" | "person" | "inside" | "outside";
  /** Null where it leads nowhere. */
  readonly href: string | null;
};
export type NoteBlockView = {
  readonly key: number;
  readonly kind: "lines" | "list";
  readonly lines: readonly { readonly key: number; readonly pieces: readonly NotePiece[] }[];
};

/** What a note can name in a tray. */
export type NoteNames = { readonly slug: string; readonly members: readonly Member[]; readonly named: NamedInNotes };

const linkify = new LinkifyIt({ fuzzyLink: false, fuzzyIP: false, fuzzyEmail: false });
const CONVERSATION = /\/[a-z0-9-]+\/[a-z-]+\/([0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12})(?:$|[?#])/;

/** A note ready to be drawn: its lists, whom it names, its links, conversations by their subject, records by their code. */
export function noteView(text: string, names: NoteNames): NoteBlockView[] {
  return noteBlocks(text).map(({ kind, lines }, key) => ({
    key,
    kind,
    lines: lines.map((line) => ({ key: line.from, pieces: piecesOf(line, names) })),
  }));
}

type Span = { readonly from: number; readonly to: number } & Omit<NotePiece, "key">;

function piecesOf({ text }: NoteLine, names: NoteNames): NotePiece[] {
  const spans = [...peopleIn(text, names), ...linksIn(text, names), ...recordsIn(text, names)];
  const pieces: NotePiece[] = [];
  const add = (piece: Omit<NotePiece, "key">) => pieces.push({ key: pieces.length, ...piece });
  let at = 0;
  for (const { from, to, ...piece } of spans.toSorted((a, b) => a.from - b.from || b.to - a.to)) {
    if (from < at) continue;
    if (from > at) add({ text: text.slice(at, from), kind: "text", href: null });
    add(piece);
    at = to;
  }
  if (at < text.length) add({ text: text.slice(at), kind: "text", href: null });
  return pieces;
}

function peopleIn(text: string, { members }: NoteNames): Span[] {
  return mentionsIn(text, members).map(({ memberId, from, to }) => {
    const name = members.find(({ id }) => id === memberId)?.name ?? text.slice(from, to);
    return { from, to, text: name, kind: "person", href: null };
  });
}

function linksIn(text: string, { slug, named }: NoteNames): Span[] {
  return (linkify.match(text) ?? []).flatMap(({ index: from, lastIndex: to, url }): Span[] => {
    if (!/^https?:/i.test(url)) return [];
    const id = CONVERSATION.exec(url)?.[1];
    const conversation = named.conversations.find((one) => one.id === id);
    if (conversation === undefined) return [{ from, to, text: text.slice(from, to), kind: "outside", href: url }];
    const { subject, standing } = conversation;
    return [{ from, to, text: subject || "(no subject)", kind: "inside", href: `/${slug}/${standing}/${id}` }];
  });
}

function recordsIn(text: string, { slug, named }: NoteNames): Span[] {
  return recordCodePlaces(text).flatMap(({ code, from, to }): Span[] => {
    const record = named.records.find((one) => one.code === code);
    return record === undefined ? [] : [{ from, to, text: code, kind: "inside", href: `/${slug}/records/${code}` }];
  });
}
