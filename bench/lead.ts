import type { Wired } from "~/main/wiring";
import { signInToDemo, type TrayGrant, traysOf, whoIs } from "~/operations/index.server";

/** The rights of a colleague who leads the first tray. */
export async function leadOf({ deps }: Wired): Promise<TrayGrant> {
  const session = await signInToDemo(deps, "ines");
  const member = session.ok ? await whoIs(deps, session.value.token) : null;
  const [grant] = member === null ? [] : await traysOf(deps, member);
  if (grant === undefined) throw new Error("the bench has nobody to sign in");
  return { ...grant, role: "lead" };
}
