import { X } from "lucide-react";
import type { ReactNode } from "react";
import { Link } from "react-router";
import { readInstant } from "../../../core/kernel/instant";
import { nextUrgency, URGENCY_NAMES } from "../../../core/kernel/urgency";
import type { OtherMail } from "../../../operations/index.server";
import { commonTexts } from "../../../texts/en/common";
import { conversationTexts } from "../../../texts/en/conversation";
import type { Say } from "../../../texts/say";
import { useCommands } from "../../keys/key-desk";
import type { RowView } from "../../server/base/row-view.server";
import type { ConversationView } from "../../server/conversation/conversation-view.server";
import type { PromisedView } from "../../server/conversation/expectation-view.server";
import type { ProposalView } from "../../server/conversation/proposal-view.server";
import { DocketFrame, SidePanel } from "../../ui/layout/side-panel";
import { useSay } from "../../ui/texts/use-say";
import { UrgencyMarks } from "../../ui/urgency-marks";
import { useDecisions, usePending } from "../deciding/decisions";
import { withPending } from "../deciding/foreseen";
import { RowTabs } from "../deciding/row-tabs";
import { OwnerBadge } from "../frame/owner-badge";
import { type Colleague, useTray } from "../frame/tray-data";
import type { ConversationDesk } from "../list/list-screen";
import { AssigneeSuggestions } from "./assignee-suggestions";
import { ExpectationLines } from "./expectation-lines";
import { FollowUpLines } from "./follow-up-lines";
import { Followers } from "./followers";
import { JunkOffer } from "./junk-offer";
import { PossibleParent } from "./possible-parent";
import { isStillProposed, Proposals } from "./proposals";

type DocketCardProps = {
  readonly view: ConversationView;
  readonly desk: ConversationDesk;
  readonly otherMail: OtherMail | null;
  readonly proposals: readonly ProposalView[];
};

/** The card of the conversation: where it stands and why on top, then everything that was decided, then the journal. */
export function DocketCard({ view, desk, otherMail, proposals }: DocketCardProps) {
  const say = useSay(conversationTexts, commonTexts);
  const { mayDecide } = useTray();
  const pending = usePending();
  const row = withPending(view.row, pending);
  const ask = (dialog: Parameters<ConversationDesk["ask"]>[0]) => (mayDecide ? () => desk.ask(dialog) : undefined);
  return (
    <SidePanel label={say("common.docket")} className="bg-ground px-3.5 py-3">
      <DocketFrame standing={view.standingName} reason={view.reason}>
        <Proposed proposals={proposals} row={row} desk={desk} />
        {view.promised !== null && mayDecide && <Promised promised={view.promised} act={desk.act} />}
        <PossibleParent row={row} />
        <AssigneeSuggestions row={row} act={desk.act} />
        <dl>
          <OwnerLines row={row} desk={desk} />
          <Line name={say("common.categories")} keyName="c" onAsk={ask("categories")}>
            <span className="flex flex-wrap gap-1">
              {row.categoryIds.length === 0 && <span className="text-soft">{say("common.none")}</span>}
              <RowTabs ids={row.categoryIds} isNamed />
            </span>
          </Line>
          <Line name={say("conversation.filedToInside")} keyName="f" onAsk={ask("file")}>
            <Records records={view.records} act={mayDecide ? desk.act : undefined} />
          </Line>
          <Line
            name={say("common.urgency")}
            keyName="u"
            onAsk={mayDecide ? () => desk.act({ kind: "urgency", urgency: nextUrgency(row.urgency) }) : undefined}
          >
            <span className="flex items-center gap-2.5">
              <UrgencyMarks urgency={row.urgency} /> {say(URGENCY_NAMES[row.urgency])}
            </span>
          </Line>
          <Line name={say("conversation.expected")} keyName="w" onAsk={ask("expect")}>
            <ExpectationLines view={view} act={mayDecide ? desk.act : undefined} />
          </Line>
          {view.expires !== null && (
            <Line name={say("conversation.expires")} keyName="E" onAsk={ask("expire")}>
              {view.expires}
            </Line>
          )}
          <Line name={say("conversation.restsUntil")} keyName="l" onAsk={ask("rest")}>
            <span className={view.restsUntil === null ? "text-soft" : ""}>
              {view.restsUntil ?? say("conversation.notResting")}
            </span>
          </Line>
          <Line name={say("conversation.followUps")} keyName="d" onAsk={ask("follow-up")}>
            <FollowUpLines followUps={view.followUps} act={mayDecide ? desk.act : undefined} />
          </Line>
          {view.newest !== null && (
            <>
              {view.newest.sender !== null && (
                <Line name={say("conversation.sender")}>
                  <span className="text-sm text-soft">{view.newest.sender}</span>
                </Line>
              )}
              <Line name={say("conversation.readAs")}>
                <span className="text-sm text-soft">{view.newest.readAs}</span>
              </Line>
            </>
          )}
          <Line name={say("conversation.people")}>
            {view.people.join(", ") || <span className="text-soft">{say("common.nobodyYet")}</span>}
          </Line>
        </dl>
      </DocketFrame>
      <JunkOffer other={otherMail} />
      <Journal lines={view.journal} />
    </SidePanel>
  );
}

