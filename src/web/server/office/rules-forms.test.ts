import { describe, expect, it } from "vitest";
import type { Deps } from "../../../operations/index.server";
import { readContactStep } from "./contact-form.server";
import { readRuleStep } from "./rule-form.server";

const ID = "019aa5b0-0000-7000-8000-000000000001";
const form = (fields: Record<string, string | readonly string[]>) => {
  const data = new FormData();
  for (const [name, value] of Object.entries(fields)) for (const one of [value].flat()) data.append(name, String(one));
  return data;
};
// No record is named here that would have to be looked up.
const deps = {} as Deps;
const rule = (fields: Record<string, string | readonly string[]>) =>
  readRuleStep(deps, {} as never, form({ do: "keep", name: "Tin", from: "@x.example", urgency: "today", ...fields }));

describe("a posted rule", () => {
  it("is read with its lists, in lower case where that is the same", async () => {
    const step = await rule({
      from: "A@x.example, @Y.example,",
      subject: "Invoice, order no",
      "not-list": "Members.X.example",
      attachment: "yes",
      categories: [ID],
      owner: ID,
      away: "bin",
      on: "true",
      last: "true",
      id: ID,
    });
    expect(step).toMatchObject({
      ok: true,
      value: {
        do: "keep",
        rule: {
          id: ID,
          name: "Tin",
          isOn: true,
          isLast: true,
          conditions: {
            from: ["a@x.example", "@y.example"],
            subject: ["Invoice", "order no"],
            to: [],
            text: [],
            list: [],
            hasAttachment: true,
          },
          exceptions: { list: ["members.x.example"], hasAttachment: null },
          actions: { categoryIds: [ID], recordId: null, ownerId: ID, urgency: "today", putAway: "bin" },
        },
      },
    });
  });

  it.each([
    [{ from: "x.example" }, { from: "“x.example” is neither an address nor an @domain." }],
    [{ "not-to": "@" }, { "not-to": "“@” is neither an address nor an @domain." }],
    [{ subject: "x".repeat(2_001) }, { subject: "That is too much." }],
    [{ do: "else" }, { do: "That is nothing that can be done here." }],
    [{ do: "drop", id: "1" }, { do: "That is no rule." }],
  ])("with %j is refused beside its field", async (fields, problems) => {
    expect(await rule(fields)).toEqual({ ok: false, error: problems });
  });

  it("can be a step about one that is there", async () => {
    expect(await rule({ do: "switch", id: ID, on: "false" })).toMatchObject({
      value: { do: "switch", id: ID, isOn: false },
    });
    expect(await rule({ do: "place", ids: `${ID} ${ID}` })).toMatchObject({ value: { do: "place", ids: [ID, ID] } });
    expect(await rule({ do: "bring-back", id: ID })).toMatchObject({ value: { do: "bring-back", id: ID } });
  });
});

describe("a posted contact", () => {
  it("is read as it was typed", () => {
    const typed = { name: " P ", organisation: "", phone: "1", note: "n", addresses: "p@x.example" };
    expect(readContactStep(form({ do: "keep", id: "", categories: [ID], ...typed }))).toEqual({
      ok: true,
      value: { do: "keep", id: null, draft: { ...typed, categoryIds: [ID] } },
    });
    expect(readContactStep(form({ do: "drop", id: ID }))).toMatchObject({ value: { do: "drop", id: ID } });
  });

  it.each([
    [{ do: "drop", id: "x" }, "That is no contact."],
    [{ do: "keep", categories: ["x"] }, "That is too much, or no contact."],
    [{ do: "call" }, "That is nothing that can be done here."],
  ])("as %j is refused", (fields, problem) => {
    expect(readContactStep(form(fields))).toEqual({ ok: false, error: problem });
  });
});
