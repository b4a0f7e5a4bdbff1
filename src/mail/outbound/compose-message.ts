import MailComposer from "nodemailer/lib/mail-composer";
import type { Mailbox } from "../../core/kernel/email-address";
import { dateOf, type Instant } from "../../core/kernel/instant";
import type { NamedFile } from "../../core/kernel/named-file";

/** Everything a message of ours says. */
export type Composition = {
  readonly messageId: string;
  readonly date: Instant;
  readonly from: Mailbox;
  readonly to: readonly Mailbox[];
  readonly cc: readonly Mailbox[];
  readonly subject: string;
  readonly inReplyTo: string | null;
  readonly references: readonly string[];
  readonly text: string;
  readonly html: string;
  /** A whole message that it carries, as its bytes. */
  readonly carries?: Uint8Array | null;
  /** The files that go with it. */
  readonly enclosed?: readonly NamedFile[];
  /** More header fields, such as Auto-Submitted. */
  readonly headers?: Readonly<Record<string, string>>;
};

// RFC 2046 5.2.1: a message within a message is not encoded.
const attached = ({ name, contentType, content }: NamedFile) => ({
  filename: name,
  contentType,
  content: Buffer.from(content),
  ...(contentType === "message/rfc822" ? { contentTransferEncoding: "8bit" as const } : {}),
});

const carried = (raw: Uint8Array): NamedFile => ({ name: "message.eml", contentType: "message/rfc822", content: raw });

const addressed = (mailbox: Mailbox) => ({ name: mailbox.name, address: mailbox.address });

/** The bytes of a message (RFC 5322, MIME multipart/alternative): the same for the same composition but for the boundary. */
export async function composeMessage(composition: Composition): Promise<Uint8Array> {
  const { carries = null, enclosed = [] } = composition;
  const files = [...(carries === null ? [] : [carried(carries)]), ...enclosed];
  const composer = new MailComposer({
    messageId: `<${composition.messageId}>`,
    date: dateOf(composition.date),
    from: addressed(composition.from),
    to: composition.to.map(addressed),
    cc: composition.cc.map(addressed),
    subject: composition.subject,
    ...(composition.inReplyTo === null ? {} : { inReplyTo: `<${composition.inReplyTo}>` }),
    ...(composition.references.length === 0 ? {} : { references: composition.references.map((id) => `<${id}>`) }),
    text: composition.text,
    html: composition.html,
    newline: "\r\n",
    attachments: files.map(attached),
    ...(composition.headers === undefined ? {} : { headers: { ...composition.headers } }),
  });
  return new Promise((resolve, reject) => {
    composer.compile().build((problem, bytes) => (problem === null ? resolve(bytes) : reject(problem)));
  });
}
