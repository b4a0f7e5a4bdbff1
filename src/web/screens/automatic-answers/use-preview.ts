import { useEffect, useRef } from "react";
import { useFetcher } from "react-router";
import { useTray } from "../frame/tray-data";
import type { AnswersOutcome } from "./answers-outcome";
import type { WrittenAnswer } from "./written-answer";

const ASKED_AFTER = 400;

/** Who would have got an answer in the last two weeks, asked anew a moment after it was changed. */
export function usePreview(answer: WrittenAnswer) {
  const { tray } = useTray();
  const { data, state, submit } = useFetcher<AnswersOutcome>();
  // What it is called, whether it is on and what its texts say change nothing of that.
  const texts = answer.texts.map((text) => ({ ...text, text: "…" }));
  const written = JSON.stringify({ ...answer, name: "", isOn: true, from: "", until: "", texts });
  const ask = useRef(() => {});
  ask.current = () =>
    void submit({ do: "preview", answer: written }, { method: "post", action: `/${tray.slug}/automatic-answers` });
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked anew whenever what is written is otherwise
  useEffect(() => {
    const wait = setTimeout(() => ask.current(), ASKED_AFTER);
    return () => clearTimeout(wait);
  }, [written]);
  return {
    preview: data?.ok === true ? data.preview : null,
    hasProblems: data?.ok === false,
    isBusy: state !== "idle",
  };
}
