import { Check, X } from "lucide-react";
import { data, Link } from "react-router";
import { type MessageId, readId } from "../../../core/kernel/ids";
import { explainMessage } from "../../../operations/index.server";
import { commonTexts } from "../../../texts/en/common";
import { rulesTexts } from "../../../texts/en/rules";
import { useTray } from "../../screens/frame/tray-data";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { speak } from "../../server/base/say.server";
import { type ExplainedLine, type ExplainedView, explainedView } from "../../server/rules/explained-view.server";
import { QUIET_LINK } from "../../ui/button";
import { Page } from "../../ui/page";
import { MarkedText } from "../../ui/texts/marked-text";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/message-rules";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, rulesTexts, "rules.whyAndWhyNot");
}

export async function loader({ context, params }: Route.LoaderArgs): Promise<ExplainedView> {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const id = readId<MessageId>(params.message);
  const explained = id.ok ? await explainMessage(deps, grant, id.value) : null;
  if (explained === null) throw data(speak("server.noSuchMessage"), { status: 404 });
  return explainedView(explained, deps.now(), context.get(memberContext).timeZone);
}

/** What each rule makes of a message, part by part, beside the message with what they found in it. */
export default function MessageRulesPage({ loaderData: explained }: Route.ComponentProps) {
  const say = useSay(rulesTexts);
  const { tray } = useTray();
  return (
    <Page
      title={say("rules.whyAndWhyNot")}
      beside={
        <Link
          to={`/${tray.slug}/${explained.standing}/${explained.conversationId}`}
          className={`${QUIET_LINK} ms-auto`}
        >
          {say("rules.toTheConversation")}
        </Link>
      }
    >
      <div className="grid min-h-full lg:grid-cols-[minmax(0,1fr)_minmax(0,26rem)]">
        <section aria-label={say("rules.rules")} className="p-4">
          <p className="mb-3 text-soft">{say("rules.asTheyAreNow")}</p>
          {explained.rules.length === 0 && <p>{say("rules.noRulesToAsk")}</p>}
          <ol className="border-t border-rule">
            {explained.rules.map((rule) => (
              <ExplainedRule key={rule.id} rule={rule} />
            ))}
          </ol>
        </section>
        <MarkedMessage explained={explained} />
      </div>
    </Page>
  );
}

function MarkedMessage({ explained: { who, when, subject, text } }: { explained: ExplainedView }) {
  const say = useSay(rulesTexts, commonTexts);
  return (
    <article
      aria-label={say("rules.theMessage")}
      className="border-rule bg-sunk/40 p-4 max-lg:order-first max-lg:border-b lg:border-s"
    >
      <p className="flex gap-3 text-sm text-soft">
        <span dir="auto" className="min-w-0 flex-1 truncate">
          {who}
        </span>
        {when}
      </p>
      <h2 dir="auto" className="mt-1 font-serif text-lg">
        <MarkedText pieces={subject} empty={say("common.noSubject")} />
      </h2>
      <p
        dir="auto"
        className="mt-2 text-[15px] leading-[23px] break-words whitespace-pre-wrap max-lg:max-h-60 max-lg:overflow-y-auto"
      >
        <MarkedText pieces={text} />
      </p>
    </article>
  );
}

function ExplainedRule({ rule }: { rule: ExplainedView["rules"][number] }) {
  const say = useSay(rulesTexts);
  const isForIt = rule.verdict === "forIt";
  return (
    <li className="border-b border-hair py-3" aria-label={rule.name}>
      <h2 className="flex flex-wrap items-baseline gap-x-3">
        <span className="font-semibold">{rule.name}</span>
        <span className={isForIt ? "text-act" : "text-soft"}>
          {say("rules.verdict", { verdict: rule.verdict })}
          {isForIt && rule.isLast && say("rules.noLaterRuleApplies")}
        </span>
      </h2>
      <Lines lines={rule.condition} />
      {rule.exception.length > 0 && (
        <>
          <p className="mt-1.5 text-sm text-soft">{say("rules.exceptFor")}</p>
          <Lines lines={rule.exception} />
        </>
      )}
    </li>
  );
}

const STEPS = ["ps-0", "ps-5", "ps-10", "ps-[3.75rem]", "ps-20"];

function Lines({ lines }: { lines: readonly ExplainedLine[] }) {
  const say = useSay(rulesTexts);
  return (
    <ul className="mt-1">
      {lines.map(({ at, depth, words, holds }) => (
        <li key={at} className={`flex items-baseline gap-2 ${STEPS[Math.min(depth, STEPS.length - 1)]}`}>
          {holds ? (
            <Check size={14} aria-hidden className="shrink-0 translate-y-0.5 text-act" />
          ) : (
            <X size={14} aria-hidden className="shrink-0 translate-y-0.5 text-soft" />
          )}
          <span className="sr-only">{holds ? say("rules.isSo") : say("rules.isNotSo")}</span>
          <span dir="auto" className={holds ? "" : "text-soft"}>
            {words}
          </span>
        </li>
      ))}
    </ul>
  );
}
