import { aConversation, did, type Happening, INES, TOBIAS, theyWrote } from "@tests/support/a-conversation";
import { inEnglish } from "@tests/support/english";
import { describe, expect, it } from "vitest";
import { type CategoryId, type RecordId, trustedId } from "../kernel/ids";
import { effectInWords } from "./effect-in-words";
import type { Effect } from "./entry";
import { overwrittenUnseen, planUndo } from "./plan-undo";

const TUNING = trustedId<CategoryId>("tuning");
const entriesOf = (...happenings: Happening[]) => aConversation(theyWrote(), ...happenings).entries;
const toTobias = did({ kind: "assigned", ownerId: TOBIAS });
const toInes = did({ kind: "assigned", ownerId: INES }, TOBIAS);
const settled = did({ kind: "settled" });
const tuned = did({ kind: "categorised", categoryId: TUNING });

describe("undoing", () => {
  const plansFor = (undone: number[], ...happenings: Happening[]) => {
    const entries = entriesOf(...happenings);
    return planUndo(
      entries.filter((_, at) => undone.includes(at)),
      entries,
    ).map(({ kind, entry }) => `${kind} ${entry.effect.kind}`);
  };
  it.each<[string, number[], Happening[], string[]]>([
    ["takes back what stands", [0], [settled], ["undo settled"]],
    ["takes back what went together, newest first", [0, 1], [tuned, settled], ["undo settled", "undo categorised"]],
    ["leaves what somebody decided anew since", [0], [toTobias, toInes], ["overtaken assigned"]],
    ["is not overtaken by something else", [0], [toTobias, settled], ["undo assigned"]],
    ["is not overtaken by what is undone with it", [0, 1], [toTobias, toInes], ["undo assigned", "undo assigned"]],
    ["keeps what the system found out", [0], [did({ kind: "rest-ended" }, null)], ["not-a-decision rest-ended"]],
    [
      "takes one note back among others",
      [0],
      [did({ kind: "noted", text: "a" }), did({ kind: "noted", text: "b" })],
      ["undo noted"],
    ],
  ])("%s", (_, undone, happenings, plans) => expect(plansFor(undone, ...happenings)).toEqual(plans));
});

describe("deciding on an old page", () => {
  const unseen = (effect: Effect, seen: number, ...happenings: Happening[]) =>
    overwrittenUnseen({ effect }, seen, INES, entriesOf(...happenings))?.effect.kind ?? null;
  it("would overwrite a colleague's newer decision of the same kind", () => {
    expect(unseen({ kind: "assigned", ownerId: INES }, 1, did({ kind: "assigned", ownerId: TOBIAS }, TOBIAS))).toBe(
      "assigned",
    );
    expect(unseen({ kind: "binned" }, 1, did({ kind: "settled" }, TOBIAS))).toBe("settled");
  });
  it("overwrites nothing that one saw, did oneself, or that is about something else", () => {
    expect(unseen({ kind: "settled" }, 2, did({ kind: "binned" }, TOBIAS))).toBeNull();
    expect(unseen({ kind: "settled" }, 1, did({ kind: "binned" }, INES))).toBeNull();
    expect(unseen({ kind: "settled" }, 1, did({ kind: "assigned", ownerId: TOBIAS }, TOBIAS))).toBeNull();
    expect(
      unseen({ kind: "categorised", categoryId: TUNING }, 1, did({ kind: "categorised", categoryId: TUNING }, TOBIAS)),
    ).toBeNull();
  });
});

describe("an effect in words", () => {
  const names = { member: () => "Tobias", category: () => "Tuning", record: () => "P-26-012", day: () => "Thu" };
  it.each<[Effect, string]>([
    [{ kind: "assigned", ownerId: TOBIAS }, "assigned it to Tobias"],
    [{ kind: "assigned", ownerId: INES }, "took it"],
    [{ kind: "assigned", ownerId: null }, "removed the owner"],
    [{ kind: "filed", recordId: trustedId<RecordId>("r") }, "filed it to P-26-012"],
    [{ kind: "categorised", categoryId: TUNING }, "added Tuning"],
    [{ kind: "send-failed", messageId: trustedId("m"), reason: "550 no" }, "could not send the message: 550 no"],
  ])("%j", (effect, words) => expect(inEnglish(effectInWords(effect, names, INES))).toBe(words));
});
