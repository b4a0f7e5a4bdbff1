import { data, redirect } from "react-router";
import { grantsContext } from "../../server/base/context.server";
import type { Route } from "./+types/home";

export function loader({ context }: Route.LoaderArgs) {
  const [first] = context.get(grantsContext);
  if (first === undefined) throw data("You are in no tray yet; ask a lead to let you into one.", { status: 403 });
  return redirect(`/${first.tray.slug}/to-sort`);
}
