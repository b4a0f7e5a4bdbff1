import { inEnglish } from "@tests/support/english";
import { addressed, all, any, aRule, none, worded } from "@tests/support/ruled-messages";
import { describe, expect, it } from "vitest";
import { type CategoryId, type TemplateId, trustedId } from "../kernel/ids";
import { checkRule } from "./check-rule";
import { EVERY_MESSAGE, type Test } from "./condition";
import { type Rule, type RuleAction, withCategoryReplaced } from "./rule";

const [tuning, rounds] = [trustedId<CategoryId>("tuning"), trustedId<CategoryId>("rounds")];
const give = (categoryId: CategoryId): RuleAction => ({ kind: "categorise", categoryId, give: true });

const ofSubject = (...values: string[]) => worded("subject", "words", ...values);

describe("a rule that cannot stand", () => {
  const problemsOf = (given: Partial<Rule>, others: readonly Pick<Rule, "name">[] = []) => {
    const { name, condition = [], exception = [], actions } = checkRule(aRule(given), others);
    const at =
      (part: string) =>
      ({ path, problem }: { path: string; problem: Parameters<typeof inEnglish>[0] }) =>
        `${part}${path === "" ? "" : ` ${path}`}: ${inEnglish(problem)}`;
    return [
      ...(name === undefined ? [] : [`name: ${inEnglish(name)}`]),
      ...condition.map(at("condition")),
      ...exception.map(at("exception")),
      ...(actions === undefined
        ? []
        : "key" in actions
          ? [`actions: ${inEnglish(actions)}`]
          : actions.map(({ at: place, problem }) => `actions ${place}: ${inEnglish(problem)}`)),
    ];
  };
  const never = "This can never hold: a message has only one of what two conditions ask for.";
  const andNot = "This can never hold: the same is asked for and excluded.";
  const from = (...of: string[]) => addressed("from", ...of);

  const begun: Test = { kind: "template", of: [trustedId<TemplateId>("reminder")] };
  const noneOfWhatComes = "Only what we send begins with a template: this never holds for what comes.";
  const sending = { moment: "sending", from: null, until: null } as const;

  it.each<[Partial<Rule>, string[]]>([
    [{}, []],
    [{ condition: all(ofSubject("a"), begun) }, [`condition 1: ${noneOfWhatComes}`]],
    [{ condition: begun, times: sending }, []],
    [{ condition: { ...begun, of: [] }, times: sending }, ["condition: Choose at least one."]],
    [{ condition: EVERY_MESSAGE }, []],
    [{ name: " " }, ["name: Give the rule a name."]],
    [{ name: "x".repeat(61) }, ["name: A name has at most 60 characters."]],
    [{ actions: [] }, ["actions: Add what the rule does."]],
    [{ actions: [{ kind: "note", text: " " }] }, ["actions 0: Enter a text."]],
    [{ actions: [{ kind: "settle" }, { kind: "rest", workingDays: 0 }] }, ["actions 1: Enter 1 to 260 working days."]],
    [{ condition: any() }, ["condition: Add which messages it is for; “Every message” is one of the choices."]],
    [{ condition: all() }, ["condition: Add which messages it is for; “Every message” is one of the choices."]],
    [
      { condition: all(any(), from()) },
      ["condition 0: Add a condition here, or remove the group.", "condition 1: Choose at least one."],
    ],
    [{ condition: worded("subject", "pattern", "(a", "b") }, ["condition: “(a” is no pattern: missing closing )."]],
    [
      { condition: worded("subject", "pattern", "(a)\\1") },
      ["condition: “(a)\\1” is no pattern: invalid escape sequence."],
    ],
    [
      { condition: worded("subject", "pattern", "((a{100}){100}){100}") },
      ["condition: “((a{100}){100}){100}” is no pattern: invalid repeat count."],
    ],
    [{ condition: worded("subject", "words", "?!") }, ["condition: “?!” has no word in it."]],
    [{ condition: worded("subject", "contains", "") }, ["condition: Enter a value."]],
    [
      { condition: { kind: "days", from: "2026-12-02", until: "2026-12-01" } },
      ["condition: It ends before it begins."],
    ],
    [{ condition: { kind: "size", over: 5, under: 6 } }, ["condition: No size is between these two."]],
    [{ condition: all(from("a@x.example"), from("b@x.example")) }, [`condition: ${never}`]],
    [{ condition: all(from("a@x.example"), all(from("@y.example"))) }, [`condition: ${never}`]],
    [{ condition: all(from("a@x.example"), from("@x.example")) }, []],
    [{ condition: all(addressed("to", "a@x.example"), addressed("to", "b@x.example")) }, []],
    [{ condition: any(from("a@x.example"), from("b@x.example")) }, []],
    [{ condition: any(ofSubject("a"), all(from("a@x.example"), from("b@y.example"))) }, [`condition 1: ${never}`]],
    [{ condition: all({ kind: "open", is: true }, { kind: "open", is: false }) }, [`condition: ${never}`]],
    [{ condition: all({ kind: "weekday", of: [0, 1] }, { kind: "weekday", of: [2] }) }, [`condition: ${never}`]],
    [{ condition: all({ kind: "size", over: 9 }, { kind: "size", under: 9 }) }, [`condition: ${never}`]],
    [
      {
        condition: all(
          { kind: "days", from: null, until: "2026-11-30" },
          { kind: "days", from: "2026-12-01", until: null },
        ),
      },
      [`condition: ${never}`],
    ],
    [{ condition: all(ofSubject("a"), none(ofSubject("b"), ofSubject("a"))) }, [`condition: ${andNot}`]],
    [
      { exception: from("@dombach.example") },
      ["exception: This excepts every message, so that the rule never does anything."],
    ],
    [{ exception: EVERY_MESSAGE }, ["exception: This excepts every message, so that the rule never does anything."]],
    [{ exception: any(ofSubject("a"), ofSubject()) }, ["exception 1: Enter a value."]],
  ])("%j", (given, problems) => expect(problemsOf(given)).toEqual(problems));

  it("must not be called as another one", () => {
    expect(problemsOf({ name: "tin " }, [{ name: "Tin" }])).toEqual(["name: Another rule has that name."]);
  });
});

describe("a category that ended", () => {
  const asking = aRule({
    condition: all(
      { kind: "category", of: [tuning] },
      { kind: "address", where: "from", of: [{ kind: "contact-category", categoryId: tuning }] },
    ),
    actions: [give(tuning), give(rounds)],
  });

  it("has its successor in its place, once", () => {
    const { condition, actions, isOn } = withCategoryReplaced(asking, tuning, rounds);
    expect(JSON.stringify(condition)).not.toContain("tuning");
    expect(actions).toEqual([give(rounds)]);
    expect(isOn).toBe(true);
  });

  it("leaves without a successor what else a rule does, and switches off what asked for it", () => {
    expect(withCategoryReplaced(aRule({ actions: [give(tuning), give(rounds)] }), tuning, null)).toMatchObject({
      isOn: true,
      actions: [give(rounds)],
    });
    expect(withCategoryReplaced(aRule(), tuning, null)).toMatchObject({ isOn: false, actions: [] });
    expect(withCategoryReplaced(asking, tuning, null)).toMatchObject({ isOn: false, actions: [give(rounds)] });
    expect(
      withCategoryReplaced(
        aRule({ exception: { kind: "category", of: [tuning] }, actions: [give(rounds)] }),
        tuning,
        null,
      ).isOn,
    ).toBe(false);
  });
});
