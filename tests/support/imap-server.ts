import { type ChildProcess, execFileSync, spawn } from "node:child_process";
import { mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { connect } from "node:net";
import { tmpdir, userInfo } from "node:os";
import { join } from "node:path";
import { freePort } from "~/main/private-cluster";

/** Debian's IMAP server on a loopback port, with one mailbox that the test fills. */
export type ImapServer = {
  readonly port: number;
  readonly user: string;
  readonly password: string;
  /** Puts a message into the mailbox, as a mail server would. */
  readonly deliver: (raw: Uint8Array) => void;
  /** The names of the files of the mailbox: where each is and how it is marked. */
  readonly files: () => string[];
  /** Ends it as a power cut would, and starts it again on the same port. */
  readonly restart: () => Promise<void>;
  readonly stop: () => Promise<void>;
};

const PASSWORD = "bellows";
const OWNER = process.getuid?.() === 0 ? "nobody" : userInfo().username;

/** Starts it in a folder of its own, as nobody in particular. */
export async function startImapServer(): Promise<ImapServer> {
  const folder = mkdtempSync(join(tmpdir(), "common-tray-imap-"));
  const port = await freePort();
  const mail = join(folder, "mail");
  for (const part of ["cur", "new", "tmp"]) mkdirSync(join(mail, part), { recursive: true });
  const group = execFileSync("id", ["-gn", OWNER], { encoding: "utf8" }).trim();
  writeFileSync(join(folder, "dovecot.conf"), settings(folder, port, group));
  own(folder);
  let server = await started(folder, port);
  let count = 0;
  return {
    port,
    user: "office",
    password: PASSWORD,
    deliver(raw) {
      count += 1;
      const path = join(mail, "new", `${1_700_000_000 + count}.M${count}.test`);
      writeFileSync(path, raw);
      own(path);
    },
    files: () => ["new", "cur"].flatMap((part) => readdirSync(join(mail, part)).map((name) => `${part}/${name}`)),
    async restart() {
      await ended(server);
      server = await started(folder, port);
    },
    async stop() {
      await ended(server);
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

function own(path: string): void {
  if (process.getuid?.() === 0) execFileSync("chown", ["-R", OWNER, path]);
}

function settings(folder: string, port: number, group: string): string {
  return `
protocols = imap
listen = 127.0.0.1
base_dir = ${folder}/run
state_dir = ${folder}/state
log_path = ${folder}/log
ssl = no
disable_plaintext_auth = no
default_internal_user = ${OWNER}
default_internal_group = ${group}
default_login_user = ${OWNER}
first_valid_uid = 1
mail_location = maildir:${folder}/mail
passdb {
  driver = static
  args = password=${PASSWORD}
}
userdb {
  driver = static
  args = uid=${OWNER} gid=${group} home=${folder}
}
service imap-login {
  chroot =
  inet_listener imap {
    port = ${port}
  }
  inet_listener imaps {
    port = 0
  }
}
service anvil {
  chroot =
}
service stats {
  chroot =
}
`;
}

async function started(folder: string, port: number): Promise<ChildProcess> {
  const server = spawn("/usr/sbin/dovecot", ["-F", "-c", join(folder, "dovecot.conf")], { stdio: "ignore" });
  for (;;) {
    if (await answers(port)) return server;
    if (server.exitCode !== null) throw new Error(`the IMAP server ended with ${server.exitCode}; see ${folder}/log`);
    await new Promise((resolve) => setImmediate(resolve));
  }
}

function answers(port: number): Promise<boolean> {
  return new Promise((resolve) => {
    const socket = connect(port, "127.0.0.1");
    const end = (does: boolean) => {
      socket.destroy();
      resolve(does);
    };
    socket.once("data", () => end(true)).once("error", () => end(false));
  });
}

function ended(server: ChildProcess): Promise<void> {
  return new Promise((resolve) => {
    if (server.exitCode !== null || server.signalCode !== null) return resolve();
    server.once("exit", () => resolve());
    server.kill("SIGTERM");
  });
}
