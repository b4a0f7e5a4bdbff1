import { type MemberId, type RecordId, trustedId } from "../kernel/ids";
import { instant } from "../kernel/instant";
import type { Because } from "./because";
import { calibration, NO_RECORD, type TrackRecord, withOutcome } from "./calibration";
import { candidateRecords, titledRecords } from "./candidates";
import { type Asked, askedAbout, type Evidence, type Likely, type ProposalKind } from "./evidence";
import { codesIn, featuresOf, type Letter } from "./features";
import { isLearned, type Judged, judge, likelyLabels } from "./judge";
import { askedOfOwners, DECIDED, LABEL_PREFIXES, type Label, SETTLED_UNANSWERED, UNFILED, UNOWNED } from "./lesson";
import { outcomeOf } from "./outcome";
import { ownedAt } from "./owned";
import { type Proposal, propose } from "./propose";
import type { Counts } from "./shares";
import { TrayLessons } from "./tray-lessons";

/** What happens in a tray as far as proposals are learned from it, in the order of time; times in milliseconds since 1970. */
export type StreamEvent =
  | {
      readonly event: "record";
      readonly at: number;
      readonly id: string;
      readonly code: string;
      readonly title: string;
      readonly parent: string | null;
    }
  | { readonly event: "record-closed"; readonly at: number; readonly id: string }
  | { readonly event: "member"; readonly at: number; readonly id: string; readonly name: string }
  | { readonly event: "member-left"; readonly at: number; readonly id: string }
  | { readonly event: "away"; readonly at: number; readonly id: string; readonly until: number; readonly cover: string }
  | StreamLetter;

/** A conversation by its first letter, and what was decided about it. */
export type StreamLetter = {
  readonly event: "conversation";
  readonly at: number;
  readonly id: string;
  readonly from: { readonly address: string; readonly name: string };
  readonly to: readonly string[];
  readonly listId: string | null;
  readonly kind: string;
  readonly subject: string;
  readonly text: string;
  readonly decided: {
    readonly owner: string | null;
    readonly categories: readonly string[];
    readonly record: string | null;
    readonly settledUnanswered: boolean;
  };
};

/** What is proposed for a conversation of a stream before its decision is learned, and all that was chosen from. */
export type StreamProposals = {
  readonly id: string;
  readonly proposals: readonly StreamProposal[];
  readonly candidates: Readonly<Record<"file" | "categorise" | "assign", readonly (readonly [string, number])[]>>;
};

type StreamProposal = {
  readonly kind: ProposalKind;
  /** The id of what is proposed; empty for settling. */
  readonly value: string;
  readonly confidence: number;
  readonly why: Because;
};

/** A tray as its stream tells of it: proposes for each conversation what the product would, then learns what was decided. */
export class StreamedTray {
  readonly #lessons = new TrayLessons();
  readonly #open = new Map<string, { readonly code: string; readonly title: string }>();
  readonly #members = new Set<string>();
  readonly #away = new Map<string, { readonly until: number; readonly cover: string }>();
  readonly #weights: { [K in ProposalKind]?: Readonly<Record<string, number>> } = {};
  readonly #records: { [K in ProposalKind]?: TrackRecord } = {};

  /** Takes the next event; of a conversation it gives what is proposed for it. */
  take(event: StreamEvent): StreamProposals | null {
    switch (event.event) {
      case "record":
        this.#open.set(event.id, { code: event.code.toUpperCase(), title: event.title });
        return null;
      case "record-closed":
        this.#open.delete(event.id);
        return null;
      case "member":
        this.#members.add(event.id);
        return null;
      case "member-left":
        this.#members.delete(event.id);
        return null;
      case "away":
        this.#away.set(event.id, { until: event.until, cover: event.cover });
        return null;
      case "conversation":
        return this.#conversation(event);
    }
  }

  #conversation(event: StreamLetter): StreamProposals {
    const letter = { from: event.from.address, listId: event.listId, subject: event.subject, ownText: event.text };
    const features = featuresOf(letter);
    const asked = askedAbout(features, this.#lessons.counts());
    const evidence = this.#evidence(letter, features, asked, event.at);
    const judged = judge(asked, evidence);
    const proposals = propose(judged, evidence, NOTHING_GIVEN);
    this.#learn(event, features, evidence, judged);
    return { id: event.id, proposals: proposals.map(inStream), candidates: candidatesOf(judged, evidence.records) };
  }

