import type { RecordId } from "../kernel/ids";
import type { Role } from "./role";

/** What a member, a stranger or the operator did about signing in, rights, or taking mail out. */
export type AccessDeed =
  | { readonly kind: "signed-in" }
  /** The name that was tried; null where nobody has it, as people type passwords there. */
  | { readonly kind: "sign-in-failed"; readonly name: string | null }
  /** A wrong password where the own one is asked for, by whoever has the session. */
  | { readonly kind: "password-refused" }
  | { readonly kind: "signed-out" }
  | { readonly kind: "sessions-ended" }
  | { readonly kind: "password-changed" }
  | { readonly kind: "invited"; readonly role: Role }
  | { readonly kind: "invitation-taken-back" }
  | { readonly kind: "came-in"; readonly role: Role }
  | { readonly kind: "role-changed"; readonly from: Role; readonly to: Role }
  | { readonly kind: "shut-out" }
  | { readonly kind: "disabled" }
  | { readonly kind: "let-in-again" }
  | { readonly kind: "record-access-changed"; readonly recordId: RecordId }
  | { readonly kind: "exported"; readonly what: ExportedThing; readonly count: number; readonly format: string }
  | { readonly kind: "pack-ordered" }
  | { readonly kind: "pack-fetched" };

/** What can be taken out as a file at once. */
export type ExportedThing = "conversation" | "search" | "tray" | "records" | "categories";
export type AccessDeedKind = AccessDeed["kind"];

/** What the log can be filtered by: kinds that people think of as one. */
export const ACCESS_GROUPS = {
  "sign-ins": ["signed-in", "signed-out", "sessions-ended", "password-changed"],
  failures: ["sign-in-failed", "password-refused"],
  rights: [
    "invited",
    "invitation-taken-back",
    "came-in",
    "role-changed",
    "shut-out",
    "disabled",
    "let-in-again",
    "record-access-changed",
  ],
  exports: ["exported", "pack-ordered", "pack-fetched"],
} as const satisfies Readonly<Record<string, readonly AccessDeedKind[]>>;
export type AccessGroup = keyof typeof ACCESS_GROUPS;
