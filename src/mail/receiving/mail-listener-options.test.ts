import { connect, type Socket } from "node:net";
import { createInterface } from "node:readline";
import { CERTIFICATE } from "@tests/support/certificate";
import { aMessage } from "@tests/support/mail";
import { createTransport } from "nodemailer";
import { afterEach, describe, expect, it } from "vitest";
import { ratePerMinute } from "./rate-per-minute";
import { listenForMail, type MailListener, type MailListenerOptions, type ReceivedMail } from "./smtp-listener";

let open: MailListener | null = null;
const accepted: ReceivedMail[] = [];
afterEach(async () => {
  await open?.close();
  open = null;
  accepted.length = 0;
});

async function listen(options: Partial<MailListenerOptions>): Promise<number> {
  open = await listenForMail(
    { host: "127.0.0.1", port: 0, maxBytes: 100_000, ...options },
    {
      knows: async (address) => address.endsWith("@ottermoor.example"),
      accept: async (mail) => {
        if (mail.recipients.some((address) => address.startsWith("parts@"))) throw new Error("no room");
        accepted.push(mail);
      },
      onProblem: () => {},
    },
  );
  return open.port;
}

async function deliver(
  port: number,
  raw: Uint8Array = aMessage({}),
  more: object = { ignoreTLS: true },
): Promise<number> {
  const transport = createTransport({ host: "127.0.0.1", port, ...more });
  const envelope = { from: "vane@vanehouse.example", to: "office@ottermoor.example" };
  const code = await transport.sendMail({ envelope, raw: Buffer.from(raw) }).then(
    () => 250,
    (problem: { responseCode?: number }) => problem.responseCode ?? 0,
  );
  transport.close();
  return code;
}

/** Speaks line by line; gives each answer, or the last line of one that has several. */
function speaking(port: number) {
  const socket: Socket = connect(port, "127.0.0.1");
  const lines = createInterface({ input: socket })[Symbol.asyncIterator]();
  const hear = async (): Promise<string> => {
    const { value } = await lines.next();
    return /^\d{3}-/.test(value) ? hear() : value;
  };
  const say = (line: string) => {
    socket.write(`${line}\r\n`);
    return hear();
  };
  return { hear, say, end: () => socket.destroy() };
}

describe("LMTP", () => {
  it("answers for each recipient", async () => {
    const talk = speaking(await listen({ protocol: "lmtp" }));
    await talk.hear();
    expect(await talk.say("LHLO mx.x.example")).toMatch(/^250/);
    expect(await talk.say("MAIL FROM:<vane@vanehouse.example>")).toMatch(/^250/);
    expect(await talk.say("RCPT TO:<office@ottermoor.example>")).toMatch(/^250/);
    expect(await talk.say("RCPT TO:<nobody@elsewhere.example>")).toMatch(/^550/);
    expect(await talk.say("RCPT TO:<parts@ottermoor.example>")).toMatch(/^250/);
    expect(await talk.say("DATA")).toMatch(/^354/);
    const first = await talk.say("Subject: x\r\n\r\nx\r\n.");
    expect([first, await talk.hear()]).toEqual([
      expect.stringMatching(/^250 .*office@ottermoor\.example/),
      expect.stringMatching(/^451/),
    ]);
    talk.end();
    expect(accepted.map(({ recipients }) => recipients)).toEqual([["office@ottermoor.example"]]);
  });
});

describe("limits", () => {
  it("let only some networks hand mail over", async () => {
    expect(await deliver(await listen({ networks: ["10.0.0.0/8", "fd00::/8"] }))).toBe(554);
    await open?.close();
    expect(await deliver(await listen({ networks: ["10.0.0.0/8", "127.0.0.0/8"] }))).toBe(250);
  });

  it("slow down who sends too much", async () => {
    const port = await listen({ messagesAMinute: 2 });
    expect([await deliver(port), await deliver(port), await deliver(port)]).toEqual([250, 250, 450]);
  });

  it("count by sender and minute", () => {
    const isInRate = ratePerMinute(2);
    const asked = (sender: string, at: number) => isInRate(sender, at);
    expect([asked("a", 0), asked("a", 1), asked("a", 2), asked("b", 3), asked("a", 60_000)]).toEqual([
      true,
      true,
      false,
      true,
      true,
    ]);
  });

  it("end what goes round in circles", async () => {
    const port = await listen({});
    const hops = (count: number) =>
      Buffer.from(`${"Received: from a by b\r\n".repeat(count)}${Buffer.from(aMessage({}))}`);
    expect([await deliver(port, hops(100)), await deliver(port, hops(101))]).toEqual([250, 554]);
  });
});

it("offers STARTTLS when it has a certificate", async () => {
  const strict = { requireTLS: true, tls: { rejectUnauthorized: false } };
  expect(await deliver(await listen({ tls: CERTIFICATE }), aMessage({}), strict)).toBe(250);
  await open?.close();
  expect(await deliver(await listen({}), aMessage({}), strict)).toBe(500);
});
