import { readMailboxes } from "../../../core/kernel/email-address";
import { type ConversationId, readId } from "../../../core/kernel/ids";
import { type Instant, readInstant } from "../../../core/kernel/instant";
import {
  type Deps,
  datesToOffer,
  seriesAround,
  type TheirMorning,
  type TrayGrant,
  theirMorning,
  understandDate,
  understandDay,
} from "../../../operations/index.server";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { type Reading, readingOf } from "../../server/base/row-view.server";
import { speak } from "../../server/base/say.server";
import { type DateAnswer, dateView, type SeriesAnswer } from "../../server/deciding/date-view.server";
import type { Route } from "./+types/dates";

/**
 * The dates to offer for a conversation, and what a text means as a date: `text` as typed, `edge` the side of the day that
 * counts; `day` which day alone a text means. With `to` also when the next day of whoever a letter goes to begins; with
 * `around` alone the moments of a series about a day.
 */
export async function loader({ request, context }: Route.LoaderArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const query = new URL(request.url).searchParams;
  const reading = readingOf(context.get(memberContext), deps.now());
  if (query.has("day")) {
    const day = await understandDay(deps, grant, query.get("day") ?? "");
    return Response.json(day.ok ? { day: day.value, problem: null } : { day: null, problem: speak(day.error) });
  }
  const around = readInstant(query.get("around") ?? "");
  return Response.json(
    await (around === null ? datesFor(deps, grant, query, reading) : seriesFor(deps, grant, around, reading)),
  );
}

async function datesFor(deps: Deps, grant: TrayGrant, query: URLSearchParams, reading: Reading): Promise<DateAnswer> {
  const edge = query.get("edge") === "closes" ? "closes" : "opens";
  const id = readId<ConversationId>(query.get("conversation") ?? "");
  const text = query.get("text") ?? "";
  const offers = await datesToOffer(deps, grant, id.ok ? id.value : null, edge, query.has("usual"));
  const morning = await morningOfFirst(deps, grant, query.get("to") ?? "");
  const meant = text.trim() === "" ? null : await understandDate(deps, grant, text, edge);
  return {
    offers: [
      ...(morning === null ? [] : [{ label: morningInWords(morning), ...dateView(morning.at, reading) }]),
      ...offers.map(({ label, at }) => ({ label: speak(label), ...dateView(at, reading) })),
    ],
    meant: meant?.ok === true ? dateView(meant.value.at, reading) : null,
    other: meant?.ok === true && meant.value.other !== null ? dateView(meant.value.other, reading) : null,
    problem: meant?.ok === false ? speak(meant.error) : null,
  };
}

async function seriesFor(deps: Deps, grant: TrayGrant, about: Instant, reading: Reading): Promise<SeriesAnswer> {
  const moments = await seriesAround(deps, grant, about);
  return { steps: moments.map(({ step, at }) => ({ step, isOver: at <= reading.now, ...dateView(at, reading) })) };
}

function morningOfFirst(deps: Deps, grant: TrayGrant, to: string): Promise<TheirMorning | null> {
  const [first] = readMailboxes(to).mailboxes;
  return first === undefined ? Promise.resolve(null) : theirMorning(deps, grant, first.address);
}

// How far their clock is ahead of UTC as letters are dated: "+09:00".
function morningInWords({ name, offsetMinutes }: TheirMorning): string {
  const minutes = Math.abs(offsetMinutes);
  const [hours, rest] = [Math.floor(minutes / 60), minutes % 60].map((part) => String(part).padStart(2, "0"));
  return speak("writing.startOfTheirDay", { name, offset: `${offsetMinutes < 0 ? "−" : "+"}${hours}:${rest}` });
}
