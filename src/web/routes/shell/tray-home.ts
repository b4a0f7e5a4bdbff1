import { redirect } from "react-router";
import type { Route } from "./+types/tray-home";

export function loader({ params }: Route.LoaderArgs) {
  return redirect(`/${params.tray}/to-sort`);
}
