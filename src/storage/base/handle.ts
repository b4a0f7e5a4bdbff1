declare const opaque: unique symbol;

// They can be passed on and asked through the questions of this room, nothing else. Two types, so that what happens within
// a transaction cannot ask the pool: with as many transactions as connections each would wait for one more, for ever.

/** Connections to a database, each question on whichever is free. */
export type Pool = { readonly [opaque]: "pool" };

/** A transaction on one connection. */
export type Transaction = { readonly [opaque]: "transaction" };

/** Whatever can be asked. */
export type Database = Pool | Transaction;
