import { inEnglish } from "@tests/support/english";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { EmailAddress } from "../kernel/email-address";
import { type AutomaticAnswerId, type MemberId, trustedId } from "../kernel/ids";
import { DAY, HOUR, instant, later, MINUTE } from "../kernel/instant";
import { answerFields, filledText, unknownBlanks } from "./answer-letter";
import { type AnswerText, type AutomaticAnswer, asRule, isInForce } from "./automatic-answer";
import { checkAutomaticAnswer } from "./check-automatic-answer";
import { type AnswerCircumstances, chooseAnswer, MOST_AN_HOUR, type SentAnswer } from "./choose-answer";
import { type AnswerableMessage, answerRecipient } from "./may-be-answered";

const at = (text: string) => text as EmailAddress;
const OFFICE = at("office@ottermoor.example");
const PARTS = at("parts@ottermoor.example");
const noon = instant(20_000 * DAY + 12 * HOUR);
const tobias = trustedId<MemberId>("tobias");

describe("to whom an automatic answer goes", () => {
  const letter: AnswerableMessage = {
    kind: "person",
    returnPath: "Vane@VaneHouse.example",
    recipients: [at("office+tuning@ottermoor.example")],
    answersAutomatic: false,
  };
  const goes = (given: Partial<AnswerableMessage>) =>
    answerRecipient({ ...letter, ...given }, [OFFICE, PARTS], [OFFICE]);

  it("is the return path of a person who wrote to the tray by name", () => {
    expect(goes({})).toEqual({ to: "vane@vanehouse.example" });
  });

  it.each<[string, Partial<AnswerableMessage>]>([
    ["machine", { kind: "automatic" }],
    ["machine", { kind: "list" }],
    ["machine", { kind: "bounce" }],
    ["machine", { kind: "calendar" }],
    ["no-return-path", { returnPath: "" }],
    ["no-return-path", { returnPath: null }],
    ["no-return-path", { returnPath: "not an address" }],
    ["ourselves", { returnPath: "parts@ottermoor.example" }],
    ["ourselves", { returnPath: "parts+reeds@ottermoor.example" }],
    ["not-to-us", { recipients: [PARTS] }],
    ["not-to-us", { recipients: [] }],
    ["answers-automatic", { answersAutomatic: true }],
  ])("is nobody: %s", (not, given) => expect(goes(given)).toEqual({ not }));

  it.each([
    "owner-pipes@x.example",
    "pipes-request@x.example",
    "pipes-bounces@x.example",
    "bounces+17=a@x.example",
    "mailer-daemon@x.example",
    "listserv@x.example",
    "Majordomo@x.example",
    "postmaster@x.example",
    "no-reply@x.example",
    "orders.noreply@x.example",
  ])("is never %s", (returnPath) => expect(goes({ returnPath })).toEqual({ not: "robot" }));

  it.each(["owner@x.example", "requests@x.example", "bounceman@x.example", "nora.reply@x.example"])(
    "may be %s",
    (returnPath) => expect(goes({ returnPath })).toEqual({ to: returnPath }),
  );
});

const everybody: AnswerText = { condition: { kind: "every" }, text: "We have it.", copiesCover: false };
const anAnswer = (given: Partial<AutomaticAnswer> = {}): AutomaticAnswer => ({
  id: trustedId<AutomaticAnswerId>("a1"),
  name: "On our way",
  isOn: true,
  from: null,
  until: null,
  trigger: { kind: "always" },
  texts: [everybody],
  pace: { kind: "once", days: 7 },
  ...given,
});
const quiet: AnswerCircumstances = { now: noon, isOpen: true, isAway: () => false, isTheirs: () => false };
const chosen = (
  answers: readonly AutomaticAnswer[],
  given: Partial<AnswerCircumstances> = {},
  sent: readonly SentAnswer[] = [],
  holds: (text: AnswerText) => boolean = () => true,
) => {
  const choice = chooseAnswer(answers, { ...quiet, ...given }, holds, sent);
  return choice === null ? null : `${choice.kind} ${choice.answer.name}`;
};

