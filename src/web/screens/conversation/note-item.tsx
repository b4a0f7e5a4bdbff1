import { useState } from "react";
import { Link } from "react-router";
import { conversationTexts } from "../../../texts/en/conversation";
import type { NoteView } from "../../server/conversation/conversation-view.server";
import type { NoteBlockView, NotePiece } from "../../server/conversation/note-view.server";
import { useSay } from "../../ui/texts/use-say";
import { EditNoteDialog } from "../deciding/note-dialog";

/** A note between the messages: for colleagues, never sent. */
export function NoteItem({ note, conversationId }: { note: NoteView; conversationId: string }) {
  const say = useSay(conversationTexts);
  const [isEditing, setEditing] = useState(false);
  return (
    <section
      aria-label={say("conversation.noteBy", { who: note.who })}
      className="my-2 ml-8 border-l-2 border-dotted border-faint pl-3.5 text-[13.5px]"
    >
      <p className="flex items-baseline gap-2 text-sm text-soft">
        <b className="font-semibold text-ink">{note.who}</b>
        <span>
          {say("conversation.noted", { when: note.when })}
          {note.isEdited && say("conversation.edited")}
          {say("conversation.neverSent")}
        </span>
        {note.editable !== null && (
          <button type="button" onClick={() => setEditing(true)} className="text-act hover:underline">
            {say("conversation.edit")}
          </button>
        )}
      </p>
      <div className="prose-own mt-0.5 space-y-1.5 italic">
        {note.blocks.map((block) => (
          <Block key={block.key} block={block} />
        ))}
      </div>
      {isEditing && note.editable !== null && (
        <EditNoteDialog
          conversationId={conversationId}
          entryId={note.entryId}
          text={note.editable}
          onClose={() => setEditing(false)}
        />
      )}
    </section>
  );
}

function Block({ block: { kind, lines } }: { block: NoteBlockView }) {
  if (kind === "list") {
    return (
      <ul className="list-disc pl-5">
        {lines.map(({ key, pieces }) => (
          <li key={key}>
            <Pieces pieces={pieces} />
          </li>
        ))}
      </ul>
    );
  }
  return (
    <p>
      {lines.map(({ key, pieces }) => (
        <span key={key} className="block">
          <Pieces pieces={pieces} />
        </span>
      ))}
    </p>
  );
}

function Pieces({ pieces }: { pieces: readonly NotePiece[] }) {
  return pieces.map(({ key, text, kind, href }) => {
    if (kind === "person") {
      return (
        <b key={key} className="font-semibold text-act not-italic">
          @{text}
        </b>
      );
    }
    if (href === null) return text;
    const look = "text-act underline underline-offset-2";
    return kind === "inside" ? (
      <Link key={key} to={href} className={look}>
        {text}
      </Link>
    ) : (
      <a key={key} href={href} target="_blank" rel="noopener noreferrer nofollow" className={look}>
        {text}
      </a>
    );
  });
}
