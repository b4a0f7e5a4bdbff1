import { data, Link } from "react-router";
import type { Result } from "../../../core/kernel/result";
import {
  bearPolicy,
  type Deps,
  disposeOf,
  editPolicy,
  holdRecord,
  keepLonger,
  lookAtRetention,
  type Member,
  type PolicyRefusal,
  previewDisposal,
  releaseRecord,
  removePolicy,
  type TrayGrant,
} from "../../../operations/index.server";
import { commonTexts } from "../../../texts/en/common";
import { recordsTexts } from "../../../texts/en/records";
import { useTray } from "../../screens/frame/tray-data";
import type { RetentionOutcome } from "../../screens/records/retention-outcome";
import { RetentionScreen } from "../../screens/records/retention-screen";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { type Reading, readingOf } from "../../server/base/row-view.server";
import { saidByField, speak } from "../../server/base/say.server";
import { type RetentionStep, readRetentionStep } from "../../server/records/retention-form.server";
import { type PreviewView, previewView, retentionView } from "../../server/records/retention-view.server";
import { Page } from "../../ui/page";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/retention";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, recordsTexts, "records.retention");
}

export async function loader({ context }: Route.LoaderArgs) {
  const [deps, grant, member] = [context.get(depsContext), context.get(grantContext), context.get(memberContext)];
  if (grant.role !== "lead") return { retention: null };
  return { retention: retentionView(await lookAtRetention(deps, grant), readingOf(member, deps.now())) };
}

export async function action({ request, context }: Route.ActionArgs) {
  const [deps, grant, member] = [context.get(depsContext), context.get(grantContext), context.get(memberContext)];
  const step = readRetentionStep(await readForm(request), member.timeZone);
  const refused = (problems: Readonly<Record<string, string>>, problem: string | null, status: number) =>
    data<RetentionOutcome>({ ok: false, problems, problem }, { status });
  if (!step.ok) return refused(step.error, step.error.do ?? null, 400);
  const done = await carry({ deps, grant, member }, step.value, readingOf(member, deps.now()));
  if (done.ok) return data<RetentionOutcome>({ ok: true, ...done.value });
  const { error } = done;
  return error.kind === "problems"
    ? refused(saidByField(error.problems), null, 400)
    : refused({}, refusalSaid(error), 409);
}

type Who = { readonly deps: Deps; readonly grant: TrayGrant; readonly member: Member };
type Said = { readonly said: string; readonly preview?: PreviewView };

async function carry(
  { deps, grant, member }: Who,
  step: RetentionStep,
  reading: Reading,
): Promise<Result<Said, PolicyRefusal>> {
  switch (step.do) {
    case "policy":
      return saying(await editPolicy(deps, grant, step.policy), ({ name }) => speak("records.nameSaved", { name }));
    case "remove":
      return saying(await removePolicy(deps, grant, step.id), () => speak("records.policyRemoved"));
    case "bear":
      return saying(await bearPolicy(deps, grant, step.bearer, step.id, step.policyId), () =>
        speak("records.retentionSaved"),
      );
    case "preview": {
      const shown = await previewDisposal(deps, grant, step.recordId);
      return shown.ok ? { ok: true, value: { said: "", preview: previewView(shown.value, reading) } } : shown;
    }
    case "dispose": {
      const { recordId, previewId } = step;
      const gone = await disposeOf(deps, grant, member, recordId, previewId);
      return saying(gone, ({ code, conversations }) =>
        speak("records.disposedOfWhat", { code, counted: countedConversations(conversations) }),
      );
    }
    case "keep":
      return saying(await keepLonger(deps, grant, step.recordId, step.until, step.day), () =>
        speak("records.keptUntilDay", { day: step.day }),
      );
    case "hold":
      return saying(await holdRecord(deps, grant, step.recordId, step.reason), () => speak("records.onHold"));
    case "release":
      return saying(await releaseRecord(deps, grant, step.recordId, step.holdId), () => speak("records.holdEnded"));
  }
}

const countedConversations = (count: number) => speak("common.conversations", { count });

function saying<T>(done: Result<T, PolicyRefusal>, said: (value: T) => string): Result<Said, PolicyRefusal> {
  return done.ok ? { ok: true, value: { said: said(done.value) } } : done;
}

/** How long records are kept: what is due to be looked at, what is held, the policies, and what went. */
export default function RetentionPage({ loaderData: { retention } }: Route.ComponentProps) {
  const say = useSay(recordsTexts, commonTexts);
  const { tray } = useTray();
  return (
    <Page
      title={say("records.retention")}
      beside={
        <Link to={`/${tray.slug}/records`} className="text-act hover:underline">
          {say("common.records")}
        </Link>
      }
    >
      {retention === null ? (
        <p className="px-5 py-6 text-soft">{say("records.onlyLeadsOfTheTray")}</p>
      ) : (
        <RetentionScreen retention={retention} />
      )}
    </Page>
  );
}
