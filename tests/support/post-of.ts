import type { ConversationId } from "~/core/kernel/ids";
import { receiveMessage, sendMessage } from "~/operations/index.server";
import { aMessage } from "./mail";
import { address, type TestTray } from "./test-database";

/** Something that went out over SMTP. */
export type Sent = { readonly from: string; readonly to: readonly string[]; readonly text: string };
/** A letter, and the return path that it comes with. */
export type Letter = Parameters<typeof aMessage>[0] & { readonly sender?: string };

let count = 0;

/** The post of a tray, as those outside have it. */
export function postOf(tray: () => TestTray) {
  return {
    /** What went out since this was last asked. */
    wentOut: async (): Promise<Sent[]> => {
      const { deps, jobs, handedOver } = tray();
      for (const job of jobs.splice(0))
        if (job.kind === "send-message") await sendMessage(deps, job.messageId, { number: 1, last: true });
      return handedOver.splice(0).map(({ envelope, raw }) => ({
        ...envelope,
        text: new TextDecoder().decode(raw),
      }));
    },
    /** A letter comes; gives its conversation, and the Message-ID that it has where none is given. */
    comes: async ({ sender = "perpetua.vane@vanehouse.example", ...fields }: Letter = {}) => {
      count += 1;
      const messageId = `post${count}@vanehouse.example`;
      const raw = aMessage({ id: messageId, ...fields });
      const recipients = [address("office@ottermoor.example")];
      const [kept] = await receiveMessage(tray().deps, { raw, envelopeSender: sender, recipients });
      return { id: kept?.conversationId as ConversationId, messageId };
    },
  };
}
