/** The median of some runs of a piece of work in milliseconds, after as many to warm up. */
export async function medianMs(runs: number, work: () => Promise<unknown>): Promise<number> {
  for (let at = 0; at < runs; at += 1) await work();
  const times: number[] = [];
  for (let at = 0; at < runs; at += 1) {
    const start = performance.now();
    await work();
    times.push(performance.now() - start);
  }
  return times.toSorted((a, b) => a - b)[Math.floor(runs / 2)] ?? Number.NaN;
}

/** The value below which such a part of some values lie, from 0 to 1. */
export function percentile(values: readonly number[], part: number): number {
  return values.toSorted((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * part))] ?? Number.NaN;
}

/** A figure of the bench: what was measured, what the floor was in the same run, and the ratio that is asked for. */
export type Figure = {
  readonly name: string;
  readonly unit: string;
  readonly measured: number;
  readonly floor: number;
  readonly floorName: string;
  readonly ratio: number;
  readonly asked: string;
  readonly holds: boolean;
};

/** One line of the report. */
export function printed(figure: Figure): string {
  const { name, unit, measured, floor, floorName, ratio, asked, holds } = figure;
  const verdict = `(asked: ${asked}) ${holds ? "holds" : "DOES NOT HOLD"}`;
  if (Number.isNaN(floor)) return `${name}: ${measured.toFixed(measured < 10 ? 2 : 0)} ${unit} ${verdict}`;
  return `${name}: ${measured.toFixed(2)} ${unit}; ${floorName}: ${floor.toFixed(2)} ${unit}; ratio ${ratio.toFixed(2)} ${verdict}`;
}

/** A figure with no floor to compare it with. */
export function plain(name: string, unit: string, measured: number, asked = "said", holds = true): Figure {
  return { name, unit, measured, floor: Number.NaN, floorName: "", ratio: Number.NaN, asked, holds };
}
