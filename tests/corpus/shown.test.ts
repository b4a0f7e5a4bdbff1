import { readdirSync, readFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import { onThisMachine } from "@tests/support/pace";
import { wcagContrast } from "culori";
import { type ChildNode, isTag, isText } from "domhandler";
import { parseDocument } from "htmlparser2";
import { describe, expect, it } from "vitest";
import { LETTER_PAGE, parseMessage, safeHtmlOf, shownHtml } from "~/mail/index";

const FOLDER = fileURLToPath(new URL("./shown/", import.meta.url));
const read = (name: string) => readFileSync(`${FOLDER}${name}.eml`);
const names = readdirSync(FOLDER).map((file) => file.replace(".eml", ""));

type Pair = { readonly ink: string; readonly paper: string };
type Read = { readonly text: string; readonly contrast: number };

// What each text is written in and on, as a browser would have it from the attributes alone.
function textsIn(nodes: readonly ChildNode[], pair: Pair, theme: "light" | "dark"): Read[] {
  return nodes.flatMap((node): Read[] => {
    if (isText(node)) {
      const text = node.data.trim();
      return text === "" ? [] : [{ text, contrast: wcagContrast(pair.ink, pair.paper) }];
    }
    if (!isTag(node)) return [];
    const style = node.attribs.style ?? "";
    const said = (property: string) => {
      const [, light, dark] = new RegExp(`(?:^|;)${property}:light-dark\\((#\\w{6}),(#\\w{6})\\)`).exec(style) ?? [];
      return theme === "light" ? light : dark;
    };
    const link = node.name === "a" && node.attribs.href !== undefined ? LETTER_PAGE.link[theme] : undefined;
    const inner = { ink: said("color") ?? link ?? pair.ink, paper: said("background-color") ?? pair.paper };
    return textsIn(node.children, inner, theme);
  });
}

const shown = async (name: string) => (await safeHtmlOf(read(name)))?.html ?? "";

describe("letters as common programs write them", () => {
  it.each(names.flatMap((name) => [[name, "light"] as const, [name, "dark"] as const]))(
    "%s can be read in the %s: no text falls under the contrast that text has to have",
    async (name, theme) => {
      const texts = textsIn(parseDocument(await shown(name)).children, LETTER_PAGE[theme], theme);
      expect(texts.filter(({ contrast }) => contrast < 4.5)).toEqual([]);
    },
  );

  it.each(names)("%s fetches nothing, covers nothing and carries no sheet", async (name) => {
    expect(await shown(name)).not.toMatch(/url\(|position:|<style|@import|src="http/i);
  });

  it("keep the colours of a newsletter and its columns, without what its sender hides and the sheet for telephones", async () => {
    const html = await shown("newsletter");
    expect(html).toContain("background-color:light-dark(#5b3a1e,#5b3a1e)");
    expect(html).toMatch(/<td[^>]*width:50%[^>]*vertical-align:top/);
    expect(html).not.toContain("What rang, what cracked");
    expect(html).not.toContain("width:100%!important");
  });

  it("keep a button with its writing on it", async () => {
    expect(await shown("button")).toMatch(
      /background-color:light-dark\(#7a4b2a,#7a4b2a\)[\s\S]*<a[^>]*color:light-dark\(#ffffff,#ffffff\)/,
    );
  });

  it("fold what is copied below, and leave open a letter that is nothing else", async () => {
    const chain = await shown("reply-chain");
    expect(chain).toMatch(
      /The key is with the sexton\.[\s\S]*<details><summary>Earlier text<\/summary>[\s\S]*From:[\s\S]*May we come/,
    );
    expect(await shown("bare-forward")).toMatch(/<details open>[\s\S]*It hums, and worse/);
  });

  it("let each table scroll by itself", async () => {
    expect(await shown("invoice")).toContain('<div class="wide"><table');
  });

  it("with 200 kB of styles are drawn within two seconds", async () => {
    const started = performance.now();
    expect(await shown("heavy-styles")).toContain("background-color:light-dark(");
    expect(performance.now() - started).toBeLessThan(onThisMachine(2_000));
  });

  it.each([
    ["siblings below a header", `From: a<br>Date: b<br>To: c<br>Subject: d<br>${"<br>".repeat(25_000)}`],
    ["lines that begin like a header", "From: a<br>".repeat(15_000)],
    ["quotations", "<blockquote>a</blockquote>b".repeat(5_000)],
    ["rules in rules", `<style>${"a{".repeat(25_000)}</style><p>a</p>`],
    ["rules", `<style>${"div p{color:red}".repeat(7_500)}</style>${"<div><p>a</p></div>".repeat(2_500)}`],
    [
      "colours in every notation",
      `<p style="color:oklch(0.9 0.1 20);background:color(display-p3 1 1 1)">a</p>`.repeat(1_000),
    ],
  ])("are drawn in good time with many %s", (_, html) => {
    const started = performance.now();
    expect(shownHtml(html).html).toContain("a");
    expect(performance.now() - started).toBeLessThan(onThisMachine(10_000));
  });

  it.each([
    ["newsletter", "html"],
    ["invoice", "html"],
    ["pictures", "html"],
    ["drawn-table", "text"],
    ["bare-forward", "text"],
    ["container", "text"],
  ])("%s is shown as %s", async (name, part) => {
    expect((await parseMessage(read(name))).message.betterPart).toBe(part);
  });

  it("say in their own words what the better part says", async () => {
    const { message } = await parseMessage(read("newsletter"));
    expect(message.ownText).toContain("The founders say that it will ring for as long again.");
  });

  it("come out of a container with their text and files", async () => {
    const { message } = await parseMessage(read("container"));
    expect(message.ownText).toContain("the list of pipes and the drawing are with this letter.");
    expect(message.attachments.map(({ fileName }) => fileName)).toEqual(["pipes of the great.csv", "drawing.txt"]);
  });
});
