import { Command, CommanderError } from "commander";
import { passwordProblem } from "../core/access/password";
import { readInstant } from "../core/kernel/instant";
import type { Deps, Role } from "../operations/index.server";
import { Refused, Usage } from "./outcome";
import { addressFrom, zoneFrom } from "./read-options";
import { addRulesVerbs } from "./rules-verbs";

/** What the tool is given: where to write, and the dependencies once a verb needs a database. */
export type CliContext = {
  readonly out: (line: string) => void;
  readonly note: (line: string) => void;
  /** Has a file written in pieces; a file that was there is replaced. */
  readonly writeFile: <T>(
    path: string,
    work: (write: (piece: Uint8Array) => Promise<void>) => Promise<T>,
  ) => Promise<T>;
  /** Reads a password that must not stand in the process list. */
  readonly readPassword: () => Promise<string>;
  /** Throws `Refused` when there is no database to be had. */
  readonly withDeps: <T>(work: (deps: Deps) => Promise<T>) => Promise<T>;
};

// Loaded by the verb that needs them: asking for help takes no database, no mail and no pictures.
const operations = () => import("../operations/index.server");
type Operations = Awaited<ReturnType<typeof operations>>;

/** Has an operation carried out with the dependencies of the tool. */
async function work<Outcome>(
  context: CliContext,
  of: (all: Operations, deps: Deps) => Promise<Outcome>,
): Promise<Outcome> {
  const all = await operations();
  return context.withDeps((deps) => of(all, deps));
}

/** Runs the tool: exit code 0, 1 (refused, with the reason) or 2 (usage). */
export async function runTray(args: readonly string[], context: CliContext): Promise<0 | 1 | 2> {
  try {
    await trayProgram(context).parseAsync([...args], { from: "user" });
    return 0;
  } catch (problem) {
    if (problem instanceof CommanderError) return problem.exitCode === 0 ? 0 : 2;
    context.note(problem instanceof Error ? problem.message : String(problem));
    return problem instanceof Usage ? 2 : 1;
  }
}

function trayProgram(context: CliContext): Command {
  const print = (value: unknown) => context.out(JSON.stringify(value));
  const program = new Command("tray")
    .description("The operator's tool of Common Tray. Results are JSON on stdout, messages go to stderr.")
    .exitOverride()
    .configureOutput({
      writeErr: (text) => context.note(text.trimEnd()),
      writeOut: (text) => context.out(text.trimEnd()),
    });
  program
    .command("migrate")
    .description("bring the database up to date")
    .action(async () => print(await work(context, ({ migrateDatabase }, deps) => migrateDatabase(deps))));
  program
    .command("import <path>")
    .description("take the messages of an mbox, an eml file, a zip or a folder of them into a tray")
    .requiredOption("--tray <address>", "an address of the tray")
    .option("--as-history", "settle what is imported: nobody has to sort it")
    .action((path: string, options: { tray: string; asHistory?: boolean }) =>
      importInto(context, print, path, options),
    );
  program
    .command("doctor")
    .description("derive everything again and compare it with what is stored; exit 1 when something differs")
    .action(async () => {
      const diagnosis = await work(context, ({ examine }, deps) => examine(deps));
      print(diagnosis);
      if (!diagnosis.healthy) throw new Refused("the database is not as it should be; see the report");
    });
  program
    .command("export <address> <file>")
    .description("write every message of a tray into an mbox file")
    .action(async (address: string, file: string) => {
      const done = await work(context, ({ exportTray }, deps) =>
        context.writeFile(file, (write) => exportTray(deps, addressFrom(address), write)),
      );
      if (!done.ok) throw new Refused(`no tray has the address ${address}`);
      print(done.value);
    });
  program
    .command("reparse")
    .description("understand every message again from its bytes, and keep what is different; decisions stay")
    .action(async () =>
      print(await work(context, ({ reparse }, deps) => reparse(deps, (read) => context.note(`${read} messages read`)))),
    );
  addTrayVerbs(program.command("tray").description("the trays"), context, print);
  addMemberVerbs(program.command("member").description("those who may sign in"), context, print);
  addSourceVerbs(program.command("source").description("mailboxes that mail is fetched from (IMAP)"), context, print);
  addInspectVerbs(
    program.command("inspect").description("what is understood of mail, without a database"),
    print,
    context.note,
  );
  addRulesVerbs(
    program.command("rules").description("rules in files, and the scripts of mail servers, without a database"),
    operations,
    context,
  );
  for (const command of allCommands(program)) command.exitOverride().copyInheritedSettings(program);
  return program;
}

