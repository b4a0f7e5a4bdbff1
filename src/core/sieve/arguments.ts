import type { Argument, ScriptTest, ScriptText } from "./read-script";
import { type Place, ScriptFault, said } from "./script-problem";

/** What may follow a tag; a flag stands by itself. */
type TagValue = "flag" | "text" | "texts" | "number";
type Positional = "text" | "texts" | "number";

/** The arguments that a command or a test may have: tagged ones, and those that it has to have in their order. */
export type Signature = {
  readonly tags: Readonly<Record<string, TagValue>>;
  readonly positional: readonly Positional[];
};

/** The arguments that one has, each as its signature says. */
export type Given = {
  readonly has: (tag: string) => boolean;
  /** The values of a tag, none where it is not there. */
  readonly textsOf: (tag: string) => readonly ScriptText[];
  readonly numberOf: (tag: string) => number | null;
  readonly texts: (place: number) => readonly ScriptText[];
  readonly at: Place;
};

/** Sorts arguments by their signature (RFC 5228 2.6). Throws `ScriptFault` for what it does not have, or has not got. */
export function givenArguments(test: ScriptTest, { tags, positional }: Signature): Given {
  const { name, args, at } = test;
  const tagged = new Map<string, Argument>();
  const rest: Argument[] = [];
  for (let next = 0; next < args.length; next += 1) {
    const one = args[next] as Argument;
    if (one.kind !== "tag") {
      rest.push(one);
      continue;
    }
    const value = valueOfTag(one.name, one.at, name, tags);
    if (tagged.has(one.name)) throw new ScriptFault(one.at, said("sieve.standsTwice", { what: `:${one.name}` }));
    if (value !== "flag") next += 1;
    tagged.set(one.name, value === "flag" ? one : ofKind(args[next], value, one.at, `:${one.name}`));
  }
  const placed = positional.map((kind, place) => ofKind(rest[place], kind, at, name));
  const [surplus] = rest.slice(positional.length);
  if (surplus !== undefined) throw new ScriptFault(surplus.at, said("sieve.hasTooMany", { name }));
  return {
    at,
    has: (tag) => tagged.has(tag),
    textsOf: (tag) => textsIn(tagged.get(tag)),
    numberOf: (tag) => {
      const one = tagged.get(tag);
      return one?.kind === "number" ? one.value : null;
    },
    texts: (place) => textsIn(placed[place]),
  };
}

function valueOfTag(tag: string, at: Place, name: string, tags: Signature["tags"]): TagValue {
  const value = Object.hasOwn(tags, tag) ? tags[tag] : undefined;
  if (value === undefined) throw new ScriptFault(at, said("sieve.hasNoTag", { name, tag }));
  return value;
}

const textsIn = (one: Argument | undefined) => (one?.kind === "texts" ? one.texts : []);

function ofKind(one: Argument | undefined, kind: Exclude<TagValue, "flag">, at: Place, whose: string): Argument {
  if (one === undefined) throw new ScriptFault(at, said("sieve.lacksAnArgument", { name: whose }));
  const isIt = kind === "number" ? one.kind === "number" : one.kind === "texts";
  if (!isIt) throw new ScriptFault(one.at, said("sieve.wantsAnother", { name: whose, kind }));
  if (kind === "text" && one.kind === "texts" && one.texts.length !== 1)
    throw new ScriptFault(one.at, said("sieve.wantsAnother", { name: whose, kind }));
  return one;
}

/** The only text of several. */
export function onlyText(texts: readonly ScriptText[]): ScriptText | null {
  return texts[0] ?? null;
}
