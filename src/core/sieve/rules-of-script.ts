import { err, ok, type Result } from "../kernel/result";
import { type Condition, EVERY_MESSAGE } from "../rules/condition";
import type { Rule, RuleAction } from "../rules/rule";
import { givenArguments } from "./arguments";
import { isAlways, isNever, normalActions, normalForm } from "./normal-form";
import { type Done, readAction } from "./read-actions";
import { type Command, readScript, type ScriptTest, type ScriptText } from "./read-script";
import { type Circumstances, EXTENSIONS, readTest } from "./read-tests";
import { NoCounterpart, type Place, ScriptFault, type ScriptProblem, said } from "./script-problem";
import { decodedCharacters, textWith, type Variables, withSet } from "./variables";

/** A rule that stands by itself: where a rule of a tray has ids, it has what people call the things. */
export type WrittenRule = Omit<Rule, "id">;

/** The rules of a script with the places where they begin to act, and what of it they lack, in the order of the script. */
export type RulesOfScript = {
  readonly rules: readonly WrittenRule[];
  readonly places: readonly Place[];
  readonly leftOut: readonly ScriptProblem[];
};

/**
 * Reads a script of RFC 5228 as rules: each block of actions is one, for the messages that get there. A mailbox is a
 * category; what is taken from the inbox is settled. The extensions are those of `EXTENSIONS`, as their RFCs have them.
 * Refuses the whole script at the first place that a mail server would not take either.
 */
export function rulesOfScript(script: string): Result<RulesOfScript, ScriptProblem> {
  const commands = readScript(script);
  if (!commands.ok) return commands;
  try {
    const reader = new RuleReader();
    reader.walk(commands.value, { path: [], isOff: false, variables: new Map(), name: null });
    return ok({ rules: withOwnNames(reader.rules), places: reader.places, leftOut: onceEach(reader.leftOut) });
  } catch (fault) {
    if (fault instanceof ScriptFault) return err({ ...fault.at, problem: fault.problem });
    throw fault;
  }
}

// A place that is reached in several ways has the same problem in each.
function onceEach(problems: readonly ScriptProblem[]): ScriptProblem[] {
  return [...new Map(problems.map((one) => [`${one.line} ${one.column} ${String(one.problem.key)}`, one])).values()];
}

/** What holds where a command is reached: of the message, of the variables, and what the block is called. */
type State = {
  readonly path: readonly Condition[];
  readonly isOff: boolean;
  readonly variables: Variables;
  readonly name: string | null;
};

/** What the test of a block asks for. */
type Asked = { readonly condition: Condition; readonly isOff: boolean };

// Values that depend on which way a script went are followed this far.
const MAX_WAYS = 64;

class RuleReader {
  readonly rules: WrittenRule[] = [];
  readonly places: Place[] = [];
  readonly leftOut: ScriptProblem[] = [];
  readonly #required = new Set<string>();
  #ways = 1;

  /** Reads commands one after another; gives the states in which what follows them is reached. */
  walk(commands: readonly Command[], state: State): State[] {
    const block = new DraftRule();
    let { variables } = state;
    for (const [at, command] of commands.entries()) {
      if (command.name === "if") {
        this.#keep(block, state);
        const chain = chainAt(commands, at);
        const rest = commands.slice(at + chain.length);
        const after = this.#walkChain(chain, { ...state, variables });
        return after.flatMap((one) => this.walk(rest, one));
      }
      if (command.name === "require") this.#require(command);
      else if (command.name === "set") {
        this.#need("variables", command.at);
        variables = this.#orLeaveOut(() => withSet(command, variables)) ?? variables;
      } else this.#add(command, block, variables);
      if (block.isLast) break;
    }
    this.#keep(block, state);
    return block.isLast ? [] : [{ ...state, variables }];
  }

