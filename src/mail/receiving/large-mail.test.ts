import { describe, expect, it, vi } from "vitest";
import { largeMailRoom } from "./large-mail";

const LIMITS = { atOnce: 2, mostWaiting: 2, patienceMs: 1_000, undisturbedMs: 500 };

describe("large mail", () => {
  it("comes in one after the other, and is told to come again where too much waits", async () => {
    const room = largeMailRoom(LIMITS);
    const [one, two] = [await room.enter(), await room.enter()];
    const [third, fourth] = [room.enter(), room.enter()];
    expect(await room.enter()).toBeNull();
    one?.leave();
    const next = await third;
    expect(next?.isTaken()).toBe(false);
    two?.leave();
    expect(await fourth).not.toBeNull();
  });

  it("does not wait for ever", async () => {
    vi.useFakeTimers();
    const room = largeMailRoom({ ...LIMITS, atOnce: 1 });
    const place = await room.enter();
    const waits = room.enter();
    vi.advanceTimersByTime(1_100);
    expect(await waits).toBeNull();
    vi.useRealTimers();
    place?.leave();
    expect(await room.enter()).not.toBeNull();
  });

  it("that takes too long gives its place up to one that waits", async () => {
    let now = 0;
    const room = largeMailRoom({ ...LIMITS, atOnce: 1 }, () => now);
    const slow = await room.enter();
    now = 600;
    const waits = room.enter();
    expect(slow?.isTaken()).toBe(true);
    slow?.leave();
    expect((await waits)?.isTaken()).toBe(false);
  });
});
