import { describe, expect, it } from "vitest";
import type { EmailAddress, Mailbox } from "../kernel/email-address";
import { type AnsweredMessage, planAnswer, replySubject } from "./plan-answer";
import { planForward } from "./plan-forward";

const person = (name: string): Mailbox => ({ name, address: `${name}@x.example` as EmailAddress });
const OFFICE = "office@x.example" as EmailAddress;
const office = person("office");

function message(
  from: Mailbox,
  more: Partial<AnsweredMessage> & { to?: Mailbox[]; cc?: Mailbox[]; replyTo?: Mailbox[] } = {},
): AnsweredMessage {
  const { to = [office], cc = [], replyTo = [], ...rest } = more;
  return {
    direction: from.address === OFFICE ? "out" : "in",
    kind: "person",
    messageId: `by-${from.name}`,
    inReplyTo: [],
    references: [],
    subject: "Visit",
    fromName: from.name,
    fromAddress: from.address,
    recipients: { to, cc, replyTo },
    ...rest,
  };
}

describe("an answer", () => {
  it("goes to the sender, with the others in copy and without us", () => {
    const plan = planAnswer(
      [message(person("vane"), { to: [office, person("col")], cc: [person("dean"), person("vane")] })],
      [OFFICE],
    );
    expect([plan.to, plan.cc]).toEqual([[person("vane")], [person("col"), person("dean")]]);
  });
  it("goes where the sender asks", () => {
    expect(planAnswer([message(person("vane"), { replyTo: [person("choir")] })], [OFFICE]).to).toEqual([
      person("choir"),
    ]);
  });
  it("goes to the person and not to the machine that answered last", () => {
    const plan = planAnswer([message(person("vane")), message(person("robot"), { kind: "automatic" })], [OFFICE]);
    expect([plan.to, plan.inReplyTo]).toEqual([[person("vane")], "by-vane"]);
  });
  it("goes where our last one went when nobody has written", () => {
    expect(planAnswer([message(office, { to: [person("vane")] })], [OFFICE]).to).toEqual([person("vane")]);
  });
  it("continues the chain from the newest message", () => {
    const plan = planAnswer(
      [message(person("vane")), message(office, { references: ["by-vane"], inReplyTo: ["by-vane"] })],
      [OFFICE],
    );
    expect([plan.inReplyTo, plan.references]).toEqual(["by-office", ["by-vane", "by-office"]]);
  });
  it("is empty for an empty conversation", () => expect(planAnswer([])).toMatchObject({ to: [], inReplyTo: null }));
});

it.each([
  ["Visit", "Re: Visit"],
  ["Re: Visit", "Re: Visit"],
  ["RE : Visit", "RE : Visit"],
  ["Reeds", "Re: Reeds"],
  ["", "Re:"],
])("the answer to %j is called %j", (subject, reply) => expect(replySubject(subject)).toBe(reply));

describe("passing a message on", () => {
  const passed = {
    subject: "The key",
    fromName: "P. Vane",
    fromAddress: "vane@vanehouse.example" as EmailAddress,
    to: [{ name: "", address: "office@ottermoor.example" as EmailAddress }],
    sentAt: "Tue 24 Nov, 09:00",
    ownText: "Where is it?",
  };
  it.each([
    ["The key", "Fwd: The key"],
    ["Fwd: The key", "Fwd: The key"],
    ["FW: The key", "FW: The key"],
    ["Forwarding address", "Fwd: Forwarding address"],
    ["", "Fwd:"],
  ])("%j becomes %j", (subject, expected) => expect(planForward({ ...passed, subject }).subject).toBe(expected));

  it("says who wrote it, to whom, when and about what", () => {
    expect(planForward(passed).head).toEqual([
      "From: P. Vane <vane@vanehouse.example>",
      "To: office@ottermoor.example",
      "Date: Tue 24 Nov, 09:00",
      "Subject: The key",
    ]);
  });
});
