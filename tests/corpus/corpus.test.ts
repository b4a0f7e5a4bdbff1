import { readdirSync, readFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import { describe, expect, it } from "vitest";
import { dateOf } from "~/core/kernel/instant";
import type { MailMessage } from "~/core/message/mail-message";
import { parseMessage } from "~/mail/index";

/** What is expected of a message; what is not said is not looked at. */
type Expected = {
  readonly kind?: string;
  readonly failed?: readonly string[];
  readonly permanent?: boolean;
  readonly ownText?: string;
  readonly text?: string;
  readonly subject?: string;
  readonly fromName?: string;
  readonly fromAddress?: string;
  readonly to?: readonly string[];
  readonly date?: string;
  readonly list?: string;
  readonly unsubscribe?: readonly string[];
  readonly inReplyTo?: readonly string[];
  readonly references?: readonly string[];
  readonly attachments?: readonly Record<string, unknown>[];
  readonly protection?: string;
  /** Words of a warning. */
  readonly warns?: string;
};

const FOLDER = fileURLToPath(new URL(".", import.meta.url));

function shown(message: MailMessage): Expected {
  return {
    kind: message.classification.kind,
    failed: message.failedRecipients.map(({ address }) => address),
    permanent: message.failedRecipients.every(({ permanent }) => permanent),
    ownText: message.ownText,
    text: message.text.trim(),
    subject: message.subject,
    fromName: message.from?.name ?? "",
    fromAddress: message.from?.address ?? "",
    to: message.to.map(({ address }) => address),
    date: message.date === null ? "" : dateOf(message.date).toISOString(),
    list: message.list ?? "",
    unsubscribe: message.unsubscribe,
    inReplyTo: message.inReplyTo,
    references: message.references,
    attachments: message.attachments,
    protection: message.protection ?? "",
  };
}

for (const group of ["own-text", "bounces", "kinds", "mime"]) {
  const expectations: Record<string, Expected> = JSON.parse(readFileSync(`${FOLDER}${group}/expected.json`, "utf8"));
  describe(`corpus, ${group}`, () => {
    it("has an expectation for each message", () => {
      const files = readdirSync(`${FOLDER}${group}`).filter((name) => name.endsWith(".eml"));
      expect(files.map((name) => name.replace(".eml", "")).toSorted()).toEqual(Object.keys(expectations).toSorted());
    });
    it.each(Object.entries(expectations))("%s", async (name, { warns, ...expected }) => {
      const { message } = await parseMessage(readFileSync(`${FOLDER}${group}/${name}.eml`));
      expect(shown(message)).toMatchObject(expected);
      expect(message.warnings.join("; ")).toContain(warns ?? "");
    });
  });
}
