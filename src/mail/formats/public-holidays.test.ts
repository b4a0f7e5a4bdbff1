import { describe, expect, it } from "vitest";
import { holidayPlaces, publicHolidays } from "./public-holidays";

describe("public holidays", () => {
  it("are those of a country, or of a part of it", async () => {
    const england = await publicHolidays("GB-ENG", [2026]);
    expect(england).toContain("2026-12-25");
    expect(england).toContain("2026-04-06");
    const scotland = await publicHolidays("GB-SCT", [2026]);
    expect(scotland).toContain("2026-11-30");
    expect(scotland).not.toContain("2026-04-06");
    // Epiphany and the Assumption, which the country as a whole works on.
    const bavaria = await publicHolidays("DE-BY", [2026]);
    const germany = await publicHolidays("DE", [2026]);
    expect(bavaria).toEqual(expect.arrayContaining(["2026-01-06", "2026-05-14", "2026-10-03"]));
    expect(germany).not.toContain("2026-01-06");
  });

  it("come in order, each once, for all the years asked for", async () => {
    const days = (await publicHolidays("FR", [2026, 2027])) ?? [];
    expect(days).toEqual([...new Set(days)].toSorted());
    expect(days.filter((day) => day.endsWith("-07-14"))).toEqual(["2026-07-14", "2027-07-14"]);
  });

  it.each(["", "XX", "DE-ZZ", "constructor"])("are not known for %j", async (code) => {
    expect(await publicHolidays(code, [2026])).toBeNull();
  });

  it("are offered by name, parts after their country", async () => {
    const names = (await holidayPlaces()).map(({ name }) => name);
    expect(names.indexOf("Germany: Bayern")).toBeGreaterThan(names.indexOf("Germany"));
    expect(names.indexOf("Greece")).toBeGreaterThan(names.indexOf("Germany: Thüringen"));
  });
});