type PromisedProps = { readonly promised: PromisedView; readonly act: ConversationDesk["act"] };

/** They say what they will do by a day: it can be waited for. */
function Promised({ promised: { text, at, words }, act }: PromisedProps) {
  const say = useSay(conversationTexts);
  return (
    <button
      type="button"
      onClick={() => act({ kind: "expect", until: readInstant(at) })}
      className="block w-full border-t border-hair px-3 py-2 text-start hover:bg-act-soft"
    >
      <span className="block text-act">{say("conversation.waitForItUntil", { words })}</span>
      <span className="mt-0.5 block text-sm text-soft">{say("conversation.theySay", { text })}</span>
    </button>
  );
}

type OwnerLinesProps = { readonly row: RowView; readonly desk: ConversationDesk };

/** Whose it is, who stands in for her, and who is kept informed. */
function OwnerLines({ row, desk }: OwnerLinesProps) {
  const say = useSay(conversationTexts);
  const { members, member, mayDecide } = useTray();
  const owner = members.find(({ id }) => id === row.ownerId);
  const follow = () => desk.act({ kind: "follow", memberId: member.id, follows: !row.followerIds.includes(member.id) });
  return (
    <>
      <Line name={say("conversation.owner")} keyName="a" onAsk={mayDecide ? () => desk.ask("assign") : undefined}>
        <span className="flex items-center gap-2">
          <OwnerBadge ownerId={row.ownerId} isCovered={row.isCovered} />
          {owner === undefined
            ? say("conversation.nobody")
            : owner.id === member.id
              ? say("conversation.youInside")
              : owner.name}
        </span>
        {owner?.away != null && (
          <span className="mt-0.5 block text-sm text-soft">{awayInWords(say, owner.away, row)}</span>
        )}
      </Line>
      <Line name={say("conversation.followers")} keyName="y" onAsk={mayDecide ? follow : undefined}>
        <Followers row={row} act={mayDecide ? desk.act : undefined} />
      </Line>
    </>
  );
}

function awayInWords(
  say: Say<typeof conversationTexts>,
  { back, cover }: NonNullable<Colleague["away"]>,
  { isCovered }: RowView,
): string {
  if (isCovered) return say("conversation.awayUntilYouCover", { back });
  return cover === null
    ? say("conversation.awayUntil", { back })
    : say("conversation.awayUntilCovers", { back, cover });
}

type RecordsProps = {
  readonly records: ConversationView["records"];
  readonly act: ConversationDesk["act"] | undefined;
};

