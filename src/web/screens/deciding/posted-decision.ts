import type { Whom } from "../../../core/docket/plan-decision";
import type { Urgency } from "../../../core/kernel/urgency";
import type { Scope } from "../../../core/lists/scope";
import type { FilingMeans } from "../../../core/records/filing-means";
import type { RowView } from "../../server/base/words.server";
import type { FormFields } from "../frame/courier";

/** A decision as it is posted: its kind, and the fields that go with it. */
export type PostedDecision = SingleDecision | Accepted;

/** What is proposed and accepted together: one decision, with one way back. */
type Accepted = { readonly kind: "accept"; readonly decisions: readonly SingleDecision[] };

/** One thing that is decided. */
export type SingleDecision =
  | { readonly kind: "assign"; readonly owner: string; readonly note?: string; readonly evenIfAway?: true }
  | { readonly kind: "assign-in-turn"; readonly group: string; readonly note?: string }
  | { readonly kind: "follow"; readonly member: string; readonly follows: boolean }
  /** `name` for one that was created a moment ago, which the screen need not know yet. */
  | { readonly kind: "categorise"; readonly category: string; readonly give: boolean; readonly name?: string }
  /** `fields` are the particulars that its record asks for, as JSON; `message` (and its `attachment`) is filed alone. */
  | {
      readonly kind: "file";
      readonly record: string;
      readonly code: string;
      readonly settle: boolean;
      readonly means?: FilingMeans;
      readonly fields?: string;
      readonly message?: string;
      readonly attachment?: number;
    }
  | { readonly kind: "particulars"; readonly record: string; readonly code: string; readonly fields: string }
  | {
      readonly kind: "unfile";
      readonly record: string;
      readonly code: string;
      readonly message?: string;
      readonly attachment?: number;
    }
  | { readonly kind: "keep" | "settle" | "bin" | "restore" | "junk" | "stop-expecting" | "no-answer" | "unread" }
  /** `at` is an instant of ISO 8601, or nothing for no date. */
  | { readonly kind: "rest"; readonly at: string; readonly mode: "either" | "time" }
  | {
      readonly kind: "expect";
      readonly at: string;
      readonly whom?: Whom;
      readonly colleague?: string;
      readonly besides?: boolean;
    }
  | { readonly kind: "extend"; readonly expectation: string; readonly at: string }
  | { readonly kind: "expire"; readonly at: string }
  | { readonly kind: "withdraw"; readonly expectation: string }
  | { readonly kind: "acknowledge"; readonly message: string }
  | { readonly kind: "follow-up"; readonly at: string; readonly member: string; readonly text: string }
  | { readonly kind: "follow-up-done" | "follow-up-clear"; readonly followUp: string }
  | { readonly kind: "urgency"; readonly urgency: Urgency }
  | { readonly kind: "note"; readonly text: string };

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
const postedFields = (decision: SingleDecision) =>
  Object.fromEntries(Object.entries(decision).map(([name, value]) => [name, String(value)]));

/** The fields that send a decision off. */
export function decisionForm({ decision, rows, target: { everything }, said }: Pending): FormFields {
  const posted =
    decision.kind === "accept"
      ? { kind: decision.kind, decisions: JSON.stringify(decision.decisions.map(postedFields)) }
      : postedFields(decision);
  const [only] = rows;
  if (everything !== null) {
    const { scope, query, lane } = everything;
    return { ...posted, scope, query, said, ...(lane === null ? {} : { lane }) };
  }
  return {
    said,
    ...posted,
    conversation: rows.map((row) => row.id),
    // Of several, each has a version of its own; only what one person saw of one conversation is compared.
    ...(rows.length === 1 && only !== undefined && only.version > 0 ? { version: String(only.version) } : {}),
  };
}
