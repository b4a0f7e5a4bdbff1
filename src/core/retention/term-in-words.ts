import { recordsTexts } from "../../texts/en/records";
import { type Said, type Sayable, saidOf, type Wording } from "../../texts/said";
import type { Instant } from "../kernel/instant";
import { policyInWords } from "./policy";
import type { Applied, Term } from "./term";

const said = saidOf(recordsTexts);

const FROM = { record: said("records.byItsOwnPolicy"), type: said("records.thePolicyOfItsType") } as const;

function whyInWords({ policy, from }: Applied): Said {
  const whose =
    from.kind === "category" ? said("records.thePolicyOfTheCategory", { name: from.name }) : FROM[from.kind];
  return said("records.policyByWhose", { policy: policyInWords(policy), whose, name: policy.name });
}

/** How long a record is kept, and which policy says so; `day` names a day. */
export function termInWords(
  term: Term,
  day: (at: Instant) => Sayable,
): { readonly until: Said; readonly why: Wording } {
  switch (term.kind) {
    case "held":
      return { until: said("records.onHoldInside"), why: { all: term.reasons, by: "comma" } };
    case "for-good":
      return {
        until: said("records.keptWithoutLimit"),
        why:
          term.under === null
            ? said("records.noPolicySaysHowLong")
            : said("records.asStandsUnderIt", { under: term.under }),
      };
    case "not-closed":
      return {
        until: said("records.keptWhileItIsOpen"),
        why:
          term.under === null
            ? whyInWords(term.why)
            : said("records.whyAsStandsUnderIt", { why: whyInWords(term.why), under: term.under }),
      };
    case "until": {
      const why = term.why === null ? said("records.keptForLongerByHand") : whyInWords(term.why);
      const longer = term.under === null ? why : said("records.asLongAsWhichStands", { under: term.under, why });
      return { until: said("records.until", { day: day(term.at) }), why: longer };
    }
  }
}
