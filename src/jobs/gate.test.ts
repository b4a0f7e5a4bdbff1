import { expect, it } from "vitest";
import { gate } from "./gate";

function work() {
  let end = () => {};
  const ended = new Promise<void>((resolve) => {
    end = resolve;
  });
  const state = { begun: false, end: () => end() };
  const run = () => {
    state.begun = true;
    return ended;
  };
  return { state, run };
}
const soon = () => new Promise((resolve) => setImmediate(resolve));

it("lets many work together, one alone, and nobody in before who waits to be alone", async () => {
  const { together, alone } = gate();
  const [one, two, suspect, later] = [work(), work(), work(), work()];
  const all = [together(one.run), together(two.run), alone(suspect.run), together(later.run)];
  await soon();
  expect([one, two, suspect, later].map(({ state }) => state.begun)).toEqual([true, true, false, false]);
  one.state.end();
  two.state.end();
  await soon();
  expect([suspect.state.begun, later.state.begun]).toEqual([true, false]);
  suspect.state.end();
  await soon();
  expect(later.state.begun).toBe(true);
  later.state.end();
  await Promise.all(all);
});

it("lets the next in after one that failed", async () => {
  const { together, alone } = gate();
  const failing = alone(() => Promise.reject(new Error("no")));
  const next = together(async () => "in");
  await expect(failing).rejects.toThrow("no");
  expect(await next).toBe("in");
});
