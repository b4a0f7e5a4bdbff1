import { describe, expect, it } from "vitest";
import { readHours, readPuttingAway } from "./tray-settings-form.server";

const posted = (fields: Readonly<Record<string, string>>) => {
  const form = new FormData();
  form.set("answer-within", "16");
  for (const [name, value] of Object.entries(fields)) form.set(name, value);
  return readHours(form);
};
const putAway = (fields: Readonly<Record<string, string>>) => {
  const form = new FormData();
  for (const [name, value] of Object.entries(fields)) form.set(name, value);
  return readPuttingAway(form);
};
const MONDAY = { "open-0": "on", "from-0": "08:30", "to-0": "17:00" };

describe("the settings of a tray as posted", () => {
  it("are its open days and its holidays", () => {
    const fields = {
      ...MONDAY,
      "from-1": "08:00",
      holidays: "2026-12-26\r\n 2026-12-25 \n\n2026-12-25",
    };
    expect(posted(fields)).toEqual({
      ok: true,
      value: {
        week: [{ from: 510, to: 1_020 }, null, null, null, null, null, null],
        holidays: ["2026-12-25", "2026-12-26"],
        answerWithin: 16,
        calendar: null,
        place: "",
      },
    });
    expect(posted(MONDAY)).toMatchObject({ value: { holidays: [] } });
    expect(posted({ ...MONDAY, place: " DE-BY " })).toMatchObject({ value: { place: "DE-BY" } });
  });

  it("are when its bin and its junk go, and what is settled", () => {
    expect(putAway({ "bin-days": "14" })).toEqual({
      ok: true,
      value: { binDays: 14, junkDays: null, filesFirst: false },
    });
    expect(putAway({ "junk-days": "7", "files-first": "on" })).toMatchObject({
      value: { binDays: null, junkDays: 7, filesFirst: true },
    });
  });

  it("can have a break on each day", () => {
    const noon = { ...MONDAY, "pause-from-0": "12:00", "pause-to-0": "13:00" };
    expect(posted(noon)).toMatchObject({
      value: { week: [{ from: 510, to: 1_020, breaks: [{ from: 720, to: 780 }] }, null, null, null, null, null, null] },
    });
  });

  it.each([
    ["a time that is none", { ...MONDAY, "from-0": "25:00" }, { "day-0": "Write a time as 08:30." }],
    ["no time", { "open-0": "on", "from-0": "08:00" }, { "day-0": "Write a time as 08:30." }],
    [
      "an end before the beginning",
      { ...MONDAY, "to-0": "08:30" },
      { "day-0": expect.stringContaining("closes before") },
    ],
    [
      "a break outside",
      { ...MONDAY, "pause-from-0": "08:00", "pause-to-0": "09:00" },
      { "day-0": expect.stringContaining("while it is open") },
    ],
    ["half a break", { ...MONDAY, "pause-from-0": "12:00" }, { "day-0": "Write a time as 08:30." }],
    ["no open day at all", {}, { week: expect.stringContaining("would never be open") }],
    [
      "a target that is none",
      { ...MONDAY, "answer-within": "0" },
      { "answer-within": expect.stringContaining("from 1 to 400") },
    ],
    ["a day that is none", { holidays: "2026-02-30" }, { holidays: expect.stringContaining("“2026-02-30” is no day") }],
  ])("say beside the field what is wrong: %s", (_, fields, problems) =>
    expect(posted(fields)).toEqual({ ok: false, error: problems }),
  );

  it.each([
    ["a term of junk that is none", { "junk-days": "x" }, { "junk-days": expect.stringContaining("from 1 to 3,650") }],
    ["a term of nothing", { "bin-days": "0" }, { "bin-days": expect.stringContaining("from 1 to 3,650") }],
    ["a term that is no number", { "bin-days": "soon" }, { "bin-days": expect.stringContaining("from 1") }],
    ["a broken term", { "bin-days": "1.5" }, { "bin-days": expect.stringContaining("from 1") }],
  ])("say beside the field what is wrong with it: %s", (_, fields, problems) =>
    expect(putAway(fields)).toEqual({ ok: false, error: problems }),
  );

  it("tell everything at once", () => {
    const done = posted({ ...MONDAY, "to-0": "x", holidays: "Christmas", "answer-within": "x" });
    expect(Object.keys(done.ok ? {} : done.error).toSorted()).toEqual(["answer-within", "day-0", "holidays"]);
    const terms = putAway({ "bin-days": "-1", "junk-days": "x" });
    expect(Object.keys(terms.ok ? {} : terms.error)).toEqual(["bin-days", "junk-days"]);
  });
});
