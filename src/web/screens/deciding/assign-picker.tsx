import { useEffect, useId, useState } from "react";
import { useFetcher } from "react-router";
import { type GroupId, type MemberId, trustedId } from "../../../core/kernel/ids";
import { commonTexts } from "../../../texts/en/common";
import { decidingTexts } from "../../../texts/en/deciding";
import { Opening } from "../../keys/key-desk";
import type { loader as suggestAssignees } from "../../routes/conversation/assignee-suggestions";
import type { AssigneeSuggestionsView } from "../../server/conversation/assignee-suggestions-view.server";
import { Button } from "../../ui/button";
import { type Choice, Picker } from "../../ui/picker";
import { useSay } from "../../ui/texts/use-say";
import { LoadBar } from "../frame/load-bar";
import { OwnerBadge } from "../frame/owner-badge";
import { notePick, recentFirst } from "../frame/recent-picks";
import { type Colleague, useTray } from "../frame/tray-data";
import type { DialogProps } from "./dialog-props";
import type { DecisionTarget } from "./posted-decision";

const NOBODY = "nobody";
const GROUP = "group ";

// Who could take it is known well within this time; over a slow line one may pick without.
const KNOWN_MS = 400;

/** Picks the owner of one conversation or several, with a word to her; of one, with who could take it and why. */
export function AssignPicker(props: DialogProps) {
  const could = useCouldTake(props.target);
  const [isLate, setLate] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setLate(true), KNOWN_MS);
    return () => clearTimeout(timer);
  }, []);
  return could === null && !isLate ? <Opening /> : <AssignDialog {...props} could={could} />;
}

/** Who could take a conversation; null until that is known, undefined where nobody asks. */
type AssigneeSuggestions = readonly AssigneeSuggestionsView[] | null | undefined;

function AssignDialog({ target, could, onDecide, onClose }: DialogProps & { readonly could: AssigneeSuggestions }) {
  const say = useSay(decidingTexts, commonTexts);
  const { members, member, groups } = useTray();
  // What comes later changes no place, as somebody may be about to click there.
  const [first] = useState(could);
  const noteId = useId();
  const [note, setNote] = useState("");
  const [absent, setAbsent] = useState<Colleague | null>(null);
  const isOwnedBy = (id: string | null) => target.rows.every(({ ownerId }) => ownerId === id);
  const word = note.trim() === "" ? {} : { note: note.trim() };
  const give = (ownerId: MemberId | null, more: { readonly evenIfAway?: true } = {}) => {
    if (ownerId !== null) notePick("owner", ownerId);
    onDecide({ kind: "assign", ownerId, ...(ownerId === null ? {} : word), ...more });
    onClose();
  };
  const pick = (id: string) => {
    const chosen = members.find((one) => one.id === id);
    if (id === NOBODY) give(null);
    else if (id.startsWith(GROUP)) {
      onDecide({ kind: "assign-in-turn", groupId: trustedId<GroupId>(id.slice(GROUP.length)), ...word });
      onClose();
    } else if (chosen?.away != null) setAbsent(chosen);
    else give(trustedId<MemberId>(id));
  };
  const people = inOrder(
    members.filter(({ reads }) => !reads),
    member.id,
    first,
  ).map(
    (one): Choice => ({
      id: one.id,
      words: one.id === member.id ? say("deciding.me", { name: one.name }) : one.name,
      on: isOwnedBy(one.id),
      face: (
        <Face
          colleague={one}
          isYou={one.id === member.id}
          could={could?.find(({ id }) => id === one.id)}
          isAwaited={first === null}
        />
      ),
    }),
  );
  const turns = groups.map(
    ({ id, name, memberIds }): Choice => ({
      id: GROUP + id,
      words: say("deciding.groupTurns", { name }),
      face: (
        <span className="flex items-baseline gap-3">
          <span className="inline-block w-[26px] text-center text-soft">↻</span>
          {name}
          <span className="text-sm text-soft">
            {say("deciding.inTurnWhoeverHasLeast", { count: memberIds.length })}
          </span>
        </span>
      ),
    }),
  );
  const nobody: Choice = { id: NOBODY, words: say("deciding.nobodyNoOwner"), face: <Nobody /> };
  return (
    <Picker
      title={say("common.assign")}
      size="wide"
      prompt={say("deciding.typeAColleagueSName")}
      empty={say("deciding.noColleagueOfThisTray")}
      choices={isOwnedBy(null) ? [...people, ...turns] : [...people, ...turns, nobody]}
      onPick={pick}
      onClose={onClose}
      footer={
        absent === null ? (
          <label htmlFor={noteId} className="flex items-center gap-3 text-sm font-semibold">
            {say("common.internalNote")}
            <input
              id={noteId}
              value={note}
              maxLength={2_000}
              placeholder={say("deciding.neverSent")}
              onChange={(event) => setNote(event.target.value)}
              className="h-8 min-w-0 flex-1 rounded-control border border-rule bg-paper px-2.5 font-normal placeholder:text-soft"
            />
          </label>
        ) : (
          <Away absent={absent} onGive={give} />
        )
      }
    />
  );
}

