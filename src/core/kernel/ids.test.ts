import { expect, it } from "vitest";
import { type ConversationId, readId } from "./ids";

const RIGHT = "019aa5b0-0000-7000-8000-000000000001";

it("an id from outside is read when it is one", () => {
  expect(readId<ConversationId>(RIGHT)).toEqual({ ok: true, value: RIGHT });
});

it.each(["", "1", RIGHT.toUpperCase(), `${RIGHT} `, `${RIGHT}\n`, RIGHT.slice(1), `${RIGHT}'; drop table member`])(
  "%j is no id",
  (text) => expect(readId<ConversationId>(text)).toEqual({ ok: false, error: "malformed-id" }),
);