function allCommands(command: Command): Command[] {
  return command.commands.flatMap((one) => [one, ...allCommands(one)]);
}

type Print = (value: unknown) => void;

async function importInto(
  context: CliContext,
  print: Print,
  path: string,
  options: { tray: string; asHistory?: boolean },
): Promise<void> {
  const report = await work(context, ({ importMail }, deps) =>
    importMail(deps, path, addressFrom(options.tray), {
      asHistory: options.asHistory === true,
      goesOn: ({ read, added }) => {
        context.note(`${read} messages read, ${added} of them new`);
        return true;
      },
    }),
  );
  if (!report.ok) throw new Refused(`no tray has the address ${options.tray}`);
  print(report.value);
  if (report.value.problem !== null) throw new Refused(report.value.problem);
}

function addTrayVerbs(command: Command, context: CliContext, print: Print): void {
  command
    .command("add <slug>")
    .description("set up a tray")
    .requiredOption("--name <name>", "what it is called, also in From")
    .requiredOption("--address <address...>", "its addresses; it writes from the first")
    .option("--time-zone <zone>", "IANA name", "UTC")
    .action(async (slug: string, options: { name: string; address: string[]; timeZone: string }) => {
      if (!/^[a-z][a-z0-9-]{0,40}$/.test(slug))
        throw new Usage(`${slug} is no name for a URL: small letters, digits, -`);
      const addresses = options.address.map(addressFrom);
      const { name, timeZone } = options;
      print(
        await work(context, ({ setUpTray }, deps) =>
          setUpTray(deps, { slug, name, timeZone: zoneFrom(timeZone), addresses }),
        ),
      );
    });
}

const ROLES: readonly string[] = ["lead", "member", "reader"] satisfies Role[];

type ChangesMember = (all: Operations, deps: Deps, name: string) => ReturnType<Operations["enable"]>;
type MemberOptions = { name: string; initials: string; tray: string[]; role: string; timeZone: string };

function addMemberVerbs(command: Command, context: CliContext, print: Print): void {
  command
    .command("add <sign-in-name>")
    .description("add a member; the password is read from standard input")
    .requiredOption("--name <name>", "first and last name")
    .requiredOption("--initials <initials>", "two or three letters for the stamp")
    .requiredOption("--tray <slug...>", "trays to give access to")
    .option("--role <role>", "lead, member or reader", "member")
    .option("--time-zone <zone>", "IANA name", "UTC")
    .action(async (signInName: string, { name, initials, tray, role, timeZone }: MemberOptions) => {
      if (!ROLES.includes(role)) throw new Usage(`${role} is no role: lead, member or reader`);
      if (!/^\p{L}{2,3}$/u.test(initials)) throw new Usage(`${initials} are no initials: two or three letters`);
      const password = await newPassword(context, [name, signInName]);
      const member = {
        signInName,
        name,
        initials,
        password,
        timeZone: zoneFrom(timeZone),
        role: role as Role,
        trays: tray,
      };
      const added = await work(context, ({ addMember }, deps) => addMember(deps, member));
      if (!added.ok) {
        throw new Refused(
          added.error.kind === "name-taken" ? `${signInName} is taken` : `there is no tray ${added.error.slug}`,
        );
      }
      print(added.value);
    });
  const about = (verb: string, description: string, change: ChangesMember) =>
    command
      .command(`${verb} <sign-in-name>`)
      .description(description)
      .action(async (signInName: string) => {
        const done = await work(context, (all, deps) => change(all, deps, signInName));
        if (!done.ok) throw new Refused(`nobody signs in as ${signInName}`);
        print(done.value);
      });
  about(
    "password",
    "give a member another password, read from standard input; ends all their sessions",
    async ({ setPassword }, deps, name) => setPassword(deps, name, await newPassword(context, [name])),
  );
  about("disable", "keep a member from signing in, at once", ({ disable }, deps, name) => disable(deps, name));
  about("enable", "let a member sign in again who was disabled or removed", ({ enable }, deps, name) =>
    enable(deps, name),
  );
  command
    .command("list")
    .description("everybody who may sign in, one a line")
    .action(async () => {
      for (const member of await work(context, ({ listMembers }, deps) => listMembers(deps))) print(member);
    });
}

