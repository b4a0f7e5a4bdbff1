import Joi from "joi";
import { data } from "react-router";
import { DAY } from "../../../core/kernel/instant";
import { looseEndInWords } from "../../../core/loose-ends/loose-end";
import { isStopped } from "../../../core/rules/gone-names";
import {
  type Deps,
  getDrafts,
  getLooseEnds,
  getStopped,
  type Member,
  type TrayGrant,
} from "../../../operations/index.server";
import { readingOf, rowView } from "../base/row-view.server";
import { problemOf, speak } from "../base/say.server";
import { listedDraftView } from "../writing/own-draft-view.server";

const PART = Joi.object<{ from: number; limit: number }>({
  from: Joi.number().integer().min(0).max(10_000).default(0),
  limit: Joi.number().integer().min(1).max(500).default(20),
});

/** The part of a tray's loose ends that a URL asks for, ready to be drawn; throws an answer of 400 for one that there cannot be. */
export async function looseEndsPart(deps: Deps, grant: TrayGrant, member: Member, query: URLSearchParams) {
  const asked = PART.validate(Object.fromEntries(query), { stripUnknown: true });
  if (asked.error !== undefined) throw data(problemOf(asked.error), { status: 400 });
  const { rows, total } = await getLooseEnds(deps, grant, asked.value);
  const reading = readingOf(member, deps.now(), grant.covering);
  // They stand above the first of the rows, and are not asked for with more of these.
  const drafts = asked.value.from > 0 ? [] : await getDrafts(deps, grant);
  return {
    total,
    /** What the member began more than a day ago and neither sent nor threw away. */
    drafts: drafts
      .filter(({ state, updatedAt }) => state === "own" && updatedAt < reading.now - DAY)
      .map((draft) => listedDraftView(draft, reading)),
    now: reading.now,
    stopped: (await getStopped(deps, grant)).map(({ what, id, name, gone }) => {
      return { what, id, name, words: speak(isStopped(gone)) };
    }),
    rows: rows.map(({ row, kind, since, inKind }) => ({
      kind,
      inKind,
      row: rowView(row, reading),
      words: speak(looseEndInWords(kind, since, reading.now)),
    })),
  };
}

export type LooseEndsPart = Awaited<ReturnType<typeof looseEndsPart>>;
