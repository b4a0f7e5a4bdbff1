import type { GetICUArgs } from "@schummar/icu-type-parser";
import type { Message, Messages } from "./catalogue";

/** What is to be said, in whatever language it will be read: a message by its key, and what has to be known to say it. */
export type Said = { readonly key: Message; readonly values: Readonly<Record<string, Sayable | Date>> };

/** How much of a moment is said. */
export type MomentForm =
  | "time"
  | "weekday"
  | "day"
  | "day-of-year"
  | "day-in-full"
  | "month"
  | "month-of-year"
  | "short-month";

/** A moment in milliseconds of UTC, to be said as the calendar and the clock of an IANA time zone have it. */
export type Moment = { readonly at: number; readonly zone: string; readonly form: MomentForm };

/** Several things, said after one another as a language does it: "A, B and C", "A, B or C", "A, B, C". */
export type Listed = { readonly all: readonly Sayable[]; readonly by: "and" | "or" | "comma" };

/** A figure, with what stands between its thousands. */
type Figure = { readonly figure: number };

/** What has to be said by somebody before it is a text. */
export type Wording = Said | Moment | Listed | Figure;

/** What a message can have in it: a name or a figure as it is, or what has to be said for itself. */
export type Sayable = string | number | Wording;

/** What has to be known to say a message. */
type ValuesOf<Text extends string> = string extends Text
  ? Readonly<Record<string, Sayable | Date>>
  : GetICUArgs<Text, { ICUNumberArgument: number; ICUDateArgument: Date; ICUArgument: Sayable }>;

/** The values of a message as the last argument of who says it; none where it needs none. */
export type ValuesArgument<Text> = Text extends string
  ? keyof ValuesOf<Text> extends never
    ? []
    : [values: ValuesOf<Text>]
  : never;

/** What several catalogues have together. */
export type AllOf<Catalogues extends readonly Messages[]> = Catalogues extends readonly [
  infer First extends Messages,
  ...infer Rest extends readonly Messages[],
]
  ? First & AllOf<Rest>
  : object;

type SaidOf<Catalogue extends object> = <Key extends keyof Catalogue & string>(
  key: Key,
  ...values: ValuesArgument<Catalogue[Key]>
) => Said;

/** Puts together what is to be said of these catalogues: a key and its values, which whoever meets people says. */
export function saidOf<const Catalogues extends readonly [Messages, ...Messages[]]>(
  ..._catalogues: Catalogues
): SaidOf<AllOf<Catalogues>> {
  return (key, ...[values]) => ({ key, values: values ?? {} });
}

/** Several wordings, each once: what would be said alike is said one time. */
export function eachOnce<One extends Wording>(all: readonly One[]): One[] {
  return [...new Map(all.map((one) => [JSON.stringify(one), one])).values()];
}
