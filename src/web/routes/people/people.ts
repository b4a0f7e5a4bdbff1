import { data } from "react-router";
import type { MemberId } from "../../../core/kernel/ids";
import { listMembers, namesIn } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import type { Route } from "./+types/people";

/** Everybody of the office who can be named, and whether she may look into this tray. */
export type PeopleAnswer = {
  readonly people: readonly { readonly id: MemberId; readonly name: string; readonly mayLook: boolean }[];
};

export async function loader({ context }: Route.LoaderArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const [everybody, { members }] = await Promise.all([listMembers(deps), namesIn(deps, grant)]);
  const inTray = new Set(members.map(({ id }) => id));
  return data<PeopleAnswer>({ people: everybody.map(({ id, name }) => ({ id, name, mayLook: inTray.has(id) })) });
}
