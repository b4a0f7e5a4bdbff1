import { inEnglish } from "@tests/support/english";
import { describe, expect, it } from "vitest";
import { looseAddress } from "../kernel/email-address";
import type { ClassifiableMessage } from "./classifiable-message";
import { classifyMessage } from "./classify-message";

const message = (headers: Record<string, string>, more: Partial<ClassifiableMessage> = {}): ClassifiableMessage => ({
  headers: Object.entries(headers).map(([name, value]) => ({ name, value })),
  fromAddress: looseAddress("vane@vanehouse.example"),
  fromName: "Perpetua Vane",
  toAddresses: [looseAddress("office@ottermoor.example")],
  isReport: headers["content-type"]?.startsWith("multipart/report") === true,
  copies: [],
  enclosed: [],
  dispositions: [],
  envelopeSender: "vane@vanehouse.example",
  deliveryStatus: [],
  text: "Would a Tuesday be possible?",
  calendarMethod: null,
  ...more,
});
const report = { "content-type": "multipart/report; report-type=delivery-status" };
const status = (action: string, code: string) =>
  `Reporting-MTA: dns; x.example\r\n\r\nFinal-Recipient: rfc822; Sexton@OldWyke.example\r\nAction: ${action}\r\nStatus: ${code}\r\nDiagnostic-Code: smtp; 550 no\r\n such mailbox\r\n`;

describe("the kind of a message", () => {
  it.each<[string, ClassifiableMessage, string]>([
    ["person", message({}), "person"],
    ["person although Auto-Submitted says no", message({ "auto-submitted": "no" }), "person"],
    ["automatic by RFC 3834", message({ "auto-submitted": "auto-replied" }), "automatic"],
    ["automatic by an older field", message({ "x-autoreply": "yes" }), "automatic"],
    ["automatic by an empty return path", message({}, { envelopeSender: "" }), "automatic"],
    ["automatic by its sender", message({}, { fromAddress: looseAddress("no-reply@bank.example") }), "automatic"],
    [
      "automatic for a receipt of reading",
      message({ "content-type": "multipart/report; report-type=disposition-notification" }),
      "automatic",
    ],
    ["list by List-Id", message({ "list-id": "<rolling.tinguild.example>" }), "list"],
    [
      "list although its return path is empty",
      message({ "list-id": "<rolling.tinguild.example>" }, { envelopeSender: "" }),
      "list",
    ],
    ["list by List-Unsubscribe", message({ "list-unsubscribe": "<mailto:x@y.example>" }), "list"],
    ["list by Precedence", message({ precedence: "bulk" }), "list"],
    ["calendar", message({}, { calendarMethod: "REQUEST" }), "calendar"],
    ["bounce", message(report, { deliveryStatus: [status("failed", "5.1.1")] }), "bounce"],
    ["report of a delay", message(report, { deliveryStatus: [status("delayed", "4.4.1")] }), "delivery-report"],
    [
      "bounce without a report",
      message(
        { subject: "Mail delivery failed" },
        {
          fromAddress: looseAddress("mailer-daemon@x.example"),
          text: "could not be delivered to sexton@oldwyke.example",
        },
      ),
      "bounce",
    ],
    ["person who writes about failure", message({ subject: "Delivery failed again" }), "person"],
  ])("is %s", (_, given, kind) => expect(classifyMessage(given).classification.kind).toBe(kind));

  it("names the recipient that failed, for good or for now", () => {
    const verger = status("failed", "4.2.2").replace("Sexton", "verger");
    const given = message(report, { deliveryStatus: [status("failed", "5.1.1"), verger] });
    expect(classifyMessage(given).failedRecipients).toEqual([
      { address: "sexton@oldwyke.example", permanent: true, diagnostic: "550 no such mailbox" },
      { address: "verger@oldwyke.example", permanent: false, diagnostic: "550 no such mailbox" },
    ]);
  });

  it("finds the recipient in the text of an old bounce, not in the copy below it", () => {
    const text =
      "Could not be delivered to:\n  sexton@oldwyke.example\n\n--- copy of your message ---\nFrom: office@ottermoor.example";
    const given = message({}, { fromAddress: looseAddress("mailer-daemon@x.example"), text });
    expect(classifyMessage(given).failedRecipients.map(({ address }) => address)).toEqual(["sexton@oldwyke.example"]);
  });

  it("gives its reason", () => {
    const { reason } = classifyMessage(message({ "auto-submitted": "auto-replied" })).classification;
    expect(inEnglish(reason)).toBe("Auto-Submitted: auto-replied (RFC 3834)");
  });
});
