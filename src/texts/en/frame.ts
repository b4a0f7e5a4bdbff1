import { catalogue } from "../catalogue";

export const frameTexts = catalogue({
  "frame.coveredByYou": "{name}, covered by you",
  "frame.fri4DecTomorrow": "Fri 4 Dec, tomorrow",
  "frame.goodToKnow": "Good to know",
  "frame.lineByLine": "Line by line",
  "frame.takeIn": "{news, plural, one {Take 1 {one} in} other {Take # {many} in}}",
  "frame.noOwner": "no owner",
  "frame.onTheShelf": "On the shelf",
  "frame.openConversations": "{open, plural, one {1 open conversation} other {# open conversations}}",
  "frame.orItsLines": "Or its lines",
  "frame.preview": "Preview",
  "frame.result": "Result",
  "frame.undoTheImport": "undo the import",
});
