/** Ends a switch over a union: a new case becomes a compile error here, and a lie of the types a throw. */
export function assertNever(value: never): never {
  throw new Error(`unexpected case: ${JSON.stringify(value)}`);
}
