import type { Knex } from "knex";

type Parts = {
  readonly from: readonly string[];
  readonly to: readonly string[];
  readonly subject: readonly string[];
  readonly text: readonly string[];
  readonly list: readonly string[];
  readonly hasAttachment: boolean | null;
};
type Actions = {
  readonly categoryIds: readonly string[];
  readonly recordId: string | null;
  readonly ownerId: string | null;
  readonly urgency: string | null;
  readonly putAway: "settle" | "bin" | null;
};

export async function up(knex: Knex): Promise<void> {
  await knex.raw(/* sql */ `
    -- What a message has to be like is a tree; what a rule does is done in its order.
    alter table rule add column condition jsonb, add column exception jsonb;
  `);
  for (const { id, conditions, exceptions, actions } of await knex("rule").select(
    "id",
    "conditions",
    "exceptions",
    "actions",
  )) {
    const [condition, exception] = [treeOf(conditions), treeOf(exceptions)];
    await knex("rule")
      .where({ id })
      .update({
        condition: JSON.stringify(condition ?? { kind: "every" }),
        exception: exception === null ? null : JSON.stringify(exception),
        actions: JSON.stringify(listOf(actions)),
      });
  }
  await knex.raw(/* sql */ `
    alter table rule alter column condition set not null, drop column conditions, drop column exceptions;

    -- What came to a tray, newest first: what a rule is tried on.
    create index message_incoming on message (tray_id, received_at desc, id desc) where direction = 'in';
  `);
}

function treeOf({ from, to, subject, text, list, hasAttachment }: Parts) {
  const addressed = (where: string, values: readonly string[]) => {
    const of = values.map((value) =>
      value.startsWith("@") ? { kind: "domain", domain: value.slice(1) } : { kind: "address", address: value },
    );
    return of.length === 0 ? [] : [{ kind: "address", where, of }];
  };
  const worded = (where: string, values: readonly string[]) =>
    values.length === 0 ? [] : [{ kind: "text", where, match: { how: "words", values } }];
  const attachment = { kind: "attachment" };
  const attached = hasAttachment === true ? [attachment] : [{ kind: "none", of: [attachment] }];
  const of = [
    ...addressed("from", from),
    ...addressed("recipient", to),
    ...worded("subject", subject),
    ...worded("text", text),
    ...(list.length === 0 ? [] : [{ kind: "list", of: list }]),
    ...(hasAttachment === null ? [] : attached),
  ];
  return of.length === 0 ? null : { kind: "all", of };
}

function listOf({ categoryIds, recordId, ownerId, urgency, putAway }: Actions) {
  return [
    ...categoryIds.map((categoryId) => ({ kind: "categorise", categoryId, give: true })),
    ...(recordId === null ? [] : [{ kind: "file", recordId }]),
    ...(ownerId === null ? [] : [{ kind: "assign", ownerId }]),
    ...(urgency === null ? [] : [{ kind: "urgency", urgency }]),
    ...(putAway === null ? [] : [{ kind: putAway }]),
  ];
}

export async function down(): Promise<void> {
  throw new Error("migrations only go forward; restore a backup to go back");
}
