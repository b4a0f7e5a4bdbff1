import { useEffect, useRef, useState } from "react";
import { v4 } from "uuid";
import { type Draft, type DraftOnDevice, goOnWith, type KeptDraft } from "../../../core/writing/draft";
import type { OwnDraftAnswer } from "../../routes/writing/own-draft";
import { useTray } from "../frame/tray-data";
import { draftKeeper, type KeepingState, type Saved } from "./draft-keeper";
import { forgetLocalDraft, localDraft, saveLocalDraft } from "./local-draft";

type KeptDraftOptions = {
  /** Under which name this device keeps it. */
  readonly name: string;
  /** As the server had it when the page was read; null where it had none. */
  readonly there: KeptDraft | null;
  /** What it begins with where there is none. */
  readonly begin: () => Draft;
  /** The id of a new one; left out for any. */
  readonly newId?: string;
  /** What it answers or passes on; null for a first message. */
  readonly conversationId: string | null;
  /** Whether the server keeps it for its writer; what is shared is changed there by handing it over. */
  readonly isOwn: boolean;
};

/** Under which name a device keeps the forwarding of a conversation; an answer has the conversation's own. */
export const passedOn = (conversationId: string) => `${conversationId} passed on`;

// What this page saved is newer than what it read before.
const saved = new Map<string, KeptDraft>();

/** A draft as the server has it, as far as this page knows. */
export function knownThere(name: string, there: KeptDraft | null): KeptDraft | null {
  const known = saved.get(name) ?? null;
  if (known === null || there === null) return known ?? there;
  return known.id === there.id && known.version > there.version ? known : there;
}

/** Forgets what this device and this page know of a draft. */
export function forgetKept(name: string): void {
  forgetLocalDraft(name);
  saved.delete(name);
}

/** A draft that is kept while it is written, on this device and on the server, where another device goes on with it. */
export function useKeptDraft({ name, there, begin, newId, conversationId, isOwn }: KeptDraftOptions) {
  const { tray } = useTray();
  const [start] = useState(() => {
    const going = goOnWith(localDraft(name), knownThere(name, there));
    switch (going.kind) {
      case "new":
        return { ...NEW, first: { id: newId ?? v4(), version: 0, draft: begin(), isSaved: true } };
      case "there":
        return { ...NEW, first: { ...going.kept, isSaved: true } };
      case "here":
        return { ...NEW, first: going.kept };
      case "differ":
        return { first: going.here, state: { kind: "differs", there: going.there } as KeepingState };
    }
  });
  const [draft, setDraft] = useState<Draft>(start.first.draft);
  const [state, setState] = useState<KeepingState>(start.state);
  const [keeper] = useState(() =>
    draftKeeper({
      first: start.first,
      save: isOwn ? (kept) => save(tray.slug, conversationId, kept) : null,
      keepHere: (kept) => {
        if (!kept.isSaved) return saveLocalDraft(name, kept);
        // The device keeps what the server has not got.
        saved.set(name, kept);
        forgetLocalDraft(name);
      },
      onState: setState,
      isHeld: start.state.kind === "differs",
    }),
  );
  const begun = useRef(draft);
  useEffect(() => {
    // What nobody has written on yet is no draft that lies somewhere.
    if (draft !== begun.current) keeper.typed(draft);
  }, [draft, keeper]);
  useEffect(() => {
    const saveNow = () => keeper.saveNow();
    saveNow();
    window.addEventListener("online", saveNow);
    document.addEventListener("visibilitychange", saveNow);
    window.addEventListener("pagehide", saveNow);
    return () => {
      window.removeEventListener("online", saveNow);
      document.removeEventListener("visibilitychange", saveNow);
      window.removeEventListener("pagehide", saveNow);
      saveNow();
    };
  }, [keeper]);
  const [turn, setTurn] = useState(0);
  const goOn = (kept: DraftOnDevice) => {
    begun.current = kept.draft;
    setDraft(kept.draft);
    setTurn(turn + 1);
    keeper.goOnWith(kept);
  };
  const [forget] = useState(() => () => {
    keeper.stop();
    forgetKept(name);
  });
  return {
    draft,
    setDraft,
    state,
    change: (part: Partial<Draft>) => setDraft((before) => ({ ...before, ...part })),
    id: () => keeper.now().id,
    goOnHere: (other: KeptDraft) => goOn({ ...other, draft, isSaved: false }),
    goOnThere: (other: KeptDraft) => goOn({ ...other, isSaved: true }),
    goOnAsNew: () => goOn({ id: v4(), version: 0, draft, isSaved: false }),
    /** Another one each time that it goes on with other words than were typed here. */
    turn,
    forget,
  };
}

// What a browser sends on for a page that is closed, all such requests together (Fetch, 4.6 "HTTP-network-or-cache fetch").
const MOST_BYTES_AFTER_CLOSING = 64 * 1_024;
// What stands around the draft in its request.
const AROUND_BYTES = 2 * 1_024;

const NEW: { readonly state: KeepingState } = { state: { kind: "untouched" } };

async function save(slug: string, conversationId: string | null, { id, version, draft }: KeptDraft): Promise<Saved> {
  const body = new FormData();
  body.set("do", "keep");
  body.set("version", String(version));
  body.set("conversation", conversationId ?? "");
  const json = JSON.stringify(draft);
  body.set("draft", json);
  const keepalive = new Blob([json]).size + AROUND_BYTES < MOST_BYTES_AFTER_CLOSING;
  const response = await fetch(`/${slug}/own-drafts/${id}`, { method: "POST", body, keepalive });
  // What is no answer to this, as the page for signing in, is as if there were none.
  const answer: OwnDraftAnswer = await response.json();
  return answer.ok ? (answer.saved ?? { kind: "differs", there: null }) : { kind: "refused", problem: answer.problem };
}
