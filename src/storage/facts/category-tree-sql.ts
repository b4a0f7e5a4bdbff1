// What stands under a category is counted and found with it. The tree is small: working it out anew for each statement
// costs less than a stored closure that every change of the tree would have to keep.

/** These categories and all under them, as an array that is worked out once for a statement. */
export const withAllUnder = (ids: string) => /* sql */ `(with recursive beneath as (
    select id from category where id = any(cast(${ids} as uuid[]))
    union select category.id from category join beneath on category.parent_id = beneath.id where removed_at is null
  ) select coalesce(array_agg(id), '{}') from beneath)`;

/** A recursive table expression `above`: each category with itself and every category above it as `ancestor`. */
export const ABOVE = /* sql */ `above as (
    select id, id as ancestor, parent_id from category where removed_at is null
    union all select above.id, up.id, up.parent_id from above join category as up on up.id = above.parent_id
  )`;

/** The categories of an array and all those above them, each once, as a set of rows `under(category)`; after `ABOVE`. */
export const allAbove = (ids: string) =>
  /* sql */ `(select distinct ancestor as category from above where above.id = any(${ids}))`;
