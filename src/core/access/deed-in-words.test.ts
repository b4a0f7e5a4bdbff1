import { inEnglish } from "@tests/support/english";
import { expect, it } from "vitest";
import { type RecordId, trustedId } from "../kernel/ids";
import { ACCESS_GROUPS, type AccessDeed } from "./access-event";
import { accessDeedInWords } from "./deed-in-words";

const nobody = { about: null, recordCode: null };
const mara = { about: "Mara", recordCode: null };
const recordId = trustedId<RecordId>("r");
const exported = (count: number): AccessDeed => ({ kind: "exported", what: "search", count, format: "mbox" });

const SAID: readonly (readonly [AccessDeed, Parameters<typeof accessDeedInWords>[1], string])[] = [
  [{ kind: "signed-in" }, nobody, "signed in"],
  [{ kind: "signed-out" }, nobody, "signed out"],
  [{ kind: "sign-in-failed", name: null }, nobody, "failed to sign in by a name that nobody has"],
  [{ kind: "sign-in-failed", name: "mara" }, mara, "failed to sign in as mara"],
  [{ kind: "password-refused" }, nobody, "gave a wrong password when asked for their own"],
  [{ kind: "sessions-ended" }, nobody, "ended sessions elsewhere"],
  [{ kind: "password-changed" }, nobody, "changed their password"],
  [{ kind: "password-changed" }, mara, "changed the password of Mara"],
  [{ kind: "invited", role: "reader" }, nobody, "made an invitation for a reader"],
  [{ kind: "invitation-taken-back" }, nobody, "took an invitation back"],
  [{ kind: "came-in", role: "member" }, nobody, "joined by an invitation as member"],
  [{ kind: "role-changed", from: "member", to: "lead" }, mara, "changed Mara from member to lead"],
  [{ kind: "shut-out" }, mara, "removed the access of Mara"],
  [{ kind: "disabled" }, mara, "disabled Mara"],
  [{ kind: "let-in-again" }, mara, "restored the access of Mara"],
  [{ kind: "record-access-changed", recordId }, nobody, "changed who has access to a record"],
  [
    { kind: "record-access-changed", recordId },
    { about: null, recordCode: "P-26-001" },
    "changed who has access to P-26-001",
  ],
  [exported(1), nobody, "exported what a search found, 1 message (mbox)"],
  [exported(1_200), nobody, "exported what a search found, 1,200 messages (mbox)"],
  [{ kind: "pack-ordered" }, nobody, "ordered a ZIP of mail"],
  [{ kind: "pack-fetched" }, nobody, "downloaded a ZIP of mail"],
];

it.each(SAID)("%j is said of whoever did it", (deed, to, words) =>
  expect(inEnglish(accessDeedInWords(deed, to))).toBe(words),
);

it("every kind is in one group to filter by", () => {
  const grouped = Object.values(ACCESS_GROUPS).flat();
  expect(new Set(grouped).size).toBe(grouped.length);
  expect(new Set(grouped)).toEqual(new Set(SAID.map(([{ kind }]) => kind)));
});
