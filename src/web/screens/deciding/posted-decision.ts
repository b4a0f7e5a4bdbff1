import type { RowSelection } from "../../../core/deciding/decision";
import type { Scope } from "../../../core/lists/scope";
import type { RowView } from "../../server/base/row-view.server";
import type { FormFields } from "../frame/decision-submitter";

/** One thing that is decided. `called` is the name or code of what it is about, where the tray's own lists do not say it. */
export type SingleDecision = RowSelection & { readonly called?: string };

/** A decision as it is posted. */
export type PostedDecision =
  | SingleDecision
  /** What is proposed and accepted together: one decision, with one way back. */
  | { readonly kind: "accept"; readonly decisions: readonly SingleDecision[] }
  /** What one has read is nobody else's matter: it stands in no journal and is not taken back. */
  | { readonly kind: "unread" };

/** A decision on its way: already shown, not yet confirmed. */
export type Pending = {
  readonly key: number;
  /** By which the server knows it when it is sent again. */
  readonly command: string;
  readonly decision: PostedDecision;
  readonly rows: readonly DecidedRow[];
  readonly target: DecisionTarget<DecidedRow>;
  readonly said: string;
  /** How often it was sent; more than once when the server could not be reached. */
  readonly attempt: number;
  /** Whether the next may go: the server has answered, or could not be reached. */
  readonly isPassed: boolean;
};

/** A list, or a group of it, with everything that it holds, loaded or not. */
type Everything = {
  readonly scope: Scope;
  readonly query: string;
  readonly lane: string | null;
  readonly count: number;
};

/** What a decision needs to know of a conversation. */
export type DecidedRow = Pick<RowView, "id" | "version" | "standing">;

/** What a decision is about: these rows, or everything of a list, of which these are loaded. */
export type DecisionTarget<Row extends DecidedRow = RowView> = {
  readonly rows: readonly Row[];
  readonly everything: Everything | null;
};

/** How many conversations a target has. */
export function countOf({ rows, everything }: DecisionTarget<DecidedRow>): number {
  return everything?.count ?? rows.length;
}

/** The single decisions that a posted one consists of; none for what is no decision. */
export function singleDecisions(decision: PostedDecision): readonly SingleDecision[] {
  if (decision.kind === "unread") return [];
  return decision.kind === "accept" ? decision.decisions : [decision];
}

/** The fields that send a decision off: what is decided as JSON of the core's own type, and what it is about. */
export function decisionForm({
  decision,
  rows,
  target: { everything },
  said,
}: Pick<Pending, "decision" | "rows" | "target" | "said">): FormFields {
  const posted: FormFields =
    decision.kind === "unread" ? { do: "unread" } : { decisions: JSON.stringify(singleDecisions(decision)) };
  const [only] = rows;
  if (everything !== null) {
    const { scope, query, lane } = everything;
    return { ...posted, scope, query, said, ...(lane === null ? {} : { lane }) };
  }
  return {
    ...posted,
    said,
    conversation: rows.map((row) => row.id),
    // Of several, each has a version of its own; only what one person saw of one conversation is compared.
    ...(rows.length === 1 && only !== undefined && only.version > 0 ? { version: String(only.version) } : {}),
  };
}
