import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Draft, DraftOnDevice, KeptDraft } from "../../../core/writing/draft";
import { draftKeeper, type KeepingState, type Saved } from "./draft-keeper";

beforeEach(() => vi.useFakeTimers());
afterEach(() => vi.useRealTimers());

const draft = (html: string): Draft => ({ to: "", cc: "", subject: "", html, after: "keep", day: "" });
const first: DraftOnDevice = { id: "d1", version: 0, draft: draft(""), isSaved: true };

/** A keeper whose server answers as it is told, each time once. */
function keeping(...answers: (Saved | "lost")[]) {
  const [asked, here, states]: [KeptDraft[], DraftOnDevice[], KeepingState["kind"][]] = [[], [], []];
  const keeper = draftKeeper({
    first,
    save: async (kept) => {
      asked.push(kept);
      const answer = answers.shift();
      if (answer === undefined || answer === "lost") throw new Error("no answer");
      return answer;
    },
    keepHere: (kept) => here.push(kept),
    onState: ({ kind }) => states.push(kind),
  });
  const passes = (ms: number) => vi.advanceTimersByTimeAsync(ms);
  return { keeper, asked, here, states, passes };
}
const kept = (version: number) => ({ kind: "kept", version }) as const;

describe("what is typed", () => {
  it("is on the device at once, and on the server within two seconds of a pause", async () => {
    const { keeper, asked, here, states, passes } = keeping(kept(1));
    keeper.typed(draft("O"));
    await passes(500);
    keeper.typed(draft("On"));
    expect(here.at(-1)).toEqual({ id: "d1", version: 0, draft: draft("On"), isSaved: false });
    await passes(900);
    expect(asked).toEqual([]);
    await passes(1_100);
    expect(asked).toMatchObject([{ version: 0, draft: draft("On") }]);
    expect(here.at(-1)).toMatchObject({ version: 1, isSaved: true });
    expect(states).toEqual(["saving", "saving", "saved"]);
  });
  it("while it is being saved is saved after that, on its version", async () => {
    const { keeper, asked, here, passes } = keeping(kept(1), kept(2));
    keeper.typed(draft("On"));
    keeper.saveNow();
    keeper.typed(draft("One"));
    await passes(0);
    expect(here.at(-1)).toMatchObject({ version: 1, isSaved: false });
    await passes(2_000);
    expect(asked).toMatchObject([{ version: 0 }, { version: 1, draft: draft("One") }]);
    expect(here.at(-1)).toMatchObject({ version: 2, isSaved: true });
  });
  it("is saved again until there is an answer", async () => {
    const { keeper, asked, states, passes } = keeping("lost", "lost", kept(1));
    keeper.typed(draft("On"));
    await passes(12_000);
    expect(asked).toHaveLength(3);
    expect(states).toEqual(["saving", "unreachable", "unreachable", "saved"]);
  });
  it("is on the server where only the answer was lost", async () => {
    const there = { id: "d1", version: 1, draft: draft("On") };
    const { keeper, here, states, passes } = keeping("lost", { kind: "differs", there });
    keeper.typed(draft("On"));
    await passes(7_000);
    expect(here.at(-1)).toMatchObject({ version: 1, isSaved: true });
    expect(states).toEqual(["saving", "unreachable", "saved"]);
  });
  it("is said to be refused, and tried again only when it is another", async () => {
    const { keeper, asked, states, passes } = keeping({ kind: "refused", problem: "Too long." }, kept(1));
    keeper.typed(draft("On"));
    await passes(30_000);
    expect([asked.length, states.at(-1)]).toEqual([1, "refused"]);
    keeper.typed(draft("O"));
    await passes(1_000);
    expect([asked.length, states.at(-1)]).toEqual([2, "saved"]);
  });
  it("is not saved once it is sent", async () => {
    const { keeper, asked, passes } = keeping(kept(1));
    keeper.typed(draft("On"));
    keeper.stop();
    await passes(20_000);
    expect(asked).toEqual([]);
  });
});

describe("what was written elsewhere", () => {
  const there: KeptDraft = { id: "d1", version: 5, draft: draft("Elsewhere") };
  it("is not written over until it is said which goes on", async () => {
    const { keeper, asked, here, states, passes } = keeping({ kind: "differs", there }, kept(6));
    keeper.typed(draft("Here"));
    await passes(1_000);
    keeper.typed(draft("Here too"));
    await passes(20_000);
    expect(asked).toHaveLength(1);
    expect(states.at(-1)).toBe("differs");
    keeper.goOnWith({ ...there, draft: draft("Here too"), isSaved: false });
    await passes(0);
    expect(asked[1]).toMatchObject({ version: 5, draft: draft("Here too") });
    expect(here.at(-1)).toMatchObject({ version: 6, isSaved: true });
  });
  it("goes on, and is saved with the next words only", async () => {
    const { keeper, asked, passes } = keeping({ kind: "differs", there }, kept(6));
    keeper.typed(draft("Here"));
    await passes(1_000);
    keeper.goOnWith({ ...there, isSaved: true });
    await passes(10_000);
    expect(asked).toHaveLength(1);
    keeper.typed(draft("Elsewhere and here"));
    await passes(1_000);
    expect(asked[1]).toMatchObject({ version: 5, draft: draft("Elsewhere and here") });
  });
  it("may be that it was sent or thrown away", async () => {
    const { keeper, asked, states, passes } = keeping({ kind: "differs", there: null });
    keeper.typed(draft("Here"));
    await passes(20_000);
    expect([asked.length, states.at(-1)]).toEqual([1, "ended"]);
  });
});
