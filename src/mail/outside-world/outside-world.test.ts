import { aMessage } from "@tests/support/mail";
import { createTransport } from "nodemailer";
import { afterAll, beforeAll, expect, it, vi } from "vitest";
import type { EmailAddress } from "../../core/kernel/email-address";
import { instant } from "../../core/kernel/instant";
import type { MailMessage } from "../../core/message/mail-message";
import { smtpTransport } from "../outbound/smtp-transport";
import { parseMessage } from "../parsing/parse-message";
import { checkSignatures } from "../receiving/check-signatures";
import { listenForMail, type MailListener } from "../receiving/smtp-listener";
import { CHARACTERS } from "./characters";
import { type OutsideWorld, startOutsideWorld } from "./outside-world";

// On a machine that has other things to do.
const PATIENTLY = { timeout: 20_000 };
const received: MailMessage[] = [];
const raws: Uint8Array[] = [];
let tray: MailListener;
let world: OutsideWorld;
let ids = 0;

beforeAll(async () => {
  tray = await listenForMail(
    { host: "127.0.0.1", port: 0, maxBytes: 1_000_000 },
    {
      knows: async () => true,
      accept: async ({ raw, envelopeSender }) => {
        raws.push(raw);
        received.push((await parseMessage(raw, envelopeSender)).message);
      },
      onProblem: () => {},
    },
  );
  world = await startOutsideWorld({
    host: "127.0.0.1",
    port: 0,
    tray: () => ({ host: "127.0.0.1", port: tray.port }),
    characters: CHARACTERS,
    secondMs: 2,
    now: () => instant(Date.UTC(2026, 10, 24)),
    newId: () => {
      ids += 1;
      return `answer-${ids}`;
    },
    onProblem: () => {},
  });
});
afterAll(async () => {
  await world.close();
  await tray.close();
});

async function write(to: string, headers: Record<string, string> = {}): Promise<void> {
  received.length = 0;
  const transport = createTransport({ host: "127.0.0.1", port: world.port, ignoreTLS: true });
  const raw = aMessage({ id: "ours@ottermoor.example", from: "Ines <office@ottermoor.example>", to, headers });
  await transport.sendMail({ envelope: { from: "office@ottermoor.example", to }, raw: Buffer.from(raw) });
  transport.close();
}
const kinds = () => received.map(({ classification }) => classification.kind);

it("answers in the same thread, quoting what it answers", async () => {
  await write("perpetua.vane@vanehouse.example");
  await vi.waitFor(() => expect(kinds()).toEqual(["person"]), PATIENTLY);
  const [answer] = received;
  expect(answer).toMatchObject({
    subject: "Re: Middle C sticks",
    inReplyTo: ["ours@ottermoor.example"],
    references: ["ours@ottermoor.example"],
  });
  expect(answer?.ownText).toContain("that suits me well");
  expect(answer?.ownText).not.toContain("Would a Tuesday be possible?");
  expect(answer?.text).toContain("> Would a Tuesday be possible?");
});

it("says that somebody is away, and answers later", async () => {
  await write("casework@calder.example");
  await vi.waitFor(() => expect(kinds()).toEqual(["automatic", "person"]), PATIENTLY);

  // But for one that does as it should not.
  await write("gatehouse@tollmere.example", { "Auto-Submitted": "auto-replied" });
  await vi.waitFor(() => expect(kinds()).toEqual(["automatic"]), PATIENTLY);
});

it("sends back what nobody takes, by RFC 3464", async () => {
  await write("sexton@oldwyke.example");
  await vi.waitFor(() => expect(kinds()).toEqual(["bounce"]), PATIENTLY);
  expect(received[0]?.failedRecipients).toEqual([
    { address: "sexton@oldwyke.example", permanent: true, diagnostic: "550 5.1.1 no such mailbox here" },
  ]);
  expect(received[0]?.references).toEqual(["ours@ottermoor.example"]);
});

