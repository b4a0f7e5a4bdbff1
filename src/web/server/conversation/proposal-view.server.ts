import type { Because } from "../../../core/filing/because";
import type { Proposal } from "../../../core/filing/propose";
import { assertNever } from "../../../core/kernel/assert-never";
import type { ProposedFor, TrayNames } from "../../../operations/index.server";
import type { SingleDecision } from "../../screens/deciding/posted-decision";
import { speak } from "../base/say.server";

/** A proposal as the docket shows it: what is decided by its key, and the reason. */
export type ProposalView = {
  readonly key: string;
  readonly decision: SingleDecision;
  readonly title: string;
  readonly reason: string;
  readonly confidence: number;
};

/** What is proposed for a conversation with somebody, ready to be drawn. */
export function proposalViews({ proposals, records }: ProposedFor, names: TrayNames, who: string): ProposalView[] {
  return proposals.flatMap((proposal) => {
    const view = proposalView(proposal, names, records, who);
    return view === null ? [] : [view];
  });
}

/** Why something is proposed, in words. */
function becauseInWords(
  because: Because,
  { categories }: TrayNames,
  records: ProposedFor["records"],
  who: string,
): string {
  const { was, of } = because;
  const share = was === of ? speak("conversation.allOf", { of }) : speak("conversation.wasOf", { was, of });
  switch (because.kind) {
    case "person":
      return speak("conversation.shareWithWho", { share, who });
    case "domain":
      return speak("conversation.from", { share, text: because.text });
    case "list":
      return speak("conversation.throughTheList", { share, text: because.text });
    case "words":
      return speak("conversation.shareWithWords", {
        share,
        words: because.words.map((word) => `“${word}”`).join(speak("conversation.and")),
      });
    case "record":
      return speak("conversation.onOfLate", {
        share,
        code: records.find(({ id }) => id === because.recordId)?.code ?? speak("conversation.itsRecord"),
      });
    case "category":
      return speak("conversation.shareWithName", {
        share,
        name: categories.find(({ id }) => id === because.category)?.name ?? speak("conversation.itsCategory"),
      });
    case "title":
      return speak("conversation.wordsOfItsTitleAre");
    case "usual":
      return speak("conversation.whatIsMostlyDoneHere");
    case "belongs":
      return speak("conversation.theRegisterHasAmongIts", { who });
    case "code":
      return speak("conversation.itsReferenceCodeIsIn");
  }
}

function proposalView(
  proposal: Proposal,
  names: TrayNames,
  records: ProposedFor["records"],
  who: string,
): ProposalView | null {
  const { members, categories } = names;
  const { confidence } = proposal;
  const reason = becauseInWords(proposal.because, names, records, who);
  switch (proposal.kind) {
    case "file": {
      const record = records.find(({ id }) => id === proposal.recordId);
      // What is closed or retired since is not decided any more.
      if (record === undefined || record.closed) return null;
      const decision = {
        kind: "file",
        recordId: record.id,
        called: record.code,
        settle: false,
        means: "proposal",
      } as const;
      return { key: `file ${record.id}`, decision, title: `${record.code} ${record.title}`, reason, confidence };
    }
    case "categorise": {
      const category = categories.find(({ id }) => id === proposal.categoryId);
      if (category === undefined || category.retired) return null;
      const decision = { kind: "categorise", categoryId: category.id, give: true } as const;
      return { key: `category ${category.id}`, decision, title: category.name, reason, confidence };
    }
    case "assign": {
      const member = members.find(({ id }) => id === proposal.ownerId);
      if (member === undefined) return null;
      const absent = members.find(({ id }) => id === proposal.coversFor);
      return {
        key: "owner",
        decision: { kind: "assign", ownerId: member.id },
        title: speak("conversation.assignToName", { name: member.name }),
        reason: absent === undefined ? reason : speak("conversation.coversFor", { name: absent.name, reason }),
        confidence,
      };
    }
    case "settle":
      return {
        key: "settle",
        decision: { kind: "settle" },
        title: speak("common.settle"),
        reason: speak("conversation.neededNoAnswer", { reason }),
        confidence,
      };
    default:
      return assertNever(proposal);
  }
}
