import { readFileSync } from "node:fs";
import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, it } from "vitest";
import { DAY } from "../../core/kernel/instant";
import type { TurnLineFacts } from "../../core/turn-line/draw-turn-line";
import { Button, KeyCap } from "./button";
import { CategoryTab } from "./category-tab";
import { Field } from "./field";
import { MemberBadge } from "./member-badge";
import { TurnLine } from "./turn-line";

const NOW = 1_000 * DAY;
const facts: TurnLineFacts = {
  marks: [],
  turn: "nobody",
  turnSince: null,
  standing: "settled",
  expectedAt: null,
  now: NOW,
};
const drawn = (part: Partial<TurnLineFacts>) => renderToStaticMarkup(<TurnLine {...facts} {...part} />);
const count = (markup: string, what: RegExp) => markup.match(what)?.length ?? 0;

describe("the turn line", () => {
  it("draws theirs filled above, ours as rings below, machines crossed, notes as ticks", () => {
    const marks = [
      [NOW - 4 * DAY, "t"],
      [NOW - 3 * DAY, "w"],
      [NOW - 2 * DAY, "m"],
      [NOW - DAY, "n"],
    ] as const;
    const markup = drawn({ marks });
    for (const look of ["they", "we", "we-within", "machine", "note"])
      expect(count(markup, new RegExp(`<path class="${look}" d="M`, "g"))).toBe(1);
    expect(markup).toMatch(/class="they" d="M[\d.]+ 7h0"/);
    expect(markup).toMatch(/class="we" d="M[\d.]+ 17h0"/);
  });

  it("marks a bounce as late", () => {
    expect(drawn({ marks: [[NOW - DAY, "b"]] })).toContain('<path class="machine late"');
  });

  it("draws our open span, and theirs from what is not overdue on to now", () => {
    const ours = drawn({ marks: [[NOW - DAY, "t"]], standing: "our-move" });
    expect(ours).toMatch(/class="ours" d="M[\d.]+ 12H112"/);
    expect(ours).not.toContain("theirs");
    const theirs = drawn({ marks: [[NOW - 9 * DAY, "w"]], standing: "waiting", expectedAt: NOW - DAY });
    const ends = (look: string) =>
      new RegExp(`class="${look}" d="M([\\d.]+) 12H([\\d.]+)"`).exec(theirs)?.slice(1).map(Number) ?? [];
    const [inTime, over] = [ends("theirs"), ends("theirs late")];
    expect(inTime[0]).toBeLessThan(inTime[1] ?? 0);
    expect(over).toEqual([inTime[1], 112]);
    expect(theirs).toContain('class="caret late"');
  });

  it("is hatched by the sheet where they are waited for, twice as thick once it is overdue", () => {
    const sheet = readFileSync("src/web/drawings.css", "utf8");
    const [, inTime = "", late = ""] = /& \.theirs \{([^{}]*)&\.late \{([^{}]*)\}/.exec(sheet) ?? [];
    const thickness = (rules: string) => Number(/stroke-width: (\d+)/.exec(rules)?.[1]);
    expect([thickness(inTime), thickness(late)]).toEqual([4, 8]);
    for (const rules of [inTime, late]) expect(rules).toMatch(/stroke-dasharray: [\d.]+ [\d.]+/);
    expect(inTime).toContain("skewX");
  });

  it("has a caret for a day to come that is not late", () => {
    const markup = drawn({ marks: [[NOW - DAY, "w"]], standing: "waiting", expectedAt: NOW + DAY });
    expect(markup).toMatch(/class="caret" d="M/);
  });

  it("is no longer than it has to be: a list has fifty of them", () => {
    const marks = Array.from({ length: 8 }, (_, at) => [NOW - (9 - at) * DAY, at % 2 === 0 ? "t" : "w"] as const);
    expect(drawn({ marks, standing: "our-move" }).length).toBeLessThan(700);
  });

  it("says the same to those who do not see it", () => {
    expect(drawn({ marks: [[NOW - DAY, "t"]] })).toContain('role="img" aria-label="1 from them; nothing open"');
  });
});

describe("a category's tab", () => {
  it("has code and name, and its ink as the upper edge", () => {
    const markup = renderToStaticMarkup(<CategoryTab code="TU" name="Tuning" ink="moss" />);
    expect(markup).toContain("--tab:var(--moss)");
    expect(markup).toMatch(/TU<\/b><span[^>]*>Tuning</);
  });
  it("keeps its name for screen readers when there is only room for the code", () => {
    const markup = renderToStaticMarkup(<CategoryTab code="TU" name="Tuning" ink="moss" short />);
    expect(markup).toMatch(/^<span role="img" title="Tuning"[^>]*><b>TU<\/b><\/span>$/);
  });
});

describe("the owner's stamp", () => {
  it.each([
    [<MemberBadge key="own" initials="IV" name="Ines" own />, /class="stamp stamp-own">IV</, 'title="Ines"'],
    [<MemberBadge key="other" initials="TL" name="Tobias" />, /class="stamp">TL</, 'title="Tobias"'],
    [<MemberBadge key="nobody" initials={null} name="no owner" />, /class="stamp stamp-nobody">–</, 'title="no owner"'],
    [<MemberBadge key="ornament" initials="IV" name="" />, />IV</, 'aria-hidden="true"'],
  ])("%# is drawn and named", (stamp, shape, name) => {
    const markup = renderToStaticMarkup(stamp);
    expect(markup).toMatch(shape);
    expect(markup).toContain(name);
  });
});

describe("a field", () => {
  it("is tied to its label, and to what is wrong with it", () => {
    const markup = renderToStaticMarkup(<Field label="To" name="to" problem="Not an address" />);
    const id = /<label for="([^"]+)"/.exec(markup)?.[1];
    expect(markup).toContain(`<input id="${id}" aria-invalid="true" aria-describedby="${id}-problem"`);
    expect(markup).toContain(`<p id="${id}-problem"`);
  });
  it("is not called wrong when it is not", () => {
    const markup = renderToStaticMarkup(<Field label="To" name="to" />);
    expect(markup).toContain('aria-invalid="false"');
    expect(markup).not.toContain("aria-describedby");
  });
});

describe("a button", () => {
  it("sends no form unless it is meant to, and passes on what it is given", () => {
    expect(renderToStaticMarkup(<Button disabled>Go</Button>)).toMatch(
      /^<button type="button"[^>]*disabled=""[^>]*>Go</,
    );
    expect(renderToStaticMarkup(<Button type="submit">Go</Button>)).toContain('type="submit"');
  });
  it("shows its key to the eye only", () => {
    expect(renderToStaticMarkup(<KeyCap>r</KeyCap>)).toContain('<kbd aria-hidden="true"');
  });
});