/** A password that may be one: the same rule as where somebody chooses one in the browser. */
async function newPassword(context: CliContext, names: readonly string[]): Promise<string> {
  const password = await context.readPassword();
  const { commonPasswords, writtenDown } = await operations();
  const problem = passwordProblem(password, names, await commonPasswords());
  if (problem !== null) throw new Usage(`the password will not do: ${writtenDown(problem)}`);
  return password;
}

type SourceOptions = {
  tray: string;
  host: string;
  port: string;
  user: string;
  passwordVariable: string;
  mailbox: string;
  plain?: boolean;
};

function addSourceVerbs(command: Command, context: CliContext, print: Print): void {
  command
    .command("add")
    .description("fetch mail from a mailbox into a tray; the server of Common Tray does it while it runs")
    .requiredOption("--tray <slug>", "the tray")
    .requiredOption("--host <host>", "the IMAP server")
    .option("--port <port>", "its port", "993")
    .requiredOption("--user <name>", "who signs in there")
    .requiredOption("--password-variable <name>", "the variable of the server's environment that has the password")
    .option("--mailbox <name>", "which mailbox", "INBOX")
    .option("--plain", "no TLS from the first byte (STARTTLS is used where it is offered)")
    .action(async ({ tray, host, port, user, passwordVariable, mailbox, plain }: SourceOptions) => {
      if (!/^\d{1,5}$/.test(port)) throw new Usage(`${port} is no port: give a number`);
      if (!/^[A-Z][A-Z0-9_]*$/.test(passwordVariable)) throw new Usage(`${passwordVariable} is no name of a variable`);
      const source = {
        tray,
        host,
        port: Number(port),
        secure: plain !== true,
        userName: user,
        passwordVariable,
        mailbox,
      };
      const added = await work(context, ({ addSource }, deps) => addSource(deps, source));
      if (!added.ok) throw new Refused(`there is no tray ${tray}`);
      print(added.value);
    });
  command
    .command("list")
    .description("every source and how it is, one a line")
    .action(async () => {
      for (const source of await work(context, ({ listSources }, deps) => listSources(deps))) {
        print({ ...source, uidValidity: source.uidValidity?.toString() ?? null });
      }
    });
  command
    .command("remove <id>")
    .description("fetch no more from there; what was fetched stays")
    .action(async (id: string) => {
      if (!(await work(context, ({ removeSource }, deps) => removeSource(deps, id))))
        throw new Refused(`there is no source ${id}`);
      print({ id });
    });
}

function addInspectVerbs(command: Command, print: Print, note: CliContext["note"]): void {
  command
    .command("message <file...>")
    .description("everything understood of each message, one object a line")
    .action(async (files: string[]) => {
      const { inspectMessages } = await operations();
      for (const file of files) for await (const message of inspectMessages(file)) print(message);
    });
  command
    .command("threads <file>")
    .description("the conversations of an mbox, each the Message-IDs of its messages in order")
    .option("--ours <addresses>", "our own addresses, separated by commas; else those that are in half of the messages")
    .action(async (file: string, { ours }: { ours?: string }) =>
      print(
        await (await operations()).inspectThreads(file, ours === undefined ? null : ours.split(",").map(addressFrom)),
      ),
    );
  command
    .command("turns <file>")
    .description("whose move it is in each conversation of an mbox, judged from the mail alone")
    .requiredOption("--ours <addresses>", "our own addresses, separated by commas")
    .requiredOption("--now <instant>", "judge as of then, as 2026-11-24T10:00:00Z")
    .action(async (file: string, options: { ours: string; now: string }) => {
      const now = readInstant(options.now);
      if (now === null) throw new Usage(`${options.now} is no instant: write it as 2026-11-24T10:00:00Z`);
      print(await (await operations()).inspectTurns(file, options.ours.split(",").map(addressFrom), now));
    });
  command
    .command("proposals <stream>")
    .description("what would be proposed for each conversation of a stream of events, one JSON object a line")
    .action(async (stream: string) => {
      const { inspectProposals } = await operations();
      let broken = 0;
      const proposals = inspectProposals(stream, ({ line, problem }) => {
        broken += 1;
        note(`line ${line}: ${problem}`);
      });
      for await (const proposed of proposals) print(proposed);
      if (broken > 0) throw new Refused(`${broken} lines are no events; the rest was read`);
    });
  command
    .command("html <file>")
    .description("the HTML of a message as it would be shown, and what is held back")
    .action(async (file: string) => print(await (await operations()).inspectHtml(file)));
}
