import { data } from "react-router";
import { callJunkSender } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import type { Route } from "./+types/junk-sender";

export async function action({ request, context }: Route.ActionArgs) {
  const form = await readForm(request);
  const isJunk = form.get("junk") === "true";
  const done = await callJunkSender(
    context.get(depsContext),
    context.get(grantContext),
    String(form.get("address") ?? ""),
    isJunk,
  );
  return done.ok ? { problem: null } : data({ problem: refusalSaid(done.error) }, { status: 409 });
}
