import type { Instant } from "../kernel/instant";
import { policyInWords } from "./policy";
import type { Applied, Term } from "./term";

const FROM = { record: "its own policy", type: "the policy of its type" } as const;

function whyInWords({ policy, from }: Applied): string {
  const whose = from.kind === "category" ? `the policy of the category ${from.name}` : FROM[from.kind];
  return `${policyInWords(policy)} by ${whose}, ${policy.name}`;
}

/** How long a record is kept, and which policy says so; `day` names a day. */
export function termInWords(
  term: Term,
  day: (at: Instant) => string,
): { readonly until: string; readonly why: string } {
  switch (term.kind) {
    case "held":
      return { until: "on hold", why: term.reasons.join("; ") };
    case "for-good":
      return {
        until: "kept without limit",
        why: term.under === null ? "no policy says how long" : `as ${term.under} stands under it`,
      };
    case "not-closed":
      return {
        until: "kept while it is open",
        why: `${whyInWords(term.why)}${term.under === null ? "" : `, as ${term.under} stands under it`}`,
      };
    case "until": {
      const why = term.why === null ? "kept for longer by hand" : whyInWords(term.why);
      const longer = term.under === null ? why : `as long as ${term.under}, which stands under it; by itself ${why}`;
      return { until: `until ${day(term.at)}`, why: longer };
    }
  }
}
