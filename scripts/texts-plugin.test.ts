import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { messagesIn } from "./catalogue-source";
import { texts } from "./texts-plugin";

const CATALOGUE = `import { catalogue } from "../catalogue";

export const tryTexts = catalogue({
  "try.plain": "Nothing rests",
  "try.counted":
    "{count, plural, one {1 thing} other {# things}}",
  "try.unsaid": "Said elsewhere",
  "try.openIt": "Open",
  "try.isOpen": "Open",
});
`;

const TRANSLATION = `import { translation } from "../translations";

export default translation({
  "try.plain": "Niets rust",
  "try.counted": "{count, plural, one {1 ding} other {# dingen}}",
  "try.openIt": "Openen",
  "try.isOpen": "Open",
});
`;

let root = "";
beforeAll(() => {
  root = mkdtempSync(join(tmpdir(), "common-tray-texts-"));
  mkdirSync(join(root, "src/texts/en"), { recursive: true });
  mkdirSync(join(root, "src/web"), { recursive: true });
  writeFileSync(join(root, "src/texts/en/try.ts"), CATALOGUE);
});
afterAll(() => rmSync(root, { recursive: true }));

const transform = (environment: string, code: string, file: string) => {
  const plugin = texts();
  const run = plugin.transform as (this: object, code: string, id: string) => { code: string } | null;
  return run.call({ environment: { name: environment } }, code, join(root, file))?.code;
};

const SCREEN = `import { tryTexts } from "../texts/en/try";
import { useSay } from "./use-say";
export const A = () => <p title={useSay(tryTexts)("try.plain")}><Said of="try.plain" n={say("try.counted", { count: 2 })} other="try.nowhere" /></p>;
`;

describe("building texts", () => {
  it("reads the messages of a catalogue with their lines", () => {
    expect(messagesIn(CATALOGUE, "try.ts")).toMatchObject([
      { key: "try.plain", message: "Nothing rests", line: 4 },
      { key: "try.counted", message: "{count, plural, one {1 thing} other {# things}}", line: 5 },
      { key: "try.unsaid", message: "Said elsewhere", line: 7 },
      { key: "try.openIt", message: "Open", line: 8 },
      { key: "try.isOpen", message: "Open", line: 9 },
    ]);
  });

  it("parses what is more than words, for servers and browsers", () => {
    const built = transform("ssr", CATALOGUE, "src/texts/en/try.ts") ?? "";
    expect(built).toContain('"try.plain": "Nothing rests"');
    expect(built).toContain('"try.counted":\n    [{"type":6,"value":"count"');
    expect(built).not.toContain("plural,");
  });

  it("ends with the key and line of a message that cannot be parsed", () => {
    const broken = CATALOGUE.replace("{# things}}", "{# things}");
    expect(() => transform("ssr", broken, "src/texts/en/try.ts")).toThrow(
      /src\/texts\/en\/try\.ts:5: the message try\.counted is broken/,
    );
  });

  it("gives browsers the messages in place of their keys, and no others", () => {
    const built = transform("client", SCREEN, "src/web/a.tsx") ?? "";
    expect(built).toContain('useSay(tryTexts)("Nothing rests")');
    expect(built).toContain('of={"Nothing rests"}');
    expect(built).toContain('say([{"type":6,"value":"count"');
    expect(built).toContain('other="try.nowhere"');
    expect(built).not.toContain("texts/en/try");
    expect(built).not.toContain("Said elsewhere");
  });

  it("leaves what servers run, and what says nothing, as it was", () => {
    expect(transform("ssr", SCREEN, "src/web/a.tsx")).toBeUndefined();
    expect(transform("client", "export const a = 1;", "src/web/b.ts")).toBeUndefined();
  });
});

describe("another language", () => {
  const file = "src/texts/translations/nl.ts";
  const inBrowsers = (code: string) => {
    const built = transform("client", code, file) ?? "";
    return new Map<string, unknown>(JSON.parse(built.slice("export default new Map(".length, -");".length)));
  };
  const screen = (key: string) =>
    /say\((.*)\);/.exec(
      transform("client", `import { tryTexts } from "../texts/en/try";\nconst a = say("${key}");`, "src/web/a.ts") ??
        "",
    )?.[1] ?? "";

  beforeAll(() => {
    mkdirSync(join(root, "src/texts/translations"), { recursive: true });
    writeFileSync(join(root, file), TRANSLATION);
  });
  afterAll(() => rmSync(join(root, "src/texts/translations"), { recursive: true }));

  it("is there by what English says, as browsers have no keys", () => {
    const dutch = inBrowsers(TRANSLATION);
    expect(dutch.get("Nothing rests")).toBe("Niets rust");
    expect(JSON.stringify(dutch.get(screen("try.counted")))).toContain("dingen");
  });

  it("tells apart what English says alike", () => {
    const dutch = inBrowsers(TRANSLATION);
    const [openIt, isOpen] = [screen("try.openIt"), screen("try.isOpen")];
    expect(openIt).not.toBe(isOpen);
    const said = (inPlace: string) => dutch.get(inPlace.startsWith('"') ? JSON.parse(inPlace) : inPlace);
    expect([said(openIt), said(isOpen)]).toEqual(["Openen", "Open"]);
  });

  it("has its messages by key on servers, and a broken one ends the build", () => {
    expect(transform("ssr", TRANSLATION, file)).toContain('"try.plain": "Niets rust"');
    expect(() => transform("client", TRANSLATION.replace("dingen}}", "dingen}"), file)).toThrow(
      /nl\.ts:5: the message try\.counted is broken/,
    );
  });
});
