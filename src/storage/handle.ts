declare const opaque: unique symbol;

/** A database, or a transaction in it. It can be passed on and asked through the questions of this room, nothing else. */
export type Database = { readonly [opaque]: "Database" };
