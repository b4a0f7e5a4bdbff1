import { KeyCap } from "../ui/button";
import { type CommandId, keyCap } from "./commands";
import { useKeyOf } from "./key-desk";

/** The key that works a command for whoever looks. */
export function CommandKey({ id }: { readonly id: CommandId }) {
  return <KeyCap>{keyCap(useKeyOf()(id))}</KeyCap>;
}
