import { describe, expect, it } from "vitest";
import { type TrayId, trustedId } from "../core/kernel/ids";
import { type Instant, instant, later, SECOND } from "../core/kernel/instant";
import { trayMemory } from "./tray-memory";

const [office, parts] = [trustedId<TrayId>("office"), trustedId<TrayId>("parts")];

function remembering() {
  const clock: { now: Instant } = { now: instant(1_000_000) };
  const memory = trayMemory(() => clock.now);
  const asked: string[] = [];
  const recall = (
    what: "people" | "counts",
    trayId = office,
    answer: () => Promise<string> = async () => "worked out",
  ) =>
    memory.recall(trayId, what, "name", () => {
      asked.push(`${what} of ${trayId}`);
      return answer();
    });
  return { clock, memory, asked, recall };
}

describe("what a tray has in common", () => {
  it("is worked out once for all who ask, also while it is being worked out", async () => {
    const { asked, recall } = remembering();
    const answers = await Promise.all([recall("counts"), recall("counts"), recall("people")]);
    expect([...answers, await recall("counts")]).toEqual(Array(4).fill("worked out"));
    expect(asked).toEqual(["counts of office", "people of office"]);
  });

  it("is forgotten by what may make it another, and by nothing else", async () => {
    const { memory, asked, recall } = remembering();
    const again = async () => {
      asked.length = 0;
      for (const trayId of [office, parts])
        for (const what of ["people", "counts"] as const) await recall(what, trayId);
      return [...asked];
    };
    await again();
    memory.hear({ trayId: office, only: "presence", isAnything: false });
    expect(await again()).toEqual([]);
    memory.hear({ trayId: office, isAnything: false });
    expect(await again()).toEqual(["counts of office"]);
    memory.hear({ trayId: office, isAnything: true });
    expect(await again()).toEqual(["people of office", "counts of office", "people of parts"]);
    memory.hearOfAccess();
    expect(await again()).toEqual(["people of office", "people of parts"]);
    memory.forgetAll();
    expect(await again()).toHaveLength(4);
  });

  it("that was being worked out from before a change is kept for nobody who asks after it", async () => {
    const { memory, recall } = remembering();
    const answers: ((text: string) => void)[] = [];
    const slowly = () => new Promise<string>((resolve) => answers.push(resolve));
    const before = recall("counts", office, slowly);
    memory.hear({ trayId: office, isAnything: false });
    const after = recall("counts", office, slowly);
    answers[1]?.("new");
    answers[0]?.("old");
    expect(await Promise.all([before, after, recall("counts", office, slowly)])).toEqual(["old", "new", "new"]);
  });

  it("grows old after ten seconds, and is not kept where it could not be worked out", async () => {
    const { clock, asked, recall } = remembering();
    await expect(recall("counts", office, () => Promise.reject(new Error("no line")))).rejects.toThrow("no line");
    expect(await recall("counts")).toBe("worked out");
    clock.now = later(clock.now, 9 * SECOND);
    await recall("counts");
    expect(asked).toHaveLength(2);
    clock.now = later(clock.now, 2 * SECOND);
    await recall("counts");
    expect(asked).toHaveLength(3);
  });
});