it("answers from another address, on top in HTML, anew, through a list, with an invitation", async () => {
  await write("otto@quayle.example");
  await vi.waitFor(
    () => expect(received.map(({ from }) => from?.address)).toEqual(["otto.quayle@telephone.example"]),
    PATIENTLY,
  );
  expect(received[0]?.inReplyTo).toEqual(["ours@ottermoor.example"]);

  await write("bram@veldthall.example");
  await vi.waitFor(() => expect(received).toHaveLength(1), PATIENTLY);
  expect(received[0]?.ownText).toBe("The lift is yours from eight to ten. The porter knows.\n\nBram Oosterling");

  await write("treasurer@stbrannoc.example");
  await vi.waitFor(() => expect(received).toHaveLength(1), PATIENTLY);
  expect([received[0]?.inReplyTo, received[0]?.references]).toEqual([[], []]);

  await write("rolling@tinguild.example");
  await vi.waitFor(() => expect(kinds()).toEqual(["list"]), PATIENTLY);

  await write("dean@westmere.example");
  await vi.waitFor(() => expect(kinds()).toEqual(["calendar"]), PATIENTLY);
});

it("puts us off before it takes a message", async () => {
  await expect(write("dispatch@gunnelfreight.example")).rejects.toThrow("come again");
  await write("dispatch@gunnelfreight.example");
  await vi.waitFor(() => expect(kinds()).toEqual(["person"]), PATIENTLY);
});

it("signs for those who sign, with keys that are to be had", async () => {
  raws.length = 0;
  await write("perpetua.vane@vanehouse.example");
  await vi.waitFor(() => expect(raws).toHaveLength(1), PATIENTLY);
  const [raw = new Uint8Array()] = raws;
  const now = new Date();
  expect(await checkSignatures(raw, world.keys, now)).toEqual([{ domain: "vanehouse.example", isValid: true }]);
  const changed = Buffer.from(Buffer.from(raw).toString().replace("number 9", "number 8"));
  expect(await checkSignatures(changed, world.keys, now)).toEqual([{ domain: "vanehouse.example", isValid: false }]);
  const noKeys = () => Promise.reject(new Error("no answer"));
  expect(await checkSignatures(raw, noKeys, now)).toEqual([{ domain: "vanehouse.example", isValid: false }]);
});

it("does not answer machines", async () => {
  await write("perpetua.vane@vanehouse.example", { "Auto-Submitted": "auto-replied" });
  await write("casework@calder.example");
  await vi.waitFor(() => expect(kinds()).toEqual(["automatic", "person"]), PATIENTLY);

  // But for one that does as it should not.
  await write("gatehouse@tollmere.example", { "Auto-Submitted": "auto-replied" });
  await vi.waitFor(() => expect(kinds()).toEqual(["automatic"]), PATIENTLY);
});

it("tells a way out that is closed from one that refuses", async () => {
  const envelope = (to: string) => ({ from: "office@ottermoor.example" as EmailAddress, to: [to as EmailAddress] });
  const options = { host: "127.0.0.1", secure: false, auth: null, name: "ottermoor.example" };
  const closed = smtpTransport({ ...options, port: 1 });
  expect((await closed.handOver(envelope("a@x.example"), aMessage({}), null)).kind).toBe("not-now");
  const strict = await listenForMail(
    { host: "127.0.0.1", port: 0, maxBytes: 1_000_000 },
    { knows: async (address) => address === "a@x.example", accept: async () => {}, onProblem: () => {} },
  );
  const open = smtpTransport({ ...options, port: strict.port });
  expect(await open.handOver(envelope("a@x.example"), aMessage({}), null)).toEqual({ kind: "accepted" });
  expect(await open.handOver(envelope("b@x.example"), aMessage({}), null)).toMatchObject({
    kind: "refused",
    reason: expect.stringContaining("550"),
  });
  open.close();
  closed.close();
  await strict.close();
});
