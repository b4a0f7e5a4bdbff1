import { redirect } from "react-router";
import { signOut } from "../../../operations/index.server";
import { depsContext } from "../../server/base/context.server";
import { dropSession, sessionToken } from "../../server/base/session-cookie.server";
import type { Route } from "./+types/sign-out";

export async function action({ request, context }: Route.ActionArgs) {
  const token = await sessionToken(request);
  if (token !== null) await signOut(context.get(depsContext), token);
  return redirect("/sign-in", { headers: { "Set-Cookie": await dropSession(context) } });
}

export function loader() {
  return redirect("/");
}
