import { sizeInWords } from "../../../core/kernel/size-in-words";
import { policyInWords } from "../../../core/retention/policy";
import type { Term } from "../../../core/retention/term";
import { termInWords } from "../../../core/retention/term-in-words";
import { dayAndTime, dayInWords } from "../../../core/time/day-words";
import type { DisposalPreview, RecordRetention, RetainedLine, Retention } from "../../../operations/index.server";
import type { Reading } from "../base/row-view.server";
import { speak } from "../base/say.server";

const LISTED = 200;

/** How long records are kept, in words. */
export function retentionView(retention: Retention, reading: Reading) {
  const { now, zone } = reading;
  const lines = (some: readonly RetainedLine[]) => some.slice(0, LISTED).map((line) => lineView(line, reading));
  return {
    policies: retention.policies.map((policy) => ({ ...policy, words: speak(policyInWords(policy)) })),
    types: retention.types,
    categories: retention.categories,
    due: lines(retention.due),
    coming: lines(retention.coming),
    held: lines(retention.held),
    counts: { due: retention.due.length, coming: retention.coming.length, held: retention.held.length },
    certificates: retention.certificates.map(({ at, previewedAt, bytes, ...certificate }) => ({
      ...certificate,
      when: speak(dayAndTime(at, now, zone)),
      previewed: speak(dayAndTime(previewedAt, now, zone)),
      size: speak(sizeInWords(bytes)),
    })),
  };
}

export type RetentionView = ReturnType<typeof retentionView>;

function termView(term: Term, { now, zone }: Pick<Reading, "now" | "zone">) {
  const { until, why } = termInWords(term, (at) => dayInWords(at, now, zone));
  return { until: speak(until), why: speak(why) };
}

function lineView({ id, code, title, kind, filed, term, goesAt }: RetainedLine, { now, zone }: Reading) {
  const { until, why } = termView(term, { now, zone });
  const over = term.kind === "until" ? speak(dayInWords(term.at, now, zone)) : null;
  return {
    id,
    code,
    title,
    kind,
    filed,
    until,
    why,
    over,
    goes: goesAt === null ? null : speak(dayInWords(goesAt, now, zone)),
    byItself: term.kind === "until" && term.endsIn === "disposal",
  };
}

export type RetainedLineView = ReturnType<typeof lineView>;

/** What would go with a record, ready to be looked over. */
export function previewView({ previewId, named, term }: DisposalPreview, { now, zone }: Reading) {
  const { goes, elsewhere, open, messages, documents, bytes } = named;
  const listed = (some: typeof goes) =>
    some.slice(0, LISTED).map(({ id, subject, who, newestAt, messages: count }) => ({
      id,
      subject,
      who,
      count,
      when: speak(dayInWords(newestAt, now, zone)),
    }));
  return {
    previewId,
    open,
    messages,
    documents,
    size: speak(sizeInWords(bytes)),
    conversations: goes.length,
    goes: listed(goes),
    stays: elsewhere.length,
    elsewhere: listed(elsewhere),
    why: termView(term, { now, zone }),
  };
}

export type PreviewView = ReturnType<typeof previewView>;

/** How long one record is kept, for its card. */
export function keptView({ term, policyId, policies, holds }: RecordRetention, { now, zone }: Reading) {
  return {
    ...termView(term, { now, zone }),
    policyId,
    policies: policies.map(({ id, name }) => ({ id, name })),
    holds: holds.map(({ id, reason, at, by }) => ({ id, reason, by, when: speak(dayInWords(at, now, zone)) })),
  };
}

export type KeptView = ReturnType<typeof keptView>;
