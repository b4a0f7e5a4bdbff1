import type { Instant } from "../../core/kernel/instant";
import { param } from "./rows";

type Kind = "uuid" | "uuid[]" | "text" | "int" | "smallint" | "timestamptz" | "jsonb";

/** A table's columns by name, each with its type and what it holds of something: storing, reading and comparing go by this. */
export type Described<Of> = Readonly<Record<string, { readonly kind: Kind; readonly of: (one: Of) => unknown }>>;

/** Something as it stands in its columns, to be compared: moments in milliseconds, all else as JSON has it. */
export type Plain = Readonly<Record<string, unknown>>;

/** The columns as a list: `a, b`. */
export const namesOf = (described: Described<never>): string => Object.keys(described).join(", ");

/** The columns with their types, as JSON is read by them: `a uuid, b text`. */
export const typedNamesOf = (described: Described<never>): string =>
  Object.entries(described)
    .map(([name, { kind }]) => `${name} ${kind}`)
    .join(", ");

/** The columns set to those of a row by another name: `a = row.a, b = row.b`. */
export const setFrom = (described: Described<never>, row: string): string =>
  Object.keys(described)
    .map((name) => `${name} = ${row}.${name}`)
    .join(", ");

/** Something as a row that is sent as JSON. */
export function rowOf<Of>(described: Described<Of>, one: Of): Record<string, unknown> {
  return mapped(described, ({ kind, of }) => (kind === "timestamptz" ? param(of(one) as Instant | null) : of(one)));
}

/** Something as its columns should be. */
export function plainOf<Of>(described: Described<Of>, one: Of): Plain {
  return mapped(described, ({ of }) => asJson(of(one)));
}

/** A row as its columns are, from a query or from JSON that PostgreSQL made of it. */
export function plainRow(described: Described<never>, row: Plain): Plain {
  return mapped(described, ({ kind }, name) =>
    kind === "timestamptz" && row[name] !== null ? new Date(row[name] as string | Date).getTime() : asJson(row[name]),
  );
}

function mapped<Of>(
  described: Described<Of>,
  to: (column: Described<Of>[string], name: string) => unknown,
): Record<string, unknown> {
  return Object.fromEntries(Object.entries(described).map(([name, column]) => [name, to(column, name)]));
}

const asJson = (value: unknown): unknown => JSON.parse(JSON.stringify(value ?? null));
