import { writtenDown } from "../../../operations/index.server";
import { serverTexts } from "../../../texts/en/server";
import { saidOf } from "../../../texts/said";

const said = saidOf(serverTexts);

const BROWSERS: readonly (readonly [RegExp, string])[] = [
  [/\bEdg(?:e|A|iOS)?\//, "Edge"],
  [/\b(?:OPR|Opera)\//, "Opera"],
  [/\b(?:Firefox|FxiOS)\//, "Firefox"],
  [/\b(?:Chrome|Chromium|CriOS|HeadlessChrome)\//, "Chrome"],
  [/\bSafari\//, "Safari"],
];
const SYSTEMS: readonly (readonly [RegExp, string])[] = [
  [/\b(?:iPhone|iPad)\b/, "iOS"],
  [/\bAndroid\b/, "Android"],
  [/\bWindows\b/, "Windows"],
  [/\bMac OS X\b/, "macOS"],
  [/\bLinux\b/, "Linux"],
];

/** What a browser says that it is (User-Agent, RFC 9110 10.1.5), in two words; somebody is to know her own again by it. */
export function deviceOf(userAgent: string): string {
  const named = (names: typeof BROWSERS) => names.find(([pattern]) => pattern.test(userAgent))?.[1];
  const [browser, system] = [named(BROWSERS), named(SYSTEMS)];
  if (browser === undefined)
    return userAgent === ""
      ? writtenDown(said("server.unnamedProgram"))
      : (userAgent.split(/[\s/]/)[0] ?? "").slice(0, 40);
  return system === undefined ? browser : writtenDown(said("server.browserOnSystem", { browser, system }));
}
