import { describe, expect, it, vi } from "vitest";
import { trustedId } from "../../../core/kernel/ids";
import type { Deps } from "../../../operations/index.server";
import { type NamedThings, readCondition } from "./condition-form.server";
import { readRuleStep } from "./rule-form.server";

const ID = "019aa5b0-0000-7000-8000-000000000001";
const things: NamedThings = {
  record: (code) => (code === "P-26-012" ? trustedId("sorrel") : null),
  contact: (text) => (text === "Renske Vane" ? trustedId("renske") : null),
};

const read = (posted: unknown) => {
  const note = vi.fn<(path: string, problem: string) => void>();
  return { condition: readCondition(posted, things, note), problems: note.mock.calls };
};
const from = (...of: unknown[]) => ({ kind: "address", where: "from", of });

describe("a posted condition", () => {
  it("is read as a tree, with ids in place of codes and names", () => {
    const { condition, problems } = read({
      kind: "all",
      of: [
        from({ kind: "address", address: " A@x.example" }, { kind: "domain", domain: "@Y.example" }),
        {
          kind: "none",
          of: [from({ kind: "contact", contactId: "Renske Vane" }), { kind: "record", of: ["p-26-012"] }],
        },
        { kind: "header", names: ["X-Priority"], match: { how: "is", values: ["1"], isExact: true } },
      ],
    });
    expect(problems).toEqual([]);
    expect(condition).toEqual({
      kind: "all",
      of: [
        from({ kind: "address", address: "a@x.example" }, { kind: "domain", domain: "y.example" }),
        { kind: "none", of: [from({ kind: "contact", contactId: "renske" }), { kind: "record", of: ["sorrel"] }] },
        { kind: "header", names: ["x-priority"], match: { how: "is", values: ["1"], isExact: true } },
      ],
    });
  });

  const nothing = "That is nothing that can be found here; load the page again.";
  it.each<[unknown, [string, string][]]>([
    [null, [["", nothing]]],
    [{ kind: "constructor" }, [["", nothing]]],
    [{ kind: "all", of: [{ kind: "size", over: -1 }] }, [["0", nothing]]],
    [
      { kind: "all", of: [{ kind: "open" }, { kind: "any", of: [{ kind: "open", is: "yes" }] }] },
      [
        ["0", nothing],
        ["1.0", nothing],
      ],
    ],
    [{ kind: "weekday", of: [7] }, [["", nothing]]],
    [{ kind: "verified", is: true, more: 1 }, [["", nothing]]],
    [from({ kind: "address", address: "x.example" }), [["", "“x.example” is neither an address nor an @domain."]]],
    [from({ kind: "domain", domain: "" }), [["", "“@” is neither an address nor an @domain."]]],
    [
      from({ kind: "contact", contactId: "Hugo" }),
      [["", "“Hugo” is no contact, or several are called that. Write an address of theirs."]],
    ],
    [{ kind: "reference", of: ["P-1"] }, [["", "There is no record P-1."]]],
  ])("as %j is refused where it is wrong", (posted, problems) => expect(read(posted).problems).toEqual(problems));

  it("is not read without end", () => {
    let posted: unknown = { kind: "all", of: [] };
    for (let depth = 0; depth < 20_000; depth += 1) posted = { kind: "all", of: [posted] };
    expect(read(posted).problems).toEqual([["0.0.0.0.0.0.0.0.0.0.0", nothing]]);
  });
});

const form = (fields: Record<string, string>) => {
  const data = new FormData();
  for (const [name, value] of Object.entries(fields)) data.append(name, value);
  return data;
};
const step = (fields: Record<string, string>) => readRuleStep({} as Deps, {} as never, form(fields), "UTC");

describe("a step about rules", () => {
  it.each([
    [{ do: "else" }, { do: "That is nothing that can be found here; load the page again." }],
    [{ do: "drop", id: "1" }, { do: "That is no rule." }],
    [{ do: "keep" }, { rule: "That is no rule." }],
    [{ do: "keep", rule: "{" }, { rule: "That is no rule." }],
    [{ do: "try", rule: "{}" }, { rule: "That is no rule." }],
  ])("with %j is refused", async (fields, problems) => {
    expect(await step(fields as Record<string, string>)).toEqual({ ok: false, error: problems });
  });

  it("can be about one that is there", async () => {
    expect(await step({ do: "switch", id: ID, on: "false" })).toMatchObject({
      value: { do: "switch", id: ID, isOn: false },
    });
    expect(await step({ do: "place", ids: `${ID} ${ID}` })).toMatchObject({ value: { do: "place", ids: [ID, ID] } });
    expect(await step({ do: "bring-back", id: ID })).toMatchObject({ value: { do: "bring-back", id: ID } });
  });
});
