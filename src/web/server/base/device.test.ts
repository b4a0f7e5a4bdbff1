import { expect, it } from "vitest";
import { deviceOf } from "./device";

it.each([
  [
    "Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/156.0 Safari/537.36",
    "Chrome on Linux",
  ],
  [
    "Mozilla/5.0 (iPhone; CPU iPhone OS 26_1 like Mac OS X) AppleWebKit/605 Version/26.1 Mobile Safari/604.1",
    "Safari on iOS",
  ],
  ["Mozilla/5.0 (Windows NT 10.0; Win64; x64; rv:150.0) Gecko/20100101 Firefox/150.0", "Firefox on Windows"],
  ["Mozilla/5.0 (Windows NT 10.0) AppleWebKit/537.36 Chrome/156.0 Safari/537.36 Edg/156.0", "Edge on Windows"],
  ["curl/8.1", "curl"],
  ["", "an unnamed program"],
])("%j is %j", (userAgent, device) => expect(deviceOf(userAgent)).toBe(device));
