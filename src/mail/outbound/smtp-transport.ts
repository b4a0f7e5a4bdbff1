import nodemailer from "nodemailer";
import type { HandOver, MailTransport } from "../../core/ports";

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
        return { kind: "refused", reason: `Not accepted for ${rejected.join(", ")}; the others have it.` };
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
const PROBLEMS: Readonly<Record<string, string>> = {
  EAUTH: "the mail server refuses the user or the password",
  EDNS: "there is no server of that name",
  ETIMEDOUT: "the mail server did not answer in time",
  ETLS: "no safe line to the mail server could be made",
};

// RFC 5321 4.2.1: 5yz is final, everything else is worth another try.
function handOverProblem(problem: unknown): HandOver {
  const { responseCode, response, code } = problem as { responseCode?: number; response?: string; code?: string };
  const reason = response ?? PROBLEMS[code ?? ""] ?? "the mail server could not be reached";
  return responseCode !== undefined && responseCode >= 500 ? { kind: "refused", reason } : { kind: "not-now", reason };
}
