import { expect, it } from "vitest";
import type { EmailAddress } from "../../core/kernel/email-address";
import { instant } from "../../core/kernel/instant";
import { parseMessage } from "../parsing/parse-message";
import { composeMessage } from "./compose-message";

const box = (name: string, address: string) => ({ name, address: address as EmailAddress });

it("writes what reading gives back, with a text and an HTML part", async () => {
  const raw = await composeMessage({
    messageId: "id-1@ottermoor.example",
    date: instant(Date.UTC(2026, 10, 24, 9)),
    from: box("Ines Varga, Ottermoor", "office@ottermoor.example"),
    to: [box("Vane, Perpetua", "vane@vanehouse.example")],
    cc: [box("", "col@x.example")],
    subject: "Re: Grüße",
    inReplyTo: "m1@vanehouse.example",
    references: ["m0@vanehouse.example", "m1@vanehouse.example"],
    text: "Yes.\nFrom nine on.",
    html: "<p>Yes.</p>",
  });
  const { message } = await parseMessage(raw);
  expect(message).toMatchObject({
    messageId: "id-1@ottermoor.example",
    date: Date.UTC(2026, 10, 24, 9),
    from: box("Ines Varga, Ottermoor", "office@ottermoor.example"),
    to: [box("Vane, Perpetua", "vane@vanehouse.example")],
    cc: [box("", "col@x.example")],
    subject: "Re: Grüße",
    inReplyTo: ["m1@vanehouse.example"],
    references: ["m0@vanehouse.example", "m1@vanehouse.example"],
    classification: { kind: "person" },
    warnings: [],
  });
  expect([message.text.trim(), message.html?.trim()]).toEqual(["Yes.\nFrom nine on.", "<p>Yes.</p>"]);
  expect(new TextDecoder().decode(raw)).toContain("multipart/alternative");
});
