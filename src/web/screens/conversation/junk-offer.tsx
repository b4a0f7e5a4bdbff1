import { useEffect } from "react";
import { useFetcher } from "react-router";
import type { OtherMail } from "../../../operations/index.server";
import { conversationTexts } from "../../../texts/en/conversation";
import { Button } from "../../ui/button";
import { noticeProblem } from "../../ui/notices";
import { useSay } from "../../ui/texts/use-say";
import { useDecisions } from "../deciding/decisions";
import { useTray } from "../frame/tray-data";

/** On a conversation in Junk: the rest of its sender's mail, now and to come. */
export function JunkOffer({ other }: { other: OtherMail | null }) {
  const { mayDecide } = useTray();
  return other === null || !mayDecide ? null : <Offer {...other} />;
}

function Offer({ address, open, isJunkSender }: OtherMail) {
  const say = useSay(conversationTexts);
  const { tray } = useTray();
  const { decide } = useDecisions();
  const fetcher = useFetcher<{ problem: string | null }>();
  const problem = fetcher.data?.problem ?? null;
  useEffect(() => {
    if (problem !== null) noticeProblem(problem);
  }, [problem]);
  const others = say("conversation.otherConversations", { open });
  const everything = {
    scope: "open",
    query: `${new URLSearchParams({ person: address })}`,
    lane: null,
    count: open,
  } as const;
  const call = (junk: boolean) =>
    fetcher.submit({ address, junk: `${junk}` }, { method: "post", action: `/${tray.slug}/junk-sender` });
  return (
    <section aria-label={say("conversation.otherMailOfThisSender")} className="px-0.5 pt-4 text-sm">
      <h2 className="pb-1 font-semibold text-soft">{address}</h2>
      {open > 0 && (
        <p className="flex items-center justify-between gap-2">
          <span>{say("conversation.open", { others })}</span>
          <Button
            className="h-7"
            onClick={() =>
              decide({ kind: "junk" }, { rows: [], everything }, say("conversation.junkEverythingOf", { address }))
            }
          >
            {say("conversation.junkAllToo", { open })}
          </Button>
        </p>
      )}
      <p className="mt-1.5 flex items-center justify-between gap-2">
        <span>
          {isJunkSender ? say("conversation.whatComesGoesStraightTo") : say("conversation.whatComesIsSortedAs")}
        </span>
        <Button className="h-7" onClick={() => call(!isJunkSender)}>
          {isJunkSender ? say("conversation.noLonger") : say("conversation.alwaysJunk")}
        </Button>
      </p>
    </section>
  );
}
