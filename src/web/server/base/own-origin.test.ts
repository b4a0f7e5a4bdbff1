import { describe, expect, it } from "vitest";
import { isFromOurPage } from "./own-origin";

const OURS = ["https://tray.ottermoor.example", "http://127.0.0.1:3000"];

describe("what is sent", () => {
  it.each([
    ["https://tray.ottermoor.example", "same-origin", true],
    ["https://tray.ottermoor.example", undefined, true],
    ["http://127.0.0.1:3000", "same-origin", true],
    [undefined, "same-origin", true],
    ["null", "same-origin", true],
    ["null", undefined, false],
    [undefined, undefined, false],
    [undefined, "none", false],
    [undefined, "same-site", false],
    ["https://tray.ottermoor.example", "cross-site", false],
    ["https://evil.ottermoor.example", "same-site", false],
    ["https://tray.ottermoor.example:8443", undefined, false],
    ["http://tray.ottermoor.example", undefined, false],
    ["http://127.0.0.1:3001", "same-site", false],
    ["https://evil.example", "same-origin", false],
    ["https://tray.ottermoor.example.evil.example", undefined, false],
  ])("from origin %j with fetch-site %j is from a page of ours: %j", (origin, fetchSite, ours) =>
    expect(isFromOurPage({ origin, fetchSite }, OURS)).toBe(ours),
  );
});
