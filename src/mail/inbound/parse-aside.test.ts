import { aMessage } from "@tests/support/mail";
import { afterAll, beforeAll, expect, it } from "vitest";
import { type AsideParser, parserAside } from "./parse-aside";
import { parseMessage } from "./parse-message";

let parser: AsideParser;
beforeAll(() => {
  parser = parserAside();
});
afterAll(() => parser.close());

it("understands messages in its thread as they are understood here, in the same order", async () => {
  const raws = ["one", "two", "three"].map((subject) => aMessage({ subject, id: `${subject}@x.example` }));
  const here = [];
  for (const raw of raws) here.push((await parseMessage(raw)).message);
  expect(await parser.parse(raws)).toEqual(here);
});

it("leaves the bytes with whoever gave them, also where they are a piece of others", async () => {
  const whole = new Uint8Array([...aMessage({ subject: "a" }), ...aMessage({ subject: "b" })]);
  const middle = aMessage({ subject: "a" }).byteLength;
  const pieces = [whole.subarray(0, middle), whole.subarray(middle)];
  const messages = await parser.parse(pieces);
  expect(messages.map(({ subject }) => subject)).toEqual(["a", "b"]);
  expect(pieces[1]?.byteLength).toBe(aMessage({ subject: "b" }).byteLength);
});

it("answers every order by itself, whichever is asked first", async () => {
  const orders = ["x", "y"].map((subject) => parser.parse([aMessage({ subject })]));
  const answers = await Promise.all(orders.reverse());
  expect(answers.map(([message]) => message?.subject)).toEqual(["y", "x"]);
});

it("tells whoever waits when its thread has ended, and whoever asks after that", async () => {
  const other = parserAside();
  const waiting = other.parse([aMessage({})]);
  const told = expect(waiting).rejects.toThrow("has ended");
  await other.close();
  await told;
  await expect(other.parse([aMessage({})])).rejects.toThrow("has ended");
});