type AwayProps = {
  readonly absent: Colleague;
  readonly onGive: (owner: MemberId, more?: { readonly evenIfAway?: true }) => void;
};

/** Says that whoever was picked is away, and offers who covers. */
function Away({ absent: { id, name, away }, onGive }: AwayProps) {
  const say = useSay(decidingTexts);
  const coverId = away?.coverId;
  return (
    <div role="alert" className="flex flex-wrap items-center gap-2">
      <span className="mr-auto">
        <b className="font-semibold">{say("deciding.isAwayUntil", { name, back: away?.back ?? "" })}</b>{" "}
        {away?.cover == null ? say("deciding.nobodyCoversForThemHere") : say("deciding.covers", { cover: away.cover })}
      </span>
      {coverId != null && (
        <Button look="filled" autoFocus onClick={() => onGive(coverId)}>
          {say("deciding.assignTo", { cover: away?.cover ?? "" })}
        </Button>
      )}
      <Button onClick={() => onGive(id, { evenIfAway: true })}>{say("deciding.toAllTheSame", { name })}</Button>
    </div>
  );
}

function Nobody() {
  const say = useSay(commonTexts);
  return (
    <span className="flex items-center gap-3">
      <OwnerBadge ownerId={null} />
      {say("common.nobody")}
    </span>
  );
}

type FaceProps = {
  readonly colleague: Colleague;
  readonly isYou: boolean;
  readonly could: AssigneeSuggestionsView | undefined;
  /** Room is kept for why she could take it, which comes later. */
  readonly isAwaited: boolean;
};

function Face({ colleague: { id, name, away }, isYou, could, isAwaited }: FaceProps) {
  const say = useSay(decidingTexts, commonTexts);
  const reasons = could?.reasons ?? (away === null ? [] : [say("deciding.awayUntil", { back: away.back })]);
  return (
    <span className="grid grid-cols-[26px_minmax(0,1fr)_auto] items-center gap-x-3">
      <OwnerBadge ownerId={id} />
      <span className="min-w-0">
        <span className="block truncate">{isYou ? say("common.nameYou", { name }) : name}</span>
        {(reasons.length > 0 || isAwaited) && (
          <span className={`block min-h-4 text-sm leading-4 text-soft ${isAwaited ? "truncate" : "whitespace-normal"}`}>
            {reasons.join(", ")}
          </span>
        )}
      </span>
      {could !== undefined && <LoadBar load={could.load} open={could.open} />}
    </span>
  );
}

// Oneself first, as taking a conversation is the most frequent assignment; then by who could best take it, or who was picked last.
function inOrder(members: readonly Colleague[], own: string, could: AssigneeSuggestions): readonly Colleague[] {
  const others = members.filter(({ id }) => id !== own);
  const place = (id: string) => could?.findIndex((one) => one.id === id) ?? 0;
  const ordered = could == null ? recentFirst("owner", others) : others.toSorted((a, b) => place(a.id) - place(b.id));
  return [...members.filter(({ id }) => id === own), ...ordered];
}

/** Who could take the one conversation that is to be assigned; of several, nobody asks. */
function useCouldTake({ rows, everything }: DecisionTarget): AssigneeSuggestions {
  const { tray } = useTray();
  const { load, data } = useFetcher<typeof suggestAssignees>();
  const only = rows.length === 1 && everything === null ? (rows[0]?.id ?? null) : null;
  useEffect(() => {
    if (only !== null) void load(`/${tray.slug}/assignee-suggestions/${only}`);
  }, [load, tray.slug, only]);
  return only === null ? undefined : (data ?? null);
}
