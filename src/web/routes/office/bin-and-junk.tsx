import { X } from "lucide-react";
import { data, useFetcher } from "react-router";
import { setPuttingAway, traySettings } from "../../../operations/index.server";
import { commonTexts } from "../../../texts/en/common";
import { officeTexts } from "../../../texts/en/office";
import { SettingsForm } from "../../screens/forms/settings-form";
import { type FormOutcome, useFormAction } from "../../screens/forms/use-form-action";
import { useTray } from "../../screens/frame/tray-data";
import { LeadsOnly } from "../../screens/shell/leads-only";
import { depsContext, grantContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { speak } from "../../server/base/say.server";
import { readPuttingAway } from "../../server/office/tray-settings-form.server";
import { Setting, SettingInput } from "../../ui/layout/setting";
import { Page } from "../../ui/page";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/bin-and-junk";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, officeTexts, "office.binJunkAndSettling");
}

export async function loader({ context }: Route.LoaderArgs) {
  const settings = await traySettings(context.get(depsContext), context.get(grantContext));
  const { binDays, junkDays, filesFirst, junkSenders } = settings;
  return { binDays, junkDays, filesFirst, junkSenders: junkSenders.map(({ address, by }) => ({ address, by })) };
}

export async function action({ request, context }: Route.ActionArgs) {
  const posted = readPuttingAway(await readForm(request));
  if (!posted.ok) return data<FormOutcome>({ ok: false, problems: posted.error, problem: null }, { status: 400 });
  const done = await setPuttingAway(context.get(depsContext), context.get(grantContext), posted.value);
  if (done.ok) return data<FormOutcome>({ ok: true, said: speak("office.binJunkAndSettlingSaved") });
  return data<FormOutcome>({ ok: false, problems: {}, problem: refusalSaid(done.error) }, { status: 403 });
}

/** When what was thrown away goes for good, whose mail is junk, and whether only what is filed is settled. */
export default function BinAndJunk({ loaderData }: Route.ComponentProps) {
  const say = useSay(officeTexts, commonTexts);
  const { binDays, junkDays, filesFirst, junkSenders } = loaderData;
  const { mayLead } = useTray();
  const step = useFormAction("bin-and-junk");
  const { problems } = step;
  return (
    <Page title={say("office.binJunkAndSettling")} beside={!mayLead && <LeadsOnly />}>
      <div className="max-w-[960px] px-5 py-2">
        <SettingsForm step={step} mayChange={mayLead}>
          <Term name={say("office.emptyTheBinAfter")} id="bin-days" days={binDays} problem={problems["bin-days"]}>
            {say("office.whatLiesThereLongerIs")}
          </Term>
          <Term name={say("office.deleteJunkAfter")} id="junk-days" days={junkDays} problem={problems["junk-days"]}>
            {say("office.whatWasMarkedAsJunk")}
          </Term>
          <Setting name={say("office.settleOnlyWhatIsFiled")} about={say("office.asksForARecordBefore")}>
            <label className="flex min-h-6 cursor-pointer items-center gap-2.5">
              <input type="checkbox" name="files-first" defaultChecked={filesFirst} className="size-4 accent-act" />
              {say("office.settleOnlyWhatIsFiledTo")}
            </label>
          </Setting>
        </SettingsForm>
        <section aria-label={say("office.junkSenders")}>
          <h2 className="border-b border-rule pb-1 font-semibold">{say("office.mailOfTheseGoesStraight")}</h2>
          {junkSenders.length === 0 && <p className="py-2 text-soft">{say("office.nobodysAConversationInJunk")}</p>}
          <ul>
            {junkSenders.map(({ address, by }) => (
              <JunkSender key={address} address={address} by={by} />
            ))}
          </ul>
        </section>
      </div>
    </Page>
  );
}

type TermProps = {
  readonly name: string;
  readonly id: string;
  /** Null for never. */
  readonly days: number | null;
  readonly problem: string | undefined;
  readonly children: string;
};

function Term({ name, id, days, problem, children }: TermProps) {
  const say = useSay(officeTexts);
  return (
    <Setting name={name} about={children} htmlFor={id}>
      <SettingInput
        id={id}
        inputMode="numeric"
        placeholder={say("office.never")}
        defaultValue={days ?? ""}
        problem={problem}
        className="w-20"
      />{" "}
      {say("office.days")}
    </Setting>
  );
}

function JunkSender({ address, by }: { address: string; by: string }) {
  const say = useSay(officeTexts, commonTexts);
  const { tray, members, mayDecide } = useTray();
  const fetcher = useFetcher();
  return (
    <li className="flex items-center gap-3 border-b border-hair py-1">
      <span className="min-w-0 flex-1 truncate">{address}</span>
      <span className="text-sm text-soft">
        {members.find(({ id }) => id === by)?.name ?? say("common.aFormerColleague")}
      </span>
      {mayDecide && (
        <fetcher.Form method="post" action={`/${tray.slug}/junk-sender`}>
          <input type="hidden" name="address" value={address} />
          <button
            type="submit"
            name="junk"
            value="false"
            aria-label={say("office.noLongerJunk", { address })}
            className="grid size-7 place-items-center rounded-control text-soft hover:bg-sunk hover:text-ink"
          >
            <X size={14} aria-hidden />
          </button>
        </fetcher.Form>
      )}
    </li>
  );
}
