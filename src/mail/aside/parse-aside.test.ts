import { aMessage } from "@tests/support/mail";
import { afterAll, expect, it } from "vitest";
import { parseMessage } from "../parsing/parse-message";
import { workAside } from "./aside";
import { limitedThread, Overran } from "./limited-thread";

const aside = workAside();
afterAll(() => aside.close());

it("understands messages in its thread as they are understood here, in the same order", async () => {
  const raws = ["one", "two", "three"].map((subject) => aMessage({ subject, id: `${subject}@x.example` }));
  const here = [];
  for (const raw of raws) here.push((await parseMessage(raw)).message);
  expect(await aside.parseMany(raws)).toEqual(here);
  expect(await aside.parse(raws[0] ?? new Uint8Array())).toEqual(here[0]);
});

it("leaves the bytes with whoever gave them, also where they are a piece of others", async () => {
  const whole = new Uint8Array([...aMessage({ subject: "a" }), ...aMessage({ subject: "b" })]);
  const middle = aMessage({ subject: "a" }).byteLength;
  const pieces = [whole.subarray(0, middle), whole.subarray(middle)];
  const messages = await aside.parseMany(pieces);
  expect(messages.map(({ subject }) => subject)).toEqual(["a", "b"]);
  expect(pieces[1]?.byteLength).toBe(aMessage({ subject: "b" }).byteLength);
});

it("carries out one task after the other, and one that takes too long costs no other", async () => {
  const thread = limitedThread(128);
  const mail = { raw: aMessage({ subject: "x" }), envelopeSender: null };
  const late = thread.carryOut("parse", [mail], 1);
  const next = thread.carryOut("parse", [mail], 30_000);
  await expect(late).rejects.toBeInstanceOf(Overran);
  expect((await next)[0]?.subject).toBe("x");
  await thread.close();
});

it("ends a task that takes more memory than it may, and goes on with the next", async () => {
  const thread = limitedThread(96);
  const text = "word ".repeat(4_000_000);
  const part = { kind: "message", head: [], text, attachments: [] } as const;
  const large = { subject: "", about: "", made: new Date(0), parts: [part] };
  await expect(thread.carryOut("pdf", large, 120_000)).rejects.toBeInstanceOf(Overran);
  const mail = { raw: aMessage({ subject: "still read" }), envelopeSender: null };
  expect((await thread.carryOut("parse", [mail], 30_000))[0]?.subject).toBe("still read");
  await thread.close();
});
