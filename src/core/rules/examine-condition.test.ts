import { inEnglish } from "@tests/support/english";
import { addressed, all, any, aRule, aRuledMessage, none, worded } from "@tests/support/ruled-messages";
import { describe, expect, it } from "vitest";
import type { EmailAddress } from "../kernel/email-address";
import {
  type CategoryId,
  type ContactId,
  type MemberId,
  type RecordId,
  type TemplateId,
  trustedId,
} from "../kernel/ids";
import { type Condition, EVERY_MESSAGE, type Test, withoutLoneGroups } from "./condition";
import { conditionInWords, foundInWords, type RuleNames, whichMessagesInWords } from "./condition-in-words";
import { examineCondition, rulesThatHold, whyRuleHolds } from "./examine-condition";
import { testedMessage } from "./test-message";

const address = (text: string) => text as EmailAddress;
const [tuning, rounds] = [trustedId<CategoryId>("tuning"), trustedId<CategoryId>("rounds")];
const tobias = trustedId<MemberId>("tobias");
const sorrel = trustedId<RecordId>("sorrel");
const renske = trustedId<ContactId>("renske");
const reminder = trustedId<TemplateId>("reminder");

const names: RuleNames = {
  member: () => "Tobias Renn",
  category: (id) => (id === tuning ? "Tuning" : "Rounds"),
  record: () => "P-26-012",
  contact: () => "Renske Vane",
  round: () => "Mass mail",
  group: () => "The workshop",
  template: () => "A reminder",
};

const message = testedMessage(
  aRuledMessage({
    from: address("billing@dombach.example"),
    to: [address("office@ottermoor.example")],
    cc: [address("renske@vane.example")],
    subject: "Invoice 2031 for tin",
    ownText: "Please find the invoice attached.\nNaïve café",
    restText: "> the order of Monday",
    attachments: [{ fileName: "RE-2031.pdf", contentType: "application/pdf", size: 80_000 }],
    size: 120_000,
    headers: [
      { name: "x-priority", value: "1" },
      { name: "received", value: "from a" },
      { name: "received", value: "from b" },
    ],
    addressFields: new Map([["delivered-to", ["office+tin@ottermoor.example"]]]),
    envelope: { from: "bounces@dombach.example", to: ["office@ottermoor.example"] },
    references: [sorrel],
    templateId: reminder,
    correspondents: new Map([
      [
        address("renske@vane.example"),
        { contactId: renske, categoryIds: [rounds], organisation: "Vane Organs", isColleague: false, isKnown: true },
      ],
    ]),
    conversation: {
      standing: "our-move",
      ownerId: tobias,
      isOwnerAway: true,
      categoryIds: [tuning],
      recordIds: [sorrel],
      urgency: "today",
      age: 12,
      standingFor: 3,
      dueIn: 9,
    },
  }),
);

