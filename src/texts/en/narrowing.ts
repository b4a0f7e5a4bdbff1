import { catalogue } from "../catalogue";

export const narrowingTexts = catalogue({
  "narrowing.counting": "Counting…",
  "narrowing.everybodyS": "Everybody's",
  "narrowing.filterBy": "Filter by {name}",
  "narrowing.mine": "Mine",
  "narrowing.noneOfThatName": "None of that name.",
  "narrowing.nothingToChoose": "Nothing to choose.",
  "narrowing.selected": "selected",
  "narrowing.theCountsCouldNotBe": "The counts could not be loaded.",
  "narrowing.typeToFind": "Type to find",
  "narrowing.whichFollowUps": "Which follow-ups",
});
