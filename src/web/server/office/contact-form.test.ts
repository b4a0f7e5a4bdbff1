import { describe, expect, it } from "vitest";
import { readContactStep } from "./contact-form.server";

const ID = "019aa5b0-0000-7000-8000-000000000001";
const form = (fields: Record<string, string | readonly string[]>) => {
  const data = new FormData();
  for (const [name, value] of Object.entries(fields)) for (const one of [value].flat()) data.append(name, String(one));
  return data;
};
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
