import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { EmailAddress } from "../kernel/email-address";
import { DAY, instant } from "../kernel/instant";
import { saysForwarded } from "./base-subject";
import { independentGroups } from "./independent-groups";
import { commonAddresses, placeAll } from "./place-all";
import { placeMessage, threadIds } from "./place-message";

const message = (messageId: string | null, references: string[] = [], inReplyTo: string[] = [], date = 0) => ({
  messageId,
  references,
  inReplyTo,
  date: instant(date),
  subject: "",
  from: null as EmailAddress | null,
  recipients: [] as EmailAddress[],
  isList: false,
  reportedIds: [] as string[],
});
const OFFICE = "office@ottermoor.example" as EmailAddress;

describe("placing a message", () => {
  const known = new Map([
    ["root", "A"],
    ["parent", "B"],
  ]);
  it("joins the conversation of what it answers before that of older references", () => {
    expect(placeMessage(message("m", ["root"], ["parent"]), known)).toMatchObject({
      kind: "joins",
      conversation: "B",
      by: "parent",
    });
  });
  it("takes the nearest reference when there is no In-Reply-To", () => {
    expect(placeMessage(message("m", ["root", "parent"]), known)).toMatchObject({ conversation: "B" });
    expect(placeMessage(message("m", ["root", "unknown"]), known)).toMatchObject({ conversation: "A" });
  });
  it("joins as a late parent what answered it already", () => {
    expect(placeMessage(message("parent"), known)).toMatchObject({ conversation: "B" });
  });
  it("starts one of its own otherwise", () => {
    expect(placeMessage(message("m", ["elsewhere"]), known)).toEqual({ kind: "starts" });
    expect(placeMessage(message(null), known)).toEqual({ kind: "starts" });
  });
});

describe("placing a whole mailbox", () => {
  const thread = [
    message("a", [], [], 1),
    message("b", ["a"], [], 2),
    message("c", ["a", "b"], [], 3),
    message("d", ["x"], [], 4),
    message("e", ["x"], [], 5),
    message(null, [], [], 6),
  ];
  const ids = (messages: typeof thread, ours: readonly EmailAddress[] = [OFFICE]) =>
    placeAll(messages, ours).map((one) => one.map(({ messageId }) => messageId));

  it("puts together what names each other or the same missing parent", () => {
    expect(ids(thread)).toEqual([["a", "b", "c"], ["d", "e"], [null]]);
  });

  it("gives the same in any order", () => {
    fc.assert(
      fc.property(fc.shuffledSubarray(thread, { minLength: thread.length }), (shuffled) => {
        expect(ids(shuffled)).toEqual(ids(thread));
      }),
    );
  });

  const letter = (id: string, from: EmailAddress, to: EmailAddress, subject: string, day: number) => ({
    ...message(id, [], [], day * DAY),
    from,
    recipients: [to],
    subject,
  });

  it("has an answer without references where its writer is, not where we are", () => {
    const [vane, quayle] = ["vane@x.example", "quayle@y.example"] as EmailAddress[] as [EmailAddress, EmailAddress];
    const mails = [
      letter("1", vane, OFFICE, "Invoice", 1),
      letter("2", quayle, OFFICE, "Invoice", 2),
      letter("3", vane, OFFICE, "Re: Invoice", 3),
      // Ours, to Quayle: not to whom we wrote last.
      letter("4", OFFICE, quayle, "Re: Invoice", 4),
      letter("5", vane, OFFICE, "Re: Invoice", 90),
      letter("6", vane, OFFICE, "Invoice", 5),
    ];
    expect(ids(mails)).toEqual([["1", "3"], ["2", "4"], ["6"], ["5"]]);
    expect(commonAddresses(mails)).toEqual([vane, OFFICE]);
    expect(commonAddresses(mails.slice(0, 2))).toEqual([]);
  });

  it.each([
    ["Fwd: Blower", true],
    ["WG: Blower", true],
    ["[ludd] Fw: Blower", true],
    ["[Fwd: Blower]", true],
    ["Blower (fwd)", true],
    ["Re: Blower", false],
    ["Forward planning", false],
  ])("reads in %j whether it is passed on", (subject, passedOn) => expect(saysForwarded(subject)).toBe(passedOn));

  it("never puts list mail together by its subject, and a report with what it is about", () => {
    const sent = letter("out", OFFICE, "v@x.example" as EmailAddress, "Offer", 1);
    const report = {
      ...letter("report", "daemon@x.example" as EmailAddress, OFFICE, "Failed", 2),
      reportedIds: ["out"],
    };
    const listed = (id: string, day: number) => ({
      ...letter(id, "l@x.example" as EmailAddress, OFFICE, "Re: News", day),
      isList: true,
    });
    expect(ids([sent, report, listed("n1", 3), listed("n2", 4)])).toEqual([["out", "report"], ["n1"], ["n2"]]);
  });

  it("joins two conversations that turn out to be one", () => {
    const late = [message("b", ["a"], [], 2), message("x", [], ["c"], 3), message("c", ["b"], [], 2.5)];
    expect(ids(late)).toEqual([["b", "c", "x"]]);
  });
});

describe("parting messages for storing at the same time", () => {
  const anyMessage = fc
    .record({ own: fc.nat(30), parents: fc.array(fc.nat(30), { maxLength: 3 }) })
    .map(({ own, parents }) => message(`${own}`, parents.map(String)));

  it("never tears ids apart, loses nothing and keeps the order", () => {
    fc.assert(
      fc.property(fc.array(anyMessage, { maxLength: 25 }), fc.integer({ min: 1, max: 4 }), (messages, count) => {
        const groups = independentGroups(messages, threadIds, count);
        expect(groups).toHaveLength(count);
        expect(new Set(groups.flat())).toEqual(new Set(messages));
        expect(groups.flat()).toHaveLength(messages.length);
        for (const group of groups) expect(group).toEqual(messages.filter((one) => group.includes(one)));
        const owners = groups.map((group) => new Set(group.flatMap(threadIds)));
        owners.forEach((ids, at) => {
          for (const other of owners.slice(at + 1)) expect([...ids].filter((id) => other.has(id))).toEqual([]);
        });
      }),
    );
  });

  it("shares unrelated ones evenly", () => {
    const many = Array.from({ length: 40 }, (_, at) => message(`m${at}`));
    expect(independentGroups(many, threadIds, 2).map(({ length }) => length)).toEqual([20, 20]);
  });
});
