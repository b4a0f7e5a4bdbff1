import { useState } from "react";
import { historyTexts } from "../../../texts/en/history";
import type { HistoryView } from "../../server/rules/history-view.server";
import { Button } from "../../ui/button";
import { Field } from "../../ui/field";
import { useSay } from "../../ui/texts/use-say";
import { useFormAction } from "../forms/use-form-action";
import { useWho } from "../office/journal-step";
import { RuleSentence } from "../rules/rule-sentence";

type Version = HistoryView["versions"][number];
type RuleVersionsProps = {
  readonly ruleId: string;
  readonly mayUndo: boolean;
  readonly versions: readonly Version[];
};

/** The versions of a rule, the newest first: who made each, what it was, and the means to take back what it did. */
export function RuleVersions({ ruleId, mayUndo, versions }: RuleVersionsProps) {
  const say = useSay(historyTexts);
  return (
    <section aria-label={say("history.versions")} className="border-rule bg-sunk/40 p-4 max-lg:border-t lg:border-s">
      <h2 className="mb-2 border-b border-hair pb-0.5 font-serif text-[15px]">{say("history.versions")}</h2>
      <ol className="space-y-4">
        {versions.map((version) => (
          <VersionLine key={version.version} ruleId={ruleId} mayUndo={mayUndo} version={version} />
        ))}
      </ol>
    </section>
  );
}

type VersionProps = { readonly ruleId: string; readonly mayUndo: boolean; readonly version: Version };

function VersionLine({ ruleId, mayUndo, version }: VersionProps) {
  const say = useSay(historyTexts);
  const who = useWho({ by: version.by, rule: null });
  return (
    <li className="text-sm">
      <p>
        <b className="font-semibold">
          {version.version === 0
            ? say("history.withoutVersions")
            : say("history.version", { version: version.version })}
        </b>{" "}
        <span className="text-soft">{version.when}</span>
      </p>
      {version.by !== null && (
        <p>
          <b className="font-semibold">{who}</b> {version.changes}
        </p>
      )}
      {version.rule !== null && (
        <p className="mt-0.5 text-soft">
          <RuleSentence rule={version.rule} />
          {version.rule.times !== "" && ` ${version.rule.times}`}
        </p>
      )}
      <Did ruleId={ruleId} mayUndo={mayUndo} version={version} />
    </li>
  );
}

function Did({ ruleId, mayUndo, version: { version, did, undone, since } }: VersionProps) {
  const say = useSay(historyTexts);
  const [from, setFrom] = useState<string | null>(null);
  const { post, isBusy, problems, refused } = useFormAction(`rules/${ruleId}/history`, () => setFrom(null));
  return (
    <>
      <p className="mt-0.5 flex flex-wrap items-center gap-x-3">
        {say("history.versionDid", { did, undone })}
        {mayUndo && did > undone && from === null && (
          <Button
            look="quiet"
            aria-label={say("history.undoWhatVersionDid", { version })}
            onClick={() => setFrom(since)}
            className="h-6! px-1! text-sm"
          >
            {say("history.undoWhatItDid")}
          </Button>
        )}
      </p>
      {from !== null && (
        <form
          className="mt-1.5 space-y-2 border-s-2 border-rule ps-3"
          onSubmit={(event) => {
            event.preventDefault();
            post({ do: "undo", version: String(version), since: from });
          }}
        >
          <Field
            type="datetime-local"
            label={say("history.sinceWhen")}
            value={from}
            onChange={(event) => setFrom(event.target.value)}
            problem={problems.since}
            className="w-60"
          />
          {refused?.problem != null && (
            <p role="alert" className="text-late">
              {refused.problem}
            </p>
          )}
          <p className="text-soft">{say("history.staysWhereDecidedSince")}</p>
          <span className="flex gap-2">
            <Button type="submit" look="filled" disabled={isBusy}>
              {say("history.undoIt")}
            </Button>
            <Button look="quiet" onClick={() => setFrom(null)}>
              {say("history.leaveIt")}
            </Button>
          </span>
        </form>
      )}
    </>
  );
}
