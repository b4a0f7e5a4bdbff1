import { data } from "react-router";
import { type MessageId, readId } from "../../../core/kernel/ids";
import { leaveList } from "../../../operations/index.server";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import type { Route } from "./+types/leave-list";

export async function action({ params, context }: Route.ActionArgs) {
  const id = readId<MessageId>(params.message);
  if (!id.ok) throw data("There is no such message.", { status: 404 });
  const left = await leaveList(
    context.get(depsContext),
    context.get(grantContext),
    context.get(memberContext),
    id.value,
  );
  return left.ok ? { by: left.value.by, problem: null } : data({ by: null, problem: left.error }, { status: 409 });
}
