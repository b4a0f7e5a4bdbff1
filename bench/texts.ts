import { precision, recall, textScores } from "~/demo/text-scores";
import type { Figure } from "./measure";

/** How well asks, promises and dates are found in what the demo sends, against marks made by hand. */
export function textFigures(): Figure[] {
  return Object.entries(textScores()).map(([kind, score]) => ({
    name: `${kind} in ${score.marked} marked places of the demo's sent mail: precision (recall ${recall(score).toFixed(2)})`,
    unit: "",
    measured: precision(score),
    floor: Number.NaN,
    floorName: "",
    ratio: Number.NaN,
    asked: "at least 0.9",
    holds: precision(score) >= 0.9,
  }));
}
