import { data, redirect } from "react-router";
import { grantsContext } from "../../server/base/context.server";
import { speak } from "../../server/base/say.server";
import type { Route } from "./+types/home";

export function loader({ context }: Route.LoaderArgs) {
  const [first] = context.get(grantsContext);
  if (first === undefined) throw data(speak("server.inNoTrayYet"), { status: 403 });
  return redirect(`/${first.tray.slug}/to-sort`);
}