  #evidence(letter: Letter, features: readonly string[], asked: Asked, at: number): Evidence {
    const now = instant(at);
    const counts = this.#lessons.counts();
    const codes = codesIn(letter);
    const named = [...this.#open].flatMap(([id, { code }]) => (codes.includes(code) ? [trustedId<RecordId>(id)] : []));
    const base: Evidence = {
      counts,
      owners: ownedAt(new Map(), now),
      last: this.#lessons.lastWith(letter.from.toLowerCase()),
      named,
      belongs: [],
      open: this.#candidates(asked, counts, named),
      isGiven: () => true,
      mayOwn: [...this.#members].map((id) => trustedId<MemberId>(id)),
      inCharge: (id) => this.#inCharge(id, at),
      weights: { ...this.#weights },
      records: { ...this.#records },
    };
    const owned = askedOfOwners(features, likelyLabels(asked, base));
    return { ...base, owners: this.#lessons.ownersOf(owned, now) };
  }

  #candidates(asked: Asked, counts: Counts, named: readonly RecordId[]): Map<RecordId, string> {
    const titled = titledRecords(
      [...this.#open].map(([id, { title }]) => [id, title] as const),
      asked,
    );
    const ids = new Set([...candidateRecords(asked, counts), ...named, ...titled]);
    const open = [...ids].flatMap((id) => {
      const record = this.#open.get(id);
      return record === undefined ? [] : [[id, record.title] as const];
    });
    return new Map(open);
  }

  #inCharge(id: MemberId, at: number): MemberId | null {
    const away = this.#away.get(id);
    if (away === undefined || away.until <= at) return id;
    return this.#members.has(away.cover) ? trustedId<MemberId>(away.cover) : null;
  }

  #learn(event: StreamLetter, features: readonly string[], evidence: Evidence, judged: Judged): void {
    const labels = labelsOfStream(event.decided);
    if (isLearned(evidence))
      for (const kind of KINDS) {
        const outcome = outcomeOf(kind, judged, labels, evidence);
        if (outcome === null) continue;
        this.#weights[kind] = outcome.weights;
        for (const { confidence, right } of outcome.said)
          this.#records[kind] = withOutcome(this.#records[kind] ?? NO_RECORD, confidence, right);
      }
    this.#lessons.learn(features, [], labels, instant(event.at));
    this.#lessons.remember(event.from.address.toLowerCase(), labels);
  }
}

const KINDS: readonly ProposalKind[] = ["file", "categorise", "assign", "settle"];
const NOTHING_GIVEN = { ownerId: null, categoryIds: [], recordIds: [] };

/** What was decided about a conversation of a stream, as labels. */
export function labelsOfStream({ owner, categories, record, settledUnanswered }: StreamLetter["decided"]): Label[] {
  return [
    DECIDED,
    ...categories.map((id) => LABEL_PREFIXES.categorise + id),
    record === null ? UNFILED : LABEL_PREFIXES.file + record,
    owner === null ? UNOWNED : LABEL_PREFIXES.assign + owner,
    ...(settledUnanswered ? [SETTLED_UNANSWERED] : []),
  ];
}

function inStream(proposal: Proposal): StreamProposal {
  const { kind, confidence, because: why } = proposal;
  switch (kind) {
    case "file":
      return { kind, value: proposal.recordId, confidence, why };
    case "categorise":
      return { kind, value: proposal.categoryId, confidence, why };
    case "assign":
      return { kind, value: proposal.ownerId, confidence, why };
    case "settle":
      return { kind, value: "", confidence, why };
  }
}

function candidatesOf(
  { records, categories, owners }: Judged,
  known: Evidence["records"],
): StreamProposals["candidates"] {
  const listed = (kind: ProposalKind, all: readonly Likely<string>[]) => {
    const taken = calibration(known[kind] ?? NO_RECORD);
    return all
      .filter(({ label }) => label !== UNFILED && label !== UNOWNED)
      .toSorted((a, b) => b.likelihood - a.likelihood)
      .map(({ label, likelihood }) => [label.slice(2), taken(likelihood)] as const);
  };
  return {
    file: listed("file", records),
    categorise: listed("categorise", categories),
    assign: listed("assign", owners),
  };
}
