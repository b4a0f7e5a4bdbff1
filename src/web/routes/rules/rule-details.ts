import { detailsAskedBy } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { askedView } from "../../server/base/say.server";
import type { Route } from "./+types/rule-details";

/** What the record of a code asks for of what is filed on it. */
export async function loader({ context, request }: Route.LoaderArgs) {
  const code = new URL(request.url).searchParams.get("code") ?? "";
  const asked = await detailsAskedBy(context.get(depsContext), context.get(grantContext), code.trim().toUpperCase());
  return { code, asked: asked === null ? null : askedView(asked) };
}

/** Whoever asked has the answer; what is tried meanwhile changes nothing about it. */
export function shouldRevalidate(): boolean {
  return false;
}
