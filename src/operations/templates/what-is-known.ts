import type { EmailAddress } from "../../core/kernel/email-address";
import type { MemberId, RecordId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { Known } from "../../core/templates/known";
import { membersOfTray, type Tray, type TrayGrant } from "../../storage/access/index";
import type { Database } from "../../storage/base/index";
import { contactsWith } from "../../storage/conversation/index";
import { type FilingRecord, recordsByIds } from "../../storage/records/index";

/** What a letter is about that a template is used for, as far as it is at hand. */
type About = {
  readonly to: { readonly name: string; readonly address: EmailAddress } | null;
  readonly record: Pick<FilingRecord, "code" | "title"> | null;
  readonly ownerId: MemberId | null;
  readonly theyWroteAt: Instant | null;
  /** In whose name it is written. */
  readonly writer: string;
};

/** What can fill the blanks of a template. */
export async function whatIsKnown(
  db: Database,
  tray: Pick<Tray, "id" | "name">,
  { to, record, ownerId, theyWroteAt, writer }: About,
): Promise<Known> {
  const [[contact], members] = await Promise.all([
    to === null ? [] : contactsWith(db, tray.id, [to.address]),
    ownerId === null ? [] : membersOfTray(db, tray.id),
  ]);
  return {
    theirName: contact?.name || (to?.name ?? ""),
    theirOrganisation: contact?.organisation ?? "",
    theyWroteAt,
    recordCode: record?.code ?? "",
    recordTitle: record?.title ?? "",
    owner: members.find(({ id }) => id === ownerId)?.name ?? "",
    myName: writer,
    trayName: tray.name,
  };
}

/** The first record that a conversation is filed to, as a viewer may know it (null: everything); null where there is none. */
export async function firstRecord(
  db: Database,
  viewer: TrayGrant | null,
  ids: readonly RecordId[],
): Promise<About["record"]> {
  const [first] = await recordsByIds(db, viewer, ids.slice(0, 1));
  return first ?? null;
}
