import { aMessage } from "@tests/support/mail";
import { createTransport } from "nodemailer";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { listenForMail, type MailListener, type ReceivedMail } from "./smtp-listener";

const MAX_BYTES = 100_000;
const accepted: ReceivedMail[] = [];
let broken = false;
let listener: MailListener;

beforeAll(async () => {
  listener = await listenForMail(
    { host: "127.0.0.1", port: 0, maxBytes: MAX_BYTES },
    {
      knows: async (address) => address === "office@ottermoor.example",
      accept: async (mail) => {
        if (broken) throw new Error("no room");
        accepted.push(mail);
      },
      onProblem: () => {},
    },
  );
});
afterAll(() => listener.close());

async function deliver(to: string, raw: Uint8Array, from = "vane@vanehouse.example"): Promise<number> {
  const transport = createTransport({ host: "127.0.0.1", port: listener.port, ignoreTLS: true });
  try {
    await transport.sendMail({ envelope: { from, to }, raw: Buffer.from(raw) });
    return 250;
  } catch (problem) {
    return (problem as { responseCode?: number }).responseCode ?? 0;
  } finally {
    transport.close();
  }
}

describe("the listener", () => {
  it("says 250 for a message that is kept, byte for byte, with its envelope", async () => {
    const raw = aMessage({ body: ".\r\n.. dots\r\nend" });
    expect(await deliver("Office@Ottermoor.example", raw)).toBe(250);
    expect(accepted.at(-1)?.recipients).toEqual(["office@ottermoor.example"]);
    expect(new TextDecoder().decode(accepted.at(-1)?.raw).trimEnd()).toBe(new TextDecoder().decode(raw).trimEnd());
  });
  it("says 550 for a recipient it does not know", async () =>
    expect(await deliver("nobody@ottermoor.example", aMessage({}))).toBe(550));
  it("says 552 for a message that is too large", async () => {
    expect(await deliver("office@ottermoor.example", aMessage({ body: "x\r\n".repeat(MAX_BYTES) }))).toBe(552);
  });
  it("takes the empty sender of bounces", async () => {
    expect(await deliver("office@ottermoor.example", aMessage({}), "")).toBe(250);
    expect(accepted.at(-1)?.envelopeSender).toBe("");
  });
  it("says 451 when a message could not be kept, and goes on", async () => {
    broken = true;
    expect(await deliver("office@ottermoor.example", aMessage({}))).toBe(451);
    broken = false;
    expect(await deliver("office@ottermoor.example", aMessage({}))).toBe(250);
  });
});
