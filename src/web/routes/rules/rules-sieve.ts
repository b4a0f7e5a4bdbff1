import { scriptOfTray } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { download } from "../../server/base/download.server";
import { speak } from "../../server/base/say.server";
import type { Route } from "./+types/rules-sieve";

/** The rules of a tray as a script for a mail server (RFC 5228, RFC 5804 1.6 for its type); what it lacks stands at its end. */
export async function loader({ context }: Route.LoaderArgs) {
  const grant = context.get(grantContext);
  const { script, lacks } = await scriptOfTray(context.get(depsContext), grant);
  const notes = lacks.map(({ rule, lacks: what }) => `# ${rule}: ${speak(what)}\n`);
  return download(
    Buffer.from(script + (notes.length === 0 ? "" : `\n${notes.join("")}`)),
    `${grant.tray.slug}-rules.sieve`,
    "application/sieve; charset=utf-8",
  );
}
