import { expect, it } from "vitest";
import { dateOffsetOf } from "./date-offset";

it.each([
  ["Date: Thu, 26 Nov 2026 10:00:00 +0100", 60],
  ["Date: Thu, 26 Nov 2026 10:00:00 -0530 (somewhere)", -330],
  ["Subject: x\r\ndate: Thu, 26 Nov 2026\r\n 10:00:00 +0000", 0],
  ["Date: Thu, 26 Nov 2026 10:00:00 -0000", null],
  ["Date: Thu, 26 Nov 2026 10:00:00 GMT", null],
  ["Date: Thu, 26 Nov 2026 10:00:00 +9900", null],
  ["Subject: no date", null],
  ["Subject: no date\r\n\r\nDate: Thu, 26 Nov 2026 10:00:00 +0100", null],
])("%j is %s minutes ahead", (fields, offset) =>
  expect(dateOffsetOf(Buffer.from(`${fields}\r\n\r\nHello.\r\n`))).toBe(offset),
);