  #add(command: Command, block: DraftRule, variables: Variables): void {
    const { name, at, tests, comment } = command;
    if (name === "elsif" || name === "else") throw new ScriptFault(at, said("sieve.hasNoIf", { name }));
    if (tests.length > 0 || command.block !== null) throw new ScriptFault(at, said("sieve.hasTooMany", { name }));
    block.name ??= comment;
    block.at ??= at;
    block.isEmpty = false;
    if (name === "stop") {
      givenArguments(command, { tags: {}, positional: [] });
      block.isLast = true;
      return;
    }
    const done = this.#orLeaveOut(() => readAction(command, this.#circumstances(variables)));
    if (done !== null) block.take(done);
  }

  // The states after an if with all that belongs to it.
  #walkChain(chain: readonly Command[], state: State): State[] {
    const after: State[] = [];
    let denied: readonly Condition[] = [];
    for (const [at, command] of chain.entries()) {
      const asked = this.#askedBy(command, state.variables);
      if (asked === null) {
        // What comes after it in the chain is for what it is not for, which nothing can tell.
        const later = chain.slice(at + 1);
        this.leftOut.push(...later.map((one) => ({ ...one.at, problem: said("sieve.followsWhatIsLeftOut") })));
        return this.#joined([...after, state], state, command.at);
      }
      const ends = this.#walkBlock(command, asked, denied, state);
      after.push(...ends);
      // Where a block ends everything, its messages get no further anyway.
      if (ends.length > 0) denied = [...denied, asked.condition];
    }
    const hasElse = chain.at(-1)?.name === "else";
    const past = hasElse ? [] : [{ ...state, path: [...state.path, ...unless(denied)] }];
    return this.#joined([...after, ...past], state, chain[0]?.at ?? START);
  }

  // The states after a block; none where no message gets past it, or into it.
  #walkBlock(command: Command, { condition, isOff }: Asked, denied: readonly Condition[], state: State): State[] {
    if (isNever(condition)) return [];
    const path = [...state.path, ...unless(denied), ...(isAlways(condition) ? [] : [condition])];
    const name = command.comment ?? state.name;
    const ends = this.walk(command.block ?? [], { ...state, path, isOff: state.isOff || isOff, name });
    return isOff ? [] : ends;
  }

  // Where all ways lead on with the same values, what follows is reached by whatever was not stopped.
  #joined(ways: readonly State[], state: State, at: Place): State[] {
    const [first] = ways;
    if (first === undefined) return [];
    if (ways.every(({ variables }) => isSame(variables, first.variables)))
      return [{ ...state, variables: first.variables }];
    this.#ways *= ways.length;
    if (this.#ways > MAX_WAYS) throw new ScriptFault(at, said("sieve.hasTooManyWays"));
    return ways.map((way) => ({ ...way, name: state.name }));
  }

  #askedBy(command: Command, variables: Variables): Asked | null {
    const { name, args, tests, block, at } = command;
    if (block === null) throw new ScriptFault(at, said("sieve.lacksABlock", { name }));
    if (name === "else") {
      if (args.length + tests.length > 0) throw new ScriptFault(at, said("sieve.hasTooMany", { name }));
      return { condition: EVERY_MESSAGE, isOff: false };
    }
    const [test, ...more] = tests;
    if (test === undefined || args.length + more.length > 0)
      throw new ScriptFault(at, said("sieve.wantsOneTest", { name }));
    return this.#orLeaveOut(() => {
      const [isOff, kept] = withoutSwitch(test);
      return { condition: normalForm(readTest(kept, this.#circumstances(variables))), isOff };
    });
  }

  #keep(block: DraftRule, { path, isOff, name }: State): void {
    if (block.isEmpty) return;
    const { isLast, actions } = block;
    this.places.push(block.at ?? START);
    this.rules.push({ name: name ?? block.name ?? "", isOn: !isOff, isLast, ...whichOf(path), actions });
  }

  #circumstances(variables: Variables): Circumstances {
    const text = ({ text: written, at }: ScriptText) => {
      const plain = this.#required.has("encoded-character") ? decodedCharacters(written) : written;
      return this.#required.has("variables") ? textWith({ text: plain, at }, variables) : plain;
    };
    return { need: (extension, at) => this.#need(extension, at), text };
  }

  #need(extension: string, at: Place): void {
    if (!this.#required.has(extension)) throw new ScriptFault(at, said("sieve.isNotRequired", { extension }));
  }

  #require(command: Command): void {
    const given = givenArguments(command, { tags: {}, positional: ["texts"] });
    for (const { text, at } of given.texts(0)) {
      this.#required.add(text);
      if (!EXTENSIONS.has(text)) this.leftOut.push({ ...at, problem: said("sieve.noExtension", { extension: text }) });
    }
  }

  #orLeaveOut<T>(work: () => T): T | null {
    try {
      return work();
    } catch (problem) {
      if (!(problem instanceof NoCounterpart)) throw problem;
      this.leftOut.push({ ...problem.at, problem: problem.problem });
      return null;
    }
  }
}

