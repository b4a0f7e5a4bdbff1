import { tz } from "@date-fns/tz";
import { addDays, startOfDay, subDays } from "date-fns";
import type { ConversationId, MemberId } from "../core/kernel/ids";
import { type Instant, instantOf, later, MINUTE } from "../core/kernel/instant";
import type { Result } from "../core/kernel/result";
import {
  type Deps,
  decide,
  editGroup,
  handDraft,
  planTimeOff,
  type Tray,
  type TrayGrant,
  watch,
} from "../operations/index.server";
import type { Colleague } from "./script";
import { ZONE } from "./world";

/** The office as far as working together goes: who may decide as whom, and the conversations by their subjects. */
export type Office = {
  readonly deps: Deps;
  readonly clock: { now: Instant };
  readonly trays: readonly Tray[];
  readonly memberId: (colleague: Colleague) => MemberId;
  readonly grantOf: (colleague: Colleague, tray: string) => TrayGrant;
  readonly conversationOf: (subject: string) => ConversationId;
};

/**
 * What the office does together: a group that takes turns, somebody who is away and covered, notes that name, followers,
 * a draft that waits to be checked, and something watched.
 */
export async function workTogether(office: Office): Promise<void> {
  const { deps, clock, memberId, grantOf, conversationOf } = office;
  const now = clock.now;
  const at = (minutesAgo: number) => {
    clock.now = later(now, -minutesAgo * MINUTE);
  };
  const about = (subject: string) => ({ ids: [conversationOf(subject)], seenVersion: null });
  const ines = grantOf("ines", "office");
  at(240);
  const memberIds = [memberId("col"), memberId("petra"), memberId("tobias")];
  done(await editGroup(deps, ines, { id: null, name: "Workshop", memberIds }));
  done(await planTimeOff(deps, ines, mattisAway(office, now)));
  done(await watch(deps, ines, "words", "humidity"));
  at(95);
  const hum = "Blower hum in the vestry";
  const note =
    "@Ines, before we promise a day:\n- it hums only with the tremulant on, so it is the belt and not the motor\n- P-26-012 has the bench until the 3rd\n@Tobias has the drawings.";
  done(await decide(deps, grantOf("petra", "office"), about(hum), { kind: "note", text: note }));
  at(90);
  done(await decide(deps, ines, about(hum), { kind: "follow", memberId: memberId("ines"), follows: true }));
  at(35);
  const content = {
    to: "Otto Quayle <otto@quayle.example>",
    cc: "",
    subject: `Re: ${hum}`,
    html: "<p>Dear Mr Quayle,</p><p>Thank you for the recording. It hums with the tremulant only, so that it is its belt and not the blower. We could be with you on the 9th at nine and would be done by noon.</p><p>Would that suit you?</p>",
    after: "expect" as const,
    day: "",
  };
  const draft = { content, to: memberId("ines"), note: "Is the 9th free? Then please send.", seen: null };
  done(await handDraft(deps, grantOf("petra", "office"), conversationOf(hum), draft));
  clock.now = now;
}

function mattisAway({ trays, memberId }: Office, now: Instant) {
  const midnight = startOfDay(now, { in: tz(ZONE) });
  const covers = { office: "col", parts: "petra" } as const;
  return {
    memberId: memberId("mattis"),
    from: instantOf(subDays(midnight, 1)),
    until: instantOf(addDays(midnight, 6)),
    covers: trays.flatMap(({ id: trayId, slug }) => {
      const cover = covers[slug as keyof typeof covers];
      return cover === undefined ? [] : [{ trayId, recordId: null, memberId: memberId(cover) }];
    }),
  };
}

function done<T, E>(result: Result<T, E>): T {
  if (!result.ok) throw new Error(`the made-up office was refused something: ${JSON.stringify(result.error)}`);
  return result.value;
}
