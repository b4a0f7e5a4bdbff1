import { describe, expect, it } from "vitest";
import { type TrayId, trustedId } from "../../core/kernel/ids";
import { type Instant, instant, later, SECOND } from "../../core/kernel/instant";
import { trayMemory } from "./tray-memory";

const [office, parts] = [trustedId<TrayId>("office"), trustedId<TrayId>("parts")];

function remembering(onBehind: ((trayId: TrayId, ms: number) => void) | null = null) {
  const clock: { now: Instant } = { now: instant(1_000_000) };
  const memory = trayMemory(() => clock.now, onBehind);
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

  const counting = (exactly = false) => {
    const told: number[] = [];
    const all = remembering(exactly ? null : (_, ms) => told.push(ms));
    // A count that takes so long, by the clock of the memory.
    const count = (ms: number) => async () => {
      const begun = all.clock.now;
      all.clock.now = later(begun, ms);
      return `as of ${begun}`;
    };
    const change = () => all.memory.hear({ trayId: office, isAnything: false });
    const wait = (ms: number) => {
      all.clock.now = later(all.clock.now, ms);
    };
    return { ...all, told, count, change, wait };
  };

  it("is counted for at most a twentieth of the time, and whoever is given an older count is told when to ask again", async () => {
    const { told, count, change, wait, recall } = counting();
    const first = await recall("counts", office, count(80));
    change();
    expect(await recall("counts", office, count(80))).toBe(first);
    expect(told).toEqual([1_520]);
    wait(1_600);
    expect(await recall("counts", office, count(80))).not.toBe(first);
    expect(told).toHaveLength(1);
  });

  it("is waited for by nobody where that takes too long, but counted meanwhile", async () => {
    const { told, count, change, wait, asked, recall } = counting();
    const first = await recall("counts", office, count(150));
    change();
    wait(5_000);
    expect(await recall("counts", office, count(150))).toBe(first);
    expect(told).toEqual([150]);
    expect(asked).toHaveLength(2);
    expect(await recall("counts", office, count(150))).not.toBe(first);
    wait(2 * 60 * SECOND);
    change();
    const late = await recall("counts", office, count(150));
    expect(late).not.toBe(first);
    expect(told).toHaveLength(1);
  });

  it("is counted again after every change where nobody could be told", async () => {
    const { count, change, recall, asked } = counting(true);
    for (const expected of [1, 2, 3]) {
      await recall("counts", office, count(100));
      change();
      expect(asked).toHaveLength(expected);
    }
  });

  it("is kept under so many names and no more", async () => {
    const { memory } = remembering();
    const asked: string[] = [];
    const ask = (name: string) => memory.recall(office, "counts", name, async () => asked.push(name));
    for (let at = 0; at < 500; at += 1) await ask(`list ${at}`);
    await ask("list 0");
    expect(asked).toHaveLength(500);
    await ask("one more");
    await ask("list 0");
    expect(asked.slice(500)).toEqual(["one more", "list 0"]);
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
