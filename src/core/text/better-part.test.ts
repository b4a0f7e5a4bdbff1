import { describe, expect, it } from "vitest";
import { betterPart, type HtmlContents } from "./better-part";

const html = (more: Partial<HtmlContents>): HtmlContents => ({ words: 10, links: [], pictures: 0, tables: 0, ...more });
const TEN = "one two three four five six seven eight nine ten";

describe("the better part of a message", () => {
  it.each<[string, string, HtmlContents, "text" | "html"]>([
    ["text that says the same", TEN, html({}), "text"],
    ["HTML with a table", TEN, html({ tables: 1 }), "html"],
    ["HTML with a picture", TEN, html({ pictures: 1 }), "html"],
    ["HTML with a link that the text lacks", TEN, html({ links: ["https://tinguild.example/peal"] }), "html"],
    [
      "text with the same link",
      `${TEN} www.tinguild.example`,
      html({ links: ["https://www.tinguild.example/"] }),
      "text",
    ],
    ["HTML with most of the words", "View this in your browser", html({ words: 200 }), "html"],
    ["HTML beside no text", "", html({}), "html"],
  ])("is %s", (_, text, contents, part) => expect(betterPart(text, contents).part).toBe(part));

  it("says that the text is no account of it only where words are lacking", () => {
    expect(betterPart(TEN, html({ tables: 1 })).lacksWords).toBe(false);
    expect(betterPart(TEN, html({ words: 40 })).lacksWords).toBe(true);
  });
});
