import { inEnglish } from "@tests/support/english";
import { describe, expect, it } from "vitest";
import { type MemberId, type MessageId, trustedId } from "../kernel/ids";
import { DAY, instant, later, MINUTE } from "../kernel/instant";
import type { MessageKind } from "../message/mail-message";
import type { MessageFact } from "../standing/derive-standing";
import { cameBetween, laterProblem, verdictOnLater, wentLate } from "./later-letter";

const now = instant(Date.UTC(2026, 10, 30, 9));
const [ines, mara] = [trustedId<MemberId>("ines"), trustedId<MemberId>("mara")];

function wrote(version: number, who: MemberId | string, kind: MessageKind = "person"): MessageFact {
  const authorId = who === ines || who === mara ? (who as MemberId) : null;
  return {
    ...{ id: trustedId<MessageId>(String(version)), version, at: now, arrivedAt: now, kind, authorId },
    direction: authorId === null && who !== "machine" ? "in" : "out",
    ...{ from: "vane@vane.example" as MessageFact["from"], fromName: authorId === null ? String(who) : "" },
    ...{ failedRecipients: [], returnsAt: null, expiresAt: null },
  };
}

describe("when a letter is to go", () => {
  it.each([
    [later(now, -1), "That is past: choose a moment to come."],
    [now, "That is past: choose a moment to come."],
    [later(now, MINUTE), null],
    [later(now, 730 * DAY), null],
    [later(now, 731 * DAY), "A letter can be planned at most 730 days ahead."],
  ])("%s", (at, words) => {
    const problem = laterProblem({ at }, now);
    expect(problem === null ? null : inEnglish(problem)).toBe(words);
  });
});

describe("what comes before a letter goes", () => {
  const among = (...messages: MessageFact[]) => cameBetween({ messages }, 2, ines);

  it("is the newest message that its writer did not know, from outside or of a colleague", () => {
    expect(among(wrote(1, "Perpetua Vane"), wrote(2, mara))).toBeNull();
    expect(among(wrote(3, "Perpetua Vane"))).toEqual({ kind: "answered", who: "Perpetua Vane" });
    expect(among(wrote(3, "Perpetua Vane"), wrote(4, mara))).toEqual({ kind: "colleague-wrote", memberId: mara });
    expect(among(wrote(3, "Mail system", "bounce"))).toEqual({ kind: "bounced", who: "Mail system" });
    expect(among(wrote(3, ""))).toEqual({ kind: "answered", who: "vane@vane.example" });
  });

  it("is not what she wrote herself, nor what machines wrote", () => {
    expect(among(wrote(3, ines), wrote(4, "machine", "automatic"), wrote(5, "Out of office", "automatic"))).toBeNull();
    expect(among(wrote(3, "Perpetua Vane"), wrote(4, ines))).toEqual({ kind: "answered", who: "Perpetua Vane" });
  });

  it.each([
    [null, {}, "goes"],
    [null, { ifSilent: true, untilSettled: true }, "goes"],
    [{ kind: "answered", who: "" }, {}, "held"],
    [{ kind: "answered", who: "" }, { untilSettled: true }, "held"],
    [{ kind: "answered", who: "" }, { ifSilent: true }, "stopped"],
    [{ kind: "bounced", who: "" }, { ifSilent: true }, "held"],
    [{ kind: "colleague-wrote", memberId: mara }, { ifSilent: true }, "held"],
  ] as const)("%j, on the terms %j: %s", (came, terms, verdict) => {
    const both = { ifSilent: false, untilSettled: false, ...terms };
    expect(verdictOnLater(both, came, false)).toBe(verdict);
    expect(verdictOnLater({ ...both, untilSettled: true }, came, true)).toBe("stopped");
  });
});

it("is late once nobody can take it for the usual delay", () => {
  expect(wentLate(now, later(now, 5 * MINUTE))).toBe(false);
  expect(wentLate(now, later(now, 5 * MINUTE + 1))).toBe(true);
});