function Records({ records, act }: RecordsProps) {
  const say = useSay(conversationTexts, commonTexts);
  const { tray } = useTray();
  if (records.length === 0) return <span className="text-soft">{say("common.notFiled")}</span>;
  return records.map(({ id, code, title }) => (
    <span key={id} className="flex items-start gap-1">
      <Link to={`/${tray.slug}/records/${code}`} className="min-w-0 text-act hover:underline">
        <b className="font-semibold">{code}</b> {title}
      </Link>
      {act !== undefined && (
        <button
          type="button"
          aria-label={say("conversation.removeFrom", { code })}
          onClick={() => act({ kind: "unfile", recordId: id, called: code })}
          className="-my-0.5 grid size-6 shrink-0 place-items-center rounded-control text-soft hover:text-ink"
        >
          <X size={14} aria-hidden />
        </button>
      )}
    </span>
  ));
}

type ProposedProps = Pick<DocketCardProps, "proposals" | "desk"> & { readonly row: RowView };

/** What is proposed and not so yet; each is accepted by its key. */
function Proposed({ proposals, row, desk }: ProposedProps) {
  const say = useSay(commonTexts);
  const { mayDecide } = useTray();
  const open = mayDecide ? proposals.filter((one) => isStillProposed(one, row)) : [];
  const accept = (at: number) => {
    const proposal = open[at];
    return proposal === undefined || desk.answering ? undefined : () => desk.act(proposal.decision);
  };
  useCommands({ "accept-1": accept(0), "accept-2": accept(1), "accept-3": accept(2), "accept-4": accept(3) });
  if (open.length === 0) return null;
  return (
    <section aria-label={say("common.proposed")} className="border-b border-hair bg-act-soft/40 *:first:border-t-0">
      <Proposals proposals={open} onAccept={desk.act} />
    </section>
  );
}

function Line({
  name,
  keyName,
  onAsk,
  children,
}: {
  name: string;
  keyName?: string;
  onAsk?: (() => void) | undefined;
  children: ReactNode;
}) {
  const say = useSay(commonTexts);
  return (
    <div className="grid min-h-[33px] grid-cols-[74px_minmax(0,1fr)_22px] items-start gap-x-2 border-hair px-3 py-1.5 not-first:border-t">
      <dt className="min-w-0 text-sm text-soft wrap-anywhere">{name}</dt>
      <dd className={`min-w-0 wrap-anywhere ${keyName === undefined ? "col-span-2" : ""}`}>{children}</dd>
      {keyName !== undefined && onAsk !== undefined && (
        <dd>
          <button
            type="button"
            aria-label={say("common.changeOf", { name: name.toLowerCase() })}
            aria-keyshortcuts={keyName}
            onClick={onAsk}
            className="h-[19px] w-[19px] rounded-[2px] border border-rule text-[11px] leading-none text-soft hover:border-act hover:text-act"
          >
            {keyName}
          </button>
        </dd>
      )}
    </div>
  );
}

function Journal({ lines }: { lines: ConversationView["journal"] }) {
  const say = useSay(conversationTexts, commonTexts);
  const { mayDecide } = useTray();
  const { undo } = useDecisions();
  if (lines.length === 0) return null;
  return (
    <section aria-label={say("conversation.journal")} className="px-0.5 pt-4">
      <h2 className="pb-1 text-sm font-semibold text-soft">{say("conversation.journal")}</h2>
      <ol className="space-y-1 text-sm text-soft">
        {lines.map(({ version, when, words, batchId, undone }) => (
          <li key={`${version}-${words}`} className="group">
            <span className="whitespace-nowrap">{when}</span>{" "}
            <span className={undone ? "line-through" : "text-ink"}>{words}</span>
            {batchId !== null && mayDecide && (
              <button
                type="button"
                onClick={() => undo(batchId)}
                className="ml-1.5 text-act underline-offset-2 hover:underline"
              >
                {say("common.undoInside")}
              </button>
            )}
          </li>
        ))}
      </ol>
    </section>
  );
}
