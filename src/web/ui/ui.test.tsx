import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, it } from "vitest";
import { DAY } from "../../core/kernel/instant";
import type { TurnLineFacts } from "../../core/turn-line/draw-turn-line";
import { Button, KeyCap } from "./button";
import { CategoryTab } from "./category-tab";
import { Field } from "./field";
import { Stamp } from "./stamp";
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
    expect(count(markup, /<circle[^>]*cy="7"[^>]*fill="var\(--ink\)"/g)).toBe(1);
    expect(count(markup, /<circle[^>]*cy="17"[^>]*fill="var\(--paper\)"/g)).toBe(1);
    expect(count(markup, /<g stroke="var\(--soft\)" fill="none">/g)).toBe(1);
    expect(count(markup, /stroke="var\(--umber\)"/g)).toBe(1);
  });

  it("marks a bounce as late", () => {
    expect(drawn({ marks: [[NOW - DAY, "b"]] })).toContain('<g stroke="var(--late)" fill="none">');
  });

  it("draws our open span solid and theirs hatched, thicker once it is overdue", () => {
    const ours = drawn({ marks: [[NOW - DAY, "t"]], standing: "our-move" });
    expect(ours).toMatch(/<rect[^>]*height="4" fill="var\(--ink\)"/);
    expect(ours).not.toContain("clipPath");
    const theirs = drawn({ marks: [[NOW - 9 * DAY, "w"]], standing: "waiting", expectedAt: NOW - DAY });
    expect(theirs).toMatch(/<clipPath[^>]*><rect[^>]*height="4"/);
    expect(theirs).toMatch(/<clipPath[^>]*><rect[^>]*height="8"/);
    expect(theirs).toContain('fill="var(--late)"');
  });

  it("has a caret for a day to come that is not late", () => {
    const markup = drawn({ marks: [[NOW - DAY, "w"]], standing: "waiting", expectedAt: NOW + DAY });
    expect(markup).toMatch(/<path[^>]*fill="var\(--act\)"/);
  });

  it("says the same to those who do not see it", () => {
    expect(drawn({ marks: [[NOW - DAY, "t"]] })).toContain('role="img" aria-label="1 from them; nothing open"');
  });
});

describe("a category's tab", () => {
  it("has code and name, and its ink as the upper edge", () => {
    const markup = renderToStaticMarkup(<CategoryTab code="TU" name="Tuning" ink="moss" />);
    expect(markup).toContain("border-color:var(--moss)");
    expect(markup).toMatch(/TU<\/span><span[^>]*>Tuning</);
  });
  it("keeps its name for screen readers when there is only room for the code", () => {
    const markup = renderToStaticMarkup(<CategoryTab code="TU" name="Tuning" ink="moss" short />);
    expect(markup).toContain('<span class="sr-only">Tuning</span>');
  });
});

describe("the owner's stamp", () => {
  it.each([
    [<Stamp key="own" initials="IV" name="Ines" own />, /bg-ink[^>]*>IV</, 'aria-label="Ines"'],
    [<Stamp key="other" initials="TL" name="Tobias" />, /border-ink text-ink[^>]*>TL</, 'aria-label="Tobias"'],
    [<Stamp key="nobody" initials={null} name="no owner" />, /border-dashed[^>]*>–</, 'aria-label="no owner"'],
    [<Stamp key="ornament" initials="IV" name="" />, />IV</, 'aria-hidden="true"'],
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
