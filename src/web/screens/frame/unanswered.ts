import { frameTexts } from "../../../texts/en/frame";
import { sayHere } from "../../ui/texts/say-here";
/** What is said of a message whose sending was never answered. */
export const unanswered = () =>
  ({
    ok: false,
    problems: {},
    unreachable: true,
    problem: sayHere(frameTexts, "frame.noAnswerFromTheServer"),
  }) as const;
