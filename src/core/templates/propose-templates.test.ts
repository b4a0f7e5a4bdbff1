import { randomFrom } from "@tests/support/random";
import { expect, it } from "vitest";
import type { EmailAddress } from "../kernel/email-address";
import { type CategoryId, type TemplateId, trustedId } from "../kernel/ids";
import { type Answered, type PastUse, proposeTemplates } from "./propose-templates";

const id = (name: string) => trustedId<TemplateId>(name);
const mail = (part: Partial<Answered> = {}): Answered => ({
  ...{ person: null, subject: "", categoryIds: [], recordIds: [], ...part },
});
const at = (address: string) => address as EmailAddress;

it("proposes what was used for the same person, else for such words; nothing for what is like nothing before", () => {
  const uses: PastUse[] = [
    { templateId: id("visit"), ...mail({ person: at("vane@vane.example"), subject: "Middle C sticks" }) },
    { templateId: id("visit"), ...mail({ person: at("quayle@quayle.example"), subject: "The blower is loud" }) },
    { templateId: id("offer"), ...mail({ person: at("brannoc@pell.example"), subject: "What would it cost" }) },
  ];
  const first = (part: Partial<Answered>) => proposeTemplates(uses, mail(part), 3)[0]?.templateId;
  expect(first({ person: at("vane@vane.example"), subject: "Cost of leather" })).toBe("visit");
  expect(first({ subject: "What does a rank cost?" })).toBe("offer");
  expect(first({ person: at("new@new.example"), subject: "Hello" })).toBeUndefined();
  expect(proposeTemplates([], mail({ subject: "What would it cost" }), 3)).toEqual([]);
});

// Each kind of mail has words of its own among words of all, a category on most of it, and people who write now and then.
it("finds the template of most generated mail, and is seldom wrong where it is sure", () => {
  const below = randomFrom(7n);
  const any = <T>(some: readonly T[]): T => some[below(some.length)] as T;
  const isSo = (percent: number) => below(100) < percent;
  const common = ["organ", "pipe", "church", "question", "please", "week", "house"];
  const kinds = Array.from({ length: 8 }, (_, n) => ({
    templateId: id(`template-${n}`),
    words: Array.from({ length: 6 }, (_word, at) => `word${"abcdefgh"[n]}${"uvwxyz"[at]}`),
    categoryId: trustedId<CategoryId>(`category-${n % 5}`),
  }));
  const written = (): PastUse => {
    const kind = any(kinds);
    const subject = [any(common), isSo(70) ? any(kind.words) : any(common), any(common)].join(" ");
    const person = at(`person${below(300)}@house${below(200)}.example`);
    return {
      templateId: kind.templateId,
      ...mail({ person, subject, categoryIds: isSo(80) ? [kind.categoryId] : [] }),
    };
  };
  const uses = Array.from({ length: 400 }, written);
  const held = Array.from({ length: 400 }, written).map(({ templateId, ...asked }) => ({
    templateId,
    proposed: proposeTemplates(uses, asked, 3),
  }));
  const rightOf = (some: typeof held) => some.filter((one) => one.proposed[0]?.templateId === one.templateId).length;
  const among = held.filter((one) => one.proposed.some(({ templateId }) => templateId === one.templateId)).length;
  const sure = held.filter((one) => (one.proposed[0]?.share ?? 0) >= 0.8);
  expect(rightOf(held) / held.length).toBeGreaterThan(0.75);
  expect(among / held.length).toBeGreaterThan(0.85);
  expect(sure.length / held.length).toBeGreaterThan(0.5);
  expect(rightOf(sure) / sure.length).toBeGreaterThan(0.9);
});
