import type { Logger } from "pino";
import { followMailbox } from "../mail/index";
import { type Deps, listSources, type MailSource, noteSource, takeFetched } from "../operations/index.server";

const LOOK_EVERY_MS = 10_000;

/** Follows every mailbox that mail is to be fetched from, those that are added while it runs as well. */
export function followSources(
  deps: Deps,
  environment: Readonly<Record<string, string | undefined>>,
  log: Pick<Logger, "warn">,
): { stop: () => Promise<void> } {
  const followed = new Map<string, { stop: () => Promise<void> }>();
  let looking: Promise<void> = Promise.resolve();
  const look = async () => {
    const sources = await listSources(deps);
    for (const source of sources) {
      if (!followed.has(source.id)) followed.set(source.id, follow(deps, source, environment));
    }
    for (const [id, { stop }] of followed) {
      if (sources.some((source) => source.id === id)) continue;
      followed.delete(id);
      await stop();
    }
  };
  const again = () => {
    looking = looking.then(look).catch((problem) => log.warn(problem, "mail sources"));
  };
  again();
  const timer = setInterval(again, LOOK_EVERY_MS);
  return {
    async stop() {
      clearInterval(timer);
      await looking;
      await Promise.all([...followed.values()].map(({ stop }) => stop()));
    },
  };
}

function follow(deps: Deps, source: MailSource, environment: Readonly<Record<string, string | undefined>>) {
  const { host, port, secure, userName: user, passwordVariable, mailbox } = source;
  const pass = environment[passwordVariable] ?? "";
  return followMailbox(
    { host, port, secure, user, pass, mailbox },
    {
      async place() {
        const now = (await listSources(deps)).find(({ id }) => id === source.id);
        const uidValidity = now?.uidValidity ?? null;
        return uidValidity === null ? null : { uidValidity, lastUid: now?.lastUid ?? 0 };
      },
      take: (raw, place) => takeFetched(deps, source, raw, place),
      onState: (problem) =>
        noteSource(deps, source.id, pass === "" && problem !== null ? `${passwordVariable} is not set` : problem),
    },
  );
}
