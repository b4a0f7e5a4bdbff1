// What the statements about one record begin with; they are given `:recordId` and, for whom they look, `:memberId`.

/** The conversations on it, in whichever trays she may look into. */
export const FILED = /* sql */ `
  from conversation as c
    join tray_member on tray_member.tray_id = c.tray_id and tray_member.member_id = :memberId
  where c.record_ids @> array[cast(:recordId as uuid)] and c.joined_to is null`;

/** Its messages as `on_record`: those of the conversations on it (`filed`), and those that are filed by themselves (`alone`). */
export const MESSAGES = /* sql */ `
  filed as materialized (select c.id ${FILED}),
  alone as materialized (
    select part.message_id as id, part.attachment as which from filed_part as part
      join message on message.id = part.message_id
      join tray_member on tray_member.tray_id = message.tray_id and tray_member.member_id = :memberId
    where part.record_id = :recordId and message.conversation_id not in (select id from filed)
  ),
  on_record as (
    select message.* from filed join message on message.conversation_id = filed.id
    union all
    select message.* from alone join message on message.id = alone.id where which = -1
  )`;
