declare const brand: unique symbol;

/** A type of its own over a plain value, so that a tray's id cannot be passed where a member's is meant. */
export type Brand<T, Name extends string> = T & { readonly [brand]: Name };