describe("which answer goes", () => {
  it("is one that is in force: on, begun, and not over", () => {
    expect(isInForce(anAnswer({ from: noon, until: later(noon, 1) }), noon)).toBe(true);
    for (const given of [{ isOn: false }, { from: later(noon, 1) }, { until: noon }])
      expect(chosen([anAnswer(given)])).toBeNull();
  });

  it("is for its hours, or for what is a colleague's who is away", () => {
    const closed = anAnswer({ trigger: { kind: "closed" } });
    expect([chosen([closed]), chosen([closed], { isOpen: false })]).toEqual([null, "send On our way"]);
    const away = anAnswer({ trigger: { kind: "away", memberId: tobias } });
    const [isAway, isTheirs] = [(id: MemberId) => id === tobias, (id: MemberId) => id === tobias];
    expect([chosen([away], { isAway }), chosen([away], { isTheirs })]).toEqual([null, null]);
    expect(chosen([away], { isAway, isTheirs })).toBe("send On our way");
  });

  it("is the first with a text for the message, by the first of its texts", () => {
    const [first, second] = [
      { ...everybody, text: "one" },
      { ...everybody, text: "two" },
    ];
    const answers = [
      anAnswer({ name: "A", texts: [first] }),
      anAnswer({ name: "B", texts: [first, second, everybody] }),
    ];
    expect(chosen(answers, {}, [], ({ text }) => text === "two")).toBe("send B");
    expect(chooseAnswer(answers, quiet, ({ text }) => text !== "one", [])).toMatchObject({ text: second });
    expect(chosen(answers, {}, [], () => false)).toBeNull();
  });

  it("waits its days with a person, anew from a later beginning on, and lets no other go instead", () => {
    const answer = anAnswer();
    const other = anAnswer({ id: trustedId("a2"), name: "Other" });
    const [lately, long] = [later(noon, -6 * DAY), later(noon, -7 * DAY - 1)];
    expect(chosen([answer, other], {}, [{ answerId: answer.id, at: lately }])).toBe("lately On our way");
    expect(chosen([answer], {}, [{ answerId: answer.id, at: long }])).toBe("send On our way");
    expect(chosen([answer], {}, [{ answerId: other.id, at: lately }])).toBe("send On our way");
    const begun = anAnswer({ from: later(noon, -DAY) });
    expect(chosen([begun], {}, [{ answerId: begun.id, at: lately }])).toBe("send On our way");
  });

  it("is never more than so many to one person within any hour", () => {
    const minutes = fc.array(fc.integer({ min: 0, max: 600 }), { minLength: 1, maxLength: 200 });
    fc.assert(
      fc.property(minutes, (all) => {
        const sent: SentAnswer[] = [];
        const each = [anAnswer({ pace: { kind: "each" } })];
        for (const minute of all.toSorted((a, b) => a - b)) {
          const now = later(noon, minute * MINUTE);
          const choice = chooseAnswer(each, { ...quiet, now }, () => true, sent);
          if (choice?.kind === "send") sent.push({ answerId: choice.answer.id, at: now });
        }
        for (const { at: end } of sent)
          expect(sent.filter((one) => one.at > later(end, -HOUR) && one.at <= end).length).toBeLessThanOrEqual(
            MOST_AN_HOUR,
          );
        expect(sent.length).toBeGreaterThan(0);
      }),
      { numRuns: 500 },
    );
  });

  it("names what a rule would: whose absence it is about, and what its conditions ask for", () => {
    const away = anAnswer({ trigger: { kind: "away", memberId: tobias } });
    expect(asRule(away).actions).toEqual([{ kind: "follow", memberId: tobias }]);
    expect(asRule(anAnswer())).toEqual({
      condition: { kind: "any", of: [{ kind: "every" }] },
      exception: null,
      actions: [],
    });
  });
});

describe("the letter of an automatic answer", () => {
  it("says in its header what it is and what it answers", () => {
    const answered = {
      messageId: "m2@x.example",
      inReplyTo: ["m1@x.example"],
      references: [],
      subject: "Middle C",
      fromName: "P. Vane",
      fromAddress: at("vane@x.example"),
    };
    expect(answerFields(at("vane@x.example"), answered)).toEqual({
      to: { name: "P. Vane", address: "vane@x.example" },
      subject: "Auto: Middle C",
      inReplyTo: "m2@x.example",
      references: ["m1@x.example", "m2@x.example"],
      headers: { "Auto-Submitted": "auto-replied" },
    });
    expect(answerFields(at("post+vane@x.example"), answered).to.name).toBe("");
    expect(answerFields(at("v@x.example"), { ...answered, subject: "x".repeat(900) }).subject).toHaveLength(200);
  });

  it("has its blanks filled, however they are written, and no others", () => {
    const values = { back: "7 November", colleague: "Tobias", cover: "Mara" };
    expect(filledText("[Colleague] until [BACK]: [cover], [x]", values)).toBe("Tobias until 7 November: Mara, [x]");
    expect(unknownBlanks("[back] [when] [When] [cover]")).toEqual(["when"]);
  });
});

describe("an automatic answer as it is kept", () => {
  it.each<[string, Partial<AutomaticAnswer>, object]>([
    ["nothing", {}, {}],
    ["no name", { name: " " }, { name: "Give it a name." }],
    ["a name of another", { name: "closed" }, { name: "Another automatic answer has that name." }],
    ["a long name", { name: "x".repeat(61) }, { name: "A name has at most 60 characters." }],
    ["an end before it", { from: noon, until: noon }, { until: "It ends before it begins. Choose a later end." }],
    ["no days", { pace: { kind: "once", days: 0 } }, { days: "Enter a number of days from 1 to 365." }],
    ["half days", { pace: { kind: "once", days: 1.5 } }, { days: "Enter a number of days from 1 to 365." }],
    ["no text at all", { texts: [] }, { texts: "Write what is answered." }],
    ["many texts", { texts: Array(21).fill(everybody) }, { texts: "At most 20 texts." }],
  ])("with %s", (_, given, problems) => {
    const found = checkAutomaticAnswer(anAnswer(given), ["Closed"]);
    expect(Object.fromEntries(Object.entries(found).map(([field, said]) => [field, inEnglish(said as never)]))).toEqual(
      problems,
    );
  });

  it.each<[string, Partial<AnswerText>, string]>([
    ["an empty text", { text: " " }, "Write what is answered."],
    ["a long one", { text: "x".repeat(10_001) }, "At most 10000 characters."],
    ["a blank of no meaning", { text: "[soon]" }, "[soon] is filled by nothing. Use [back], [colleague] or [cover]."],
  ])("with %s, said by its place", (_, given, problem) => {
    const { texts } = checkAutomaticAnswer(anAnswer({ texts: [everybody, { ...everybody, ...given }] }), []);
    if (!(texts instanceof Map)) throw new Error("nothing is wrong with one of them");
    expect([...texts.keys()]).toEqual([1]);
    expect(inEnglish(texts.get(1)?.text)).toBe(problem);
  });

  it("with a condition that asks for nothing, said by its place", () => {
    const empty: AnswerText = { ...everybody, condition: { kind: "all", of: [] } };
    const { texts } = checkAutomaticAnswer(anAnswer({ texts: [empty] }), []);
    expect(texts instanceof Map && texts.get(0)?.condition).toHaveLength(1);
  });
});