const START: Place = { line: 1, column: 1 };

/** What a block does, while it is read. */
class DraftRule {
  readonly #done: RuleAction[] = [];
  readonly #inbox = new Set<Done["inbox"]>();
  name: string | null = null;
  at: Place | null = null;
  isEmpty = true;
  isLast = false;

  take({ actions, inbox }: Done): void {
    this.#done.push(...actions);
    this.#inbox.add(inbox);
  }

  /** RFC 5228 2.10.2: what is filed elsewhere, or thrown away, is not in the inbox, unless it is kept there as well. */
  get actions(): readonly RuleAction[] {
    const has = (what: Done["inbox"]) => this.#inbox.has(what);
    if (has("kept") || !(has("left") || has("discarded"))) return normalActions(this.#done);
    return normalActions([...this.#done, { kind: has("left") || has("copied") ? "settle" : "bin" }]);
  }
}

// An if with the elsif and else that belong to it.
function chainAt(commands: readonly Command[], from: number): readonly Command[] {
  let end = from + 1;
  while (commands[end]?.name === "elsif") end += 1;
  if (commands[end]?.name === "else") end += 1;
  return commands.slice(from, end);
}

// What begins with false was switched off, and is kept.
function withoutSwitch(test: ScriptTest): readonly [isOff: boolean, test: ScriptTest] {
  if (test.name === "false") return [true, { ...test, name: "true" }];
  const [first, ...tests] = test.name === "allof" ? test.tests : [];
  return first?.name === "false" && tests.length > 0 ? [true, { ...test, tests }] : [false, test];
}

const unless = (denied: readonly Condition[]): Condition[] =>
  denied.length === 0 ? [] : [normalForm({ kind: "none", of: denied })];

function isSame(some: Variables, others: Variables): boolean {
  return (
    some.size === others.size && [...some].every(([name, value]) => others.has(name) && others.get(name) === value)
  );
}

// What has to hold on the way to a block, and what must not: the first of several that must not is asked for, not excepted.
function whichOf(path: readonly Condition[]): Pick<Rule, "condition" | "exception"> {
  const [first, ...more] = path;
  if (first === undefined) return { condition: EVERY_MESSAGE, exception: null };
  const isDenial = (one: Condition) => one.kind === "none";
  const asked = path.every(isDenial) ? [first] : path.filter((one) => !isDenial(one));
  const denied = (path.every(isDenial) ? more : path).flatMap((one) => (one.kind === "none" ? one.of : []));
  const condition = normalForm({ kind: "all", of: asked.flatMap((one) => (one.kind === "all" ? one.of : [one])) });
  return { condition, exception: denied.length === 0 ? null : normalForm({ kind: "any", of: denied }) };
}

const MAX_NAME = 60;

// No two rules of a tray have the same name.
function withOwnNames(rules: readonly WrittenRule[]): WrittenRule[] {
  const named: WrittenRule[] = [];
  for (const [at, rule] of rules.entries()) named.push({ ...rule, name: ownName(rule.name || `${at + 1}`, named) });
  return named;
}

/** A name that none of some rules has: the one that was meant, or the same with a number. */
export function ownName(meant: string, others: readonly Pick<Rule, "name">[]): string {
  const taken = new Set(others.map(({ name }) => name.toLowerCase()));
  const name = meant.slice(0, MAX_NAME).trim();
  let own = name;
  for (let more = 2; taken.has(own.toLowerCase()); more += 1) own = `${name.slice(0, MAX_NAME - 5)} (${more})`;
  return own;
}
