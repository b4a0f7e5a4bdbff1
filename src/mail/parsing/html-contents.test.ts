import { onThisMachine } from "@tests/support/pace";
import { describe, expect, it } from "vitest";
import { htmlContents } from "./html-contents";

describe("what an HTML part has to show", () => {
  it("are its words, without scripts, sheets, comments and what stands in for blanks", () => {
    const html =
      "<title>No</title><style>p{color:red}</style><!-- not this --><script>var not</script><p>The&nbsp;bellows <b>leak</b>.</p>";
    expect(htmlContents(html).words).toBe(3);
  });
  it("are its links, each once", () => {
    const html =
      '<a href="https://a.example/?x=1&amp;y=2">a</a><a href=\'mailto:a@b.example\'>b</a><a href="#top">c</a><a href="https://a.example/?x=1&amp;y=2">d</a>';
    expect(htmlContents(html).links).toEqual(["https://a.example/?x=1&y=2", "mailto:a@b.example"]);
  });
  it("are its pictures, but for those by which reading is counted", () => {
    expect(
      htmlContents('<img src="a.png"><img src="b.gif" width="1" height="1"><img src=c.gif style="width:0px">').pictures,
    ).toBe(1);
  });
  it("are its tables with rows and columns, but for those that hold a layout", () => {
    const layout = "<table><tr><td><table><tr><td>a</td></tr><tr><td>b</td></tr></table></td></tr></table>";
    const table = "<table><tr><th>a</th><th>b</th></tr><tr><td>1</td><td>2</td></tr></table>";
    expect([htmlContents(layout).tables, htmlContents(`<table><tr><td>${table}</td></tr></table>`).tables]).toEqual([
      0, 1,
    ]);
  });
  it.each(["<script ", "<style>", "<!--", "<a href=", "<table><tr><td>"])(
    "are found in no time where %j has no end",
    (piece) => {
      const started = performance.now();
      htmlContents(piece.repeat(100_000));
      expect(performance.now() - started).toBeLessThan(onThisMachine(500));
    },
  );
});