describe("what a test finds in a message", () => {
  it.each<[Test, string | null]>([
    [addressed("from", "billing@dombach.example"), "from billing@dombach.example"],
    [addressed("from", "@dombach.example"), "from @dombach.example"],
    [addressed("from", "@bach.example"), null],
    [addressed("from", "@x.example", "@dombach.example"), "from @dombach.example"],
    [addressed("to", "renske@vane.example"), null],
    [addressed("cc", "renske@vane.example"), "copied to renske@vane.example"],
    [addressed("recipient", "@vane.example"), "to or copied to @vane.example"],
    [addressed("any", "office@ottermoor.example"), "from, to or copied to office@ottermoor.example"],
    [{ kind: "address", where: "cc", of: [{ kind: "contact", contactId: renske }] }, "copied to renske@vane.example"],
    [
      { kind: "address", where: "any", of: [{ kind: "contact-category", categoryId: rounds }] },
      "from, to or copied to renske@vane.example",
    ],
    [{ kind: "address", where: "from", of: [{ kind: "organisation", name: "vane organs" }] }, null],
    [
      { kind: "address", where: "cc", of: [{ kind: "organisation", name: "vane organs" }] },
      "copied to renske@vane.example",
    ],
    [{ kind: "address", where: "from", of: [{ kind: "known" }] }, null],
    [{ kind: "address", where: "from", of: [{ kind: "unknown" }] }, "from billing@dombach.example"],
    [{ kind: "address", where: "any", of: [{ kind: "colleague" }] }, null],
    [worded("subject", "words", "tin invoice"), "with “tin invoice” in the subject"],
    [worded("subject", "words", "voice"), null],
    [worded("subject", "phrase", "for tin"), "with “for tin” in the subject"],
    [worded("subject", "phrase", "tin for"), null],
    [worded("text", "words", "INVOICE"), "with “INVOICE” in the text"],
    [worded("text", "words", "order"), null],
    [worded("text", "words", "cafe naive"), "with “cafe naive” in the text"],
    [worded("body", "words", "order"), "with “order” in the text or its quotes"],
    [worded("file", "like", "re-*.PDF"), "with “RE-2031.pdf” in a file name"],
    [worded("file", "like", "re-?.pdf"), null],
    [worded("subject", "is", "invoice 2031 FOR tin"), "that is “invoice 2031 FOR tin” in the subject"],
    [worded("subject", "contains", "VOICE 20"), "with “VOICE 20” in the subject"],
    [worded("subject", "pattern", "[0-9]{4}"), "with “2031” in the subject"],
    [worded("subject", "pattern", "^[0-9]{4}"), null],
    [{ kind: "text", where: "subject", match: { how: "contains", values: ["invoice"], isExact: true } }, null],
    [{ kind: "attachment" }, "with an attachment with a name that is “RE-2031.pdf”"],
    [
      { kind: "attachment", types: ["application/*"], over: 79_999, under: 80_001 },
      "with an attachment with a name that is “RE-2031.pdf”",
    ],
    [{ kind: "attachment", types: ["image/png"] }, null],
    [{ kind: "attachment", over: 80_000 }, null],
    [{ kind: "size", over: 119_999 }, "larger than 120 kB"],
    [{ kind: "size", under: 120_000 }, null],
    [
      { kind: "header", names: ["x-priority"], match: { how: "is", values: ["1"] } },
      "whose field x-priority contains “1”",
    ],
    [{ kind: "header", names: ["x-spam"], match: { how: "exists" } }, null],
    [
      { kind: "header", names: ["received"], match: { how: "count", relation: "ge", values: ["2"] } },
      "whose field received comes at least “2” times",
    ],
    [
      {
        kind: "header",
        names: ["x-priority"],
        match: { how: "value", relation: "lt", isNumber: true, values: ["10"] },
      },
      "whose field x-priority contains “1”",
    ],
    [
      { kind: "address-part", names: ["delivered-to"], part: "detail", match: { how: "is", values: ["tin"] } },
      "where the part behind the plus in delivered-to contains “tin”",
    ],
    [
      { kind: "address-part", names: ["envelope-from"], part: "localpart", match: { how: "is", values: ["bounces"] } },
      "where the part before the @ in envelope-from contains “bounces”",
    ],
    [{ kind: "address-part", names: ["envelope-to"], part: "detail", match: { how: "contains", values: ["a"] } }, null],
    [{ kind: "reach", of: ["direct"] }, "to us directly"],
    [{ kind: "reach", of: ["copied", "list"] }, null],
    [{ kind: "list", of: ["members.example"] }, null],
    [{ kind: "message-kind", of: ["person", "calendar"] }, "from a person"],
    [{ kind: "opening", isFirst: true }, "the first of its conversation"],
    [{ kind: "verified", is: false }, "from a sender who is not verified"],
    [{ kind: "open", is: true }, "that comes within working hours"],
    [{ kind: "weekday", of: [0, 1] }, "that comes on Monday"],
    [{ kind: "days", from: "2026-11-30", until: null }, "that comes on 2026-11-30 or later"],
    [{ kind: "days", from: null, until: "2026-11-29" }, null],
    [
      { kind: "date-part", field: null, zone: "+0200", part: "hour", match: { how: "is", values: ["11"] } },
      "where the hour of its arrival is “11”",
    ],
    [{ kind: "reference", of: [] }, "with the code P-26-012"],
    [{ kind: "template", of: [reminder] }, "of ours, begun with A reminder"],
    [{ kind: "template", of: [trustedId<TemplateId>("thanks")] }, null],
    [{ kind: "standing", of: ["to-sort"] }, null],
    [{ kind: "owner", of: [null, tobias] }, "owned by Tobias Renn"],
    [{ kind: "owner-away" }, "whose owner is away"],
    [{ kind: "category", of: [rounds, tuning] }, "with the category Tuning"],
    [{ kind: "record", of: [sorrel] }, "filed to P-26-012"],
    [{ kind: "urgency", of: ["today", "days"] }, "with the urgency Today"],
    [{ kind: "age", hours: 13 }, null],
    [{ kind: "standing-for", hours: 3 }, "that has stood where it is for 3 working hours or longer"],
    [{ kind: "due", hours: 9 }, "with something due within 9 working hours"],
    [{ kind: "due", hours: 8 }, null],
  ])("%j", (test, words) => {
    const examined = examineCondition(test, message);
    expect(examined.holds).toBe(words !== null);
    if (!("found" in examined) || examined.found === null) expect(words).toBeNull();
    else expect(inEnglish(foundInWords(test, examined.found, names))).toBe(words);
  });

  it("asks nothing of a conversation that there is not yet", () => {
    const alone = testedMessage(aRuledMessage({ conversation: null }));
    expect(examineCondition({ kind: "owner", of: [null] }, alone).holds).toBe(false);
    expect(examineCondition({ kind: "none", of: [{ kind: "owner-away" }] }, alone).holds).toBe(true);
  });
});

