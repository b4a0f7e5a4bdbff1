import { describe, expect, it } from "vitest";
import { instant } from "../kernel/instant";
import type { MessageKind } from "../message/mail-message";
import { lastRealMove, type Move, whoseTurn } from "./whose-turn";

const move = (at: number, direction: "in" | "out", kind: MessageKind = "person"): Move => ({
  at: instant(at),
  direction,
  kind,
});

describe("whose move it is", () => {
  it.each<[string, Move[], object]>([
    ["nobody's when no person wrote", [move(1, "in", "automatic"), move(2, "in", "list")], { kind: "nobody" }],
    ["ours since they wrote", [move(5, "in")], { kind: "us", since: 5 }],
    [
      "ours since the first of several of theirs",
      [move(5, "in"), move(7, "in"), move(9, "in")],
      { kind: "us", since: 5 },
    ],
    ["theirs since we wrote", [move(5, "in"), move(6, "out")], { kind: "them", since: 6 }],
    ["theirs although a machine answered", [move(5, "out"), move(6, "in", "automatic")], { kind: "them", since: 5 }],
    [
      "theirs although a delivery was reported",
      [move(5, "out"), move(6, "in", "delivery-report")],
      { kind: "them", since: 5 },
    ],
    ["ours once ours bounced", [move(5, "out"), move(6, "in", "bounce")], { kind: "us", since: 6 }],
    [
      "theirs when we wrote again after the bounce",
      [move(5, "out"), move(6, "in", "bounce"), move(7, "out")],
      { kind: "them", since: 7 },
    ],
    ["ours for an invitation", [move(5, "in", "calendar")], { kind: "us", since: 5 }],
    ["by date, not by arrival", [move(9, "out"), move(5, "in")], { kind: "them", since: 9 }],
  ])("is %s", (_, moves, turn) => expect(whoseTurn(moves)).toEqual(turn));

  it("knows the newest message that counts", () => {
    const moves = [move(1, "in"), move(3, "out"), move(4, "in", "automatic"), move(5, "in", "bounce")];
    expect(lastRealMove(moves)).toEqual(moves[1]);
    expect(lastRealMove([move(4, "in", "automatic")])).toBeNull();
  });
});
