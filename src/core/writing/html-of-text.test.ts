import { expect, it } from "vitest";
import { escapedText, htmlOfText } from "./html-of-text";

it.each([
  ["one", "<p>one</p>"],
  ["one\ntwo", "<p>one<br>two</p>"],
  ["one\n\n two\n\n\nthree\n", "<p>one</p><p> two</p><p>three</p>"],
  ['<b> & "c"', "<p>&lt;b&gt; &amp; &quot;c&quot;</p>"],
])("%j is %s", (text, html) => expect(htmlOfText(text)).toBe(html));

it("leaves nothing that HTML would take for its own", () => {
  expect(escapedText("<script>alert('&')</script>")).not.toMatch(/[<>]/);
});
