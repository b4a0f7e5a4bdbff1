import { describe, expect, it } from "vitest";
import { sanitiseHtml } from "./sanitise-html";

describe("HTML mail", () => {
  it.each([
    ["script", "<p>a</p><script>alert(1)</script>", "<p>a</p>"],
    ["handlers", '<p onclick="alert(1)">a</p>', "<p>a</p>"],
    [
      "script in a link",
      '<a href="javascript:alert(1)">a</a>',
      '<a target="_blank" rel="noopener noreferrer nofollow">a</a>',
    ],
    [
      "script in a link, disguised",
      '<a href="jav&#x0A;ascript:alert(1)">a</a>',
      '<a target="_blank" rel="noopener noreferrer nofollow">a</a>',
    ],
    ["forms", '<form action="https://x.example"><input name="a"><button>go</button></form>', "go"],
    ["frames and objects", '<iframe src="https://x.example"></iframe><object data="x"></object><embed src="x">a', "a"],
    ["SVG", "<svg onload=alert(1)><script>alert(2)</script></svg>a", "a"],
    ["style sheets", "<style>body{display:none}</style>a", "a"],
    [
      "other pages' settings",
      '<base href="https://x.example"><meta http-equiv="refresh" content="0;url=https://x.example"><link rel="stylesheet" href="x">a',
      "a",
    ],
    ["positions", '<p style="position:fixed;top:0;color:#333">a</p>', '<p style="color:#333">a</p>'],
    ["backgrounds that are fetched", '<p style="background:url(https://x.example/a.png)">a</p>', "<p>a</p>"],
    ["colours that are none", '<p style="color:expression(alert(1))">a</p>', "<p>a</p>"],
  ])("loses its %s", (_, html, safe) => expect(sanitiseHtml(html).html).toBe(safe));

  it("fetches no picture and says which it would have", () => {
    const safe = sanitiseHtml('<img src="https://count.example/a.gif" alt="logo"><img src="//count.example/b.gif">');
    expect(safe.html).toBe("<span>logo</span><span></span>");
    expect(safe.remoteContent).toEqual(["https://count.example/a.gif", "//count.example/b.gif"]);
  });

  it("shows its own pictures", () => {
    const image = (id: string) => (id === "logo@x" ? "data:image/png;base64,AA==" : null);
    expect(sanitiseHtml('<img src="cid:logo%40x"><img src="cid:other">', { inlineImage: image }).html).toBe(
      '<img src="data:image/png;base64,AA==" /><span></span>',
    );
  });

  it("says what was taken out", () => {
    expect(sanitiseHtml("<form></form><script></script>").warnings).toEqual(["taken out: form, script"]);
  });

  it("keeps the ordinary", () => {
    const html = '<h1>Winter</h1><table><tr><td colspan="2"><b>a</b></td></tr></table><ul><li>b</li></ul>';
    expect(sanitiseHtml(html).html).toBe(html);
  });
});

describe("a word that has no end", () => {
  it.each(["x".repeat(1_000), "&lt;".repeat(1_000), "\u{1f600}".repeat(1_000)])(
    "is broken, and nothing of it is lost",
    (word) => {
      const { html } = sanitiseHtml(`<p>${word}</p>`);
      expect(html.match(/<wbr>/g)?.length).toBeGreaterThanOrEqual(4);
      expect(html.replaceAll("<wbr>", "").replaceAll("<wbr />", "")).toContain(word);
    },
  );
  it("is left as it is where it is only long", () => {
    expect(sanitiseHtml(`<p>${"x".repeat(150)} ${"y".repeat(150)}</p>`).html).not.toContain("<wbr");
  });
});
