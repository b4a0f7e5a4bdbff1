import { err, ok, type Result } from "../kernel/result";
import { type Place, ScriptFault, type ScriptProblem, said } from "./script-problem";
import { type Token, tokensOf } from "./tokens";

/** A text of a script, and where it stands. */
export type ScriptText = { readonly text: string; readonly at: Place };

export type Argument = { readonly at: Place } & (
  | { readonly kind: "tag"; readonly name: string }
  | { readonly kind: "number"; readonly value: number }
  | { readonly kind: "texts"; readonly texts: readonly ScriptText[] }
);

/** A name with its arguments; its tests are those that stand behind them. */
export type ScriptTest = {
  readonly name: string;
  readonly args: readonly Argument[];
  readonly tests: readonly ScriptTest[];
  readonly at: Place;
};

/** A command; `block` is null where it ends in a semicolon. `comment` is the last one before it. */
export type Command = ScriptTest & { readonly block: readonly Command[] | null; readonly comment: string | null };

// RFC 5228 2.10.5 and 2.10.6 ask for 15 of each.
const MAX_DEPTH = 32;
const MAX_CHARACTERS = 1024 * 1024;

/** The commands of a script by the grammar of RFC 5228 section 8.2, whatever they are called; or the first place where it is none. */
export function readScript(script: string): Result<readonly Command[], ScriptProblem> {
  if (script.length > MAX_CHARACTERS) return err({ line: 1, column: 1, problem: said("sieve.theScriptIsTooLong") });
  try {
    const reader = new Reader(tokensOf(script.replace(/^\uFEFF/, "")));
    const commands = reader.commands(0);
    reader.expectEnd();
    return ok(commands);
  } catch (fault) {
    if (fault instanceof ScriptFault) return err({ ...fault.at, problem: fault.problem });
    throw fault;
  }
}

class Reader {
  #next = 0;

  constructor(readonly tokens: readonly Token[]) {}

  commands(depth: number): Command[] {
    const commands: Command[] = [];
    while (this.#peek().kind === "word") commands.push(this.#command(depth));
    return commands;
  }

  expectEnd(): void {
    if (this.#peek().kind !== "end") this.#refuse();
  }

  #command(depth: number): Command {
    const { comment } = this.#peek();
    const head = this.#test(depth);
    if (this.#takes(";")) return { ...head, block: null, comment };
    if (!this.#takes("{")) throw this.#fault(said("sieve.aSemicolonIsMissing", { name: head.name }));
    if (depth >= MAX_DEPTH) throw new ScriptFault(head.at, said("sieve.isNestedTooDeep"));
    const block = this.commands(depth + 1);
    this.#expect("}");
    return { ...head, block, comment };
  }

  #test(depth: number): ScriptTest {
    const { kind, value: name, at } = this.#peek();
    if (kind !== "word") this.#refuse();
    if (depth > MAX_DEPTH) throw new ScriptFault(at, said("sieve.isNestedTooDeep"));
    this.#next += 1;
    const args: Argument[] = [];
    for (let arg = this.#argument(); arg !== null; arg = this.#argument()) args.push(arg);
    return { name, args, tests: this.#tests(depth + 1), at };
  }

  #tests(depth: number): ScriptTest[] {
    if (this.#peek().kind === "word") return [this.#test(depth)];
    return this.#takes("(") ? this.#listed(() => this.#test(depth), ")") : [];
  }

  #argument(): Argument | null {
    const { kind, value, at } = this.#peek();
    switch (kind) {
      case "tag":
        this.#next += 1;
        return { kind, name: value, at };
      case "number":
        this.#next += 1;
        return { kind, value: Number(value), at };
      case "text":
        return { kind: "texts", texts: [this.#text()], at };
      default:
        if (!this.#takes("[")) return null;
        return { kind: "texts", texts: this.#listed(() => this.#text(), "]"), at };
    }
  }

  #text(): ScriptText {
    const { kind, value: text, at } = this.#peek();
    if (kind !== "text") this.#refuse();
    this.#next += 1;
    return { text, at };
  }

  #listed<One>(read: () => One, end: string): One[] {
    const all = [read()];
    while (this.#takes(",")) all.push(read());
    this.#expect(end);
    return all;
  }

  #peek(): Token {
    // The last one is the end, which nothing takes.
    return this.tokens[this.#next] as Token;
  }

  #takes(mark: string): boolean {
    const { kind, value } = this.#peek();
    const isIt = kind === "mark" && value === mark;
    if (isIt) this.#next += 1;
    return isIt;
  }

  #expect(mark: string): void {
    if (!this.#takes(mark)) throw this.#fault(said("sieve.isMissing", { what: mark }));
  }

  #refuse(): never {
    const { kind, value } = this.#peek();
    throw this.#fault(kind === "end" ? said("sieve.theScriptEndsHere") : said("sieve.isNotExpected", { what: value }));
  }

  #fault(problem: ScriptProblem["problem"]): ScriptFault {
    return new ScriptFault(this.#peek().at, problem);
  }
}
