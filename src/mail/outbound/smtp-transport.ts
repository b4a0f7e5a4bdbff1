import nodemailer from "nodemailer";
import type { HandOver, MailTransport } from "../../core/ports";
import { writingTexts } from "../../texts/en/writing";
import { type Said, saidOf } from "../../texts/said";

const said = saidOf(writingTexts);

export type SmtpTransportOptions = {
  readonly host: string;
  readonly port: number;
  readonly secure: boolean;
  readonly auth: { readonly user: string; readonly pass: string } | null;
  /** What we call ourselves in EHLO. */
  readonly name: string;
};

const TIMEOUT_MS = 30_000;

/** Hands mail to the server that sends it on (RFC 5321). The connection is kept for the next message. */
export function smtpTransport(options: SmtpTransportOptions): MailTransport & { close: () => void } {
  const transporter = nodemailer.createTransport({
    pool: true,
    maxConnections: 2,
    host: options.host,
    port: options.port,
    secure: options.secure,
    name: options.name,
    connectionTimeout: TIMEOUT_MS,
    socketTimeout: TIMEOUT_MS,
    ...(options.auth === null ? {} : { auth: { ...options.auth } }),
  });
  return {
    async handOver(envelope, raw, reportId) {
      try {
        const info = await transporter.sendMail({
          envelope: { from: envelope.from, to: [...envelope.to] },
          raw: Buffer.from(raw),
          ...(reportId === null ? {} : { dsn: dsnOf(reportId, envelope.from) }),
        });
        const rejected = (info.rejected ?? []).map(String);
        if (rejected.length === 0) return { kind: "accepted" };
        return { kind: "refused", reason: said("writing.serverNotAccepted", { to: { all: rejected, by: "comma" } }) };
      } catch (problem) {
        return handOverProblem(problem);
      }
    },
    close: () => transporter.close(),
  };
}

function dsnOf(id: string, recipient: string) {
  return { id, return: "headers" as const, notify: ["success", "failure", "delay"], recipient };
}

// What the other side says is passed on; what only the program knows is said in words.
const PROBLEMS: Readonly<Record<string, Said>> = {
  EAUTH: said("writing.serverRefusesPassword"),
  EDNS: said("writing.noServerOfThatName"),
  ETIMEDOUT: said("writing.serverDidNotAnswer"),
  ETLS: said("writing.noSafeLineToServer"),
};

// RFC 5321 4.2.1: 5yz is final, everything else is worth another try.
function handOverProblem(problem: unknown): HandOver {
  const { responseCode, response, code } = problem as { responseCode?: number; response?: string; code?: string };
  const reason = response ?? PROBLEMS[code ?? ""] ?? said("writing.serverNotReached");
  return responseCode !== undefined && responseCode >= 500 ? { kind: "refused", reason } : { kind: "not-now", reason };
}
