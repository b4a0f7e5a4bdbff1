import { addressed, all, aRule, aRuledMessage, none, worded } from "@tests/support/ruled-messages";
import { expect, it } from "vitest";
import type { EmailAddress } from "../kernel/email-address";
import { type RuleId, trustedId } from "../kernel/ids";
import { instant } from "../kernel/instant";
import { explainRules } from "./explain-rules";
import { testedMessage } from "./test-message";

const message = testedMessage(aRuledMessage({ from: "vane@vane.example" as EmailAddress, subject: "Tin order" }));
const tin = worded("subject", "words", "tin");
const ours = addressed("from", "@vane.example");

it("says of each rule whether it is for a message, and what of it is so", () => {
  const explained = explainRules(
    [
      aRule({ name: "Other", condition: all(ours, worded("subject", "words", "pipe")) }),
      aRule({ name: "Off", condition: tin, isOn: false, isLast: true }),
      aRule({ name: "Excepted", condition: tin, exception: ours }),
      aRule({ name: "Last", condition: all(ours, none(worded("subject", "words", "pipe"))), isLast: true }),
      aRule({ name: "After", condition: tin }),
      aRule({ id: trustedId<RuleId>("gone"), name: "Stopped", condition: tin }),
      aRule({ name: "Over", condition: tin, times: { moment: "arrival", from: null, until: instant(1_000) } }),
      aRule({ name: "Sent", condition: tin, times: { moment: "sending", from: null, until: null } }),
    ],
    message,
    (id) => id === "gone",
    instant(1_000),
  );
  expect(explained.map(({ rule, verdict, held }) => [rule.name, verdict, held.length])).toEqual([
    ["Other", "notForIt", 0],
    ["Off", "off", 1],
    ["Excepted", "excepted", 0],
    ["Last", "forIt", 1],
    ["After", "notAsked", 1],
    ["Stopped", "stopped", 1],
    ["Over", "otherTimes", 1],
    ["Sent", "otherTimes", 1],
  ]);
  expect(explained[0]?.condition).toMatchObject({ group: "all", of: [{ holds: true }, { holds: false }] });
  expect(explained[2]).toMatchObject({ condition: { holds: true }, exception: { holds: true } });
});