const ofSubject = (...values: string[]) => worded("subject", "words", ...values);

describe("conditions together", () => {
  it.each<[string, Condition, boolean]>([
    ["every message", EVERY_MESSAGE, true],
    ["one of none", any(), false],
    ["all", all(ofSubject("tin"), ofSubject("invoice")), true],
    ["not all", all(ofSubject("tin"), ofSubject("order")), false],
    ["any", any(ofSubject("order"), ofSubject("tin")), true],
    ["none", none(ofSubject("order"), ofSubject("bill")), true],
    ["not none", none(ofSubject("order"), ofSubject("tin")), false],
    ["within each other", all(any(ofSubject("order"), none(ofSubject("bill"))), none(none(ofSubject("tin")))), true],
  ])("%s", (_, condition, holds) => expect(examineCondition(condition, message).holds).toBe(holds));

  it("are told with what they found, and nothing of what is excluded", () => {
    const condition = all(any(ofSubject("order"), ofSubject("tin")), none(addressed("from", "@x.example")));
    const held = whyRuleHolds({ condition, exception: null }, message);
    expect(held?.map(({ found }) => found)).toEqual(["tin"]);
    expect(whyRuleHolds({ condition, exception: ofSubject("invoice") }, message)).toBeNull();
  });

  it("are read as they are nested", () => {
    const condition = all(addressed("from", "@a.example"), any(ofSubject("a", "b"), { kind: "verified", is: true }));
    expect(inEnglish(whichMessagesInWords({ condition, exception: none(ofSubject("c")) }, names))).toBe(
      "from @a.example, (with “a” or “b” in the subject or from a verified sender), unless not with “c” in the subject",
    );
    expect(inEnglish(conditionInWords(EVERY_MESSAGE, names))).toBe("of whatever kind");
  });
});

describe("rules one after the other", () => {
  it("hold in their order, up to the last, and only when they are on", () => {
    const held = rulesThatHold(
      [
        aRule({ name: "off", isOn: false }),
        aRule({ name: "one" }),
        aRule({ name: "not for it", condition: ofSubject("order"), isLast: true }),
        aRule({ name: "two", isLast: true }),
        aRule({ name: "three" }),
      ],
      message,
    );
    expect(held.map(({ rule: { name } }) => name)).toEqual(["one", "two"]);
  });
});

it("is told without groups that join nothing", () => {
  const [tin, lead] = [worded("subject", "words", "tin"), worded("subject", "words", "lead")];
  expect(withoutLoneGroups(all(any(tin), none(lead)))).toEqual(all(tin, none(lead)));
  expect(withoutLoneGroups(all(any(tin)))).toEqual(tin);
  expect(withoutLoneGroups(all())).toEqual(all());
});
