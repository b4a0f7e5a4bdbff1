import { inEnglish } from "@tests/support/english";
import { expect, it } from "vitest";
import { callScript } from "./call-script";

it("says whom to call, at which number, and what to ask", () => {
  const call = { name: "Corvin Spelter", organisation: "Spelter Works", phone: "0555 017 338", subject: "Tin" };
  expect(inEnglish(callScript({ ...call, questions: ["What would it cost?", "And when?"] })).join("\n")).toBe(
    "Call Corvin Spelter (Spelter Works), 0555 017 338\n- ask: What would it cost?\n- ask: And when?\n- said: ",
  );
  expect(inEnglish(callScript({ ...call, organisation: "Corvin Spelter", phone: "", questions: [] })).join("\n")).toBe(
    "Call Corvin Spelter, number not known\n- ask: what became of “Tin”?\n- said: ",
  );
});
