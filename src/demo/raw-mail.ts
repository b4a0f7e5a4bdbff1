import { type Mailbox, printMailboxes } from "../core/kernel/email-address";
import { dateOf, type Instant } from "../core/kernel/instant";

export type RawMail = {
  readonly from: Mailbox;
  readonly to: Mailbox;
  readonly subject: string;
  readonly date: Instant;
  readonly messageId: string;
  readonly references: readonly string[];
  readonly text: string;
  readonly headers?: Readonly<Record<string, string>> | undefined;
  readonly html?: string | undefined;
  readonly attachment?: { readonly name: string; readonly type: string; readonly content: string } | undefined;
};

/** A date as RFC 5322 3.3 writes it, in UTC. */
export function mailDate(at: Instant): string {
  return dateOf(at).toUTCString().replace("GMT", "+0000");
}

/** The bytes of a message from outside, plain enough for a mail program of thirty years ago. */
export function rawMail(mail: RawMail): Uint8Array {
  const parent = mail.references.at(-1);
  const head = [
    `From: ${printMailboxes([mail.from])}`,
    `To: ${printMailboxes([mail.to])}`,
    `Subject: ${mail.subject}`,
    `Date: ${mailDate(mail.date)}`,
    `Message-ID: <${mail.messageId}>`,
    ...(parent === undefined ? [] : [`In-Reply-To: <${parent}>`]),
    ...(mail.references.length === 0 ? [] : [`References: ${mail.references.map((id) => `<${id}>`).join("\r\n ")}`]),
    ...Object.entries(mail.headers ?? {}).map(([name, value]) => `${name}: ${value}`),
    "MIME-Version: 1.0",
  ];
  const text = ["Content-Type: text/plain; charset=utf-8", "Content-Transfer-Encoding: 8bit", "", mail.text];
  const html = mail.html === undefined ? [] : [["Content-Type: text/html; charset=utf-8", "", mail.html]];
  const attached =
    mail.attachment === undefined
      ? []
      : [
          [
            `Content-Type: ${mail.attachment.type}; name="${mail.attachment.name}"`,
            `Content-Disposition: attachment; filename="${mail.attachment.name}"`,
            "",
            mail.attachment.content,
          ],
        ];
  const parts = [text, ...html, ...attached];
  const kind = attached.length > 0 ? "mixed" : "alternative";
  const body =
    parts.length === 1
      ? text
      : [
          `Content-Type: multipart/${kind}; boundary="part-of-it"`,
          "",
          ...parts.flatMap((part) => ["--part-of-it", ...part]),
          "--part-of-it--",
          "",
        ];
  return new TextEncoder().encode([...head, ...body, ""].join("\r\n").replace(/\r?\n/g, "\r\n"));
}

/** A bounce of a message of ours (RFC 3464). */
export function rawBounce(
  failed: Mailbox,
  to: Mailbox,
  ofMessage: string,
  date: Instant,
  messageId: string,
): Uint8Array {
  const host = failed.address.slice(failed.address.indexOf("@") + 1);
  return new TextEncoder().encode(
    [
      `From: Mail system <mailer-daemon@${host}>`,
      `To: ${printMailboxes([to])}`,
      "Subject: Undelivered mail returned to sender",
      `Date: ${mailDate(date)}`,
      `Message-ID: <${messageId}>`,
      `References: <${ofMessage}>`,
      "MIME-Version: 1.0",
      'Content-Type: multipart/report; report-type=delivery-status; boundary="report"',
      "",
      "--report",
      "Content-Type: text/plain",
      "",
      `There is no mailbox ${failed.address} here.`,
      "--report",
      "Content-Type: message/delivery-status",
      "",
      `Reporting-MTA: dns; ${host}`,
      "",
      `Final-Recipient: rfc822; ${failed.address}`,
      "Action: failed",
      "Status: 5.1.1",
      "Diagnostic-Code: smtp; 550 5.1.1 no such mailbox here",
      "--report--",
      "",
    ].join("\r\n"),
  );
}
