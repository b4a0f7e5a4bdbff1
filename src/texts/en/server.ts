import { catalogue } from "../catalogue";

export const serverTexts = catalogue({
  "server.aTextCannotHaveA": "A text cannot have a NUL character in it.",
  "server.thatHasAFieldThat": "That has a field that no form of ours has.",
  "server.thatHasMoreFieldsThan": "That has more fields than a form of ours.",
  "server.thatIsNoIdOf": "That is no id of a command.",
  "server.thatIsNothingThatCan": "That is nothing that can be found here; load the page again.",
  "server.thatIsTooLargeAt": "That is too large: at most {most} kB are taken here.",
  "server.thatSaysMoreThanOnce": "That says more than once what is to be done.",
  "server.thisWasSentBeforeAnd":
    "This was sent before, and the server has no answer to it yet. Look whether it happened before you try again.",
  "server.thisWasSentBeforeBy": "This was sent before by somebody else; load the page and try again.",
  "server.whatWasSentIsCut": "What was sent is cut off or damaged; load the page and try again.",
  "server.whatWasSentIsNo": "What was sent is no form.",
});
