import { catalogue } from "../catalogue";

export const narrowingTexts = catalogue({
  "narrowing.age": "Age",
  "narrowing.attachments": "Attachments",
  "narrowing.category": "Category",
  "narrowing.counting": "Counting…",
  "narrowing.everybodyS": "Everybody's",
  "narrowing.filterBy": "Filter by {name}",
  "narrowing.mine": "Mine",
  "narrowing.noneOfThatName": "None of that name.",
  "narrowing.nothingToChoose": "Nothing to choose.",
  "narrowing.owner": "Owner",
  "narrowing.person": "Person",
  "narrowing.record": "Record",
  "narrowing.selected": "selected",
  "narrowing.theCountsCouldNotBe": "The counts could not be loaded.",
  "narrowing.typeToFind": "Type to find",
  "narrowing.unread": "Unread",
  "narrowing.whichFollowUps": "Which follow-ups",
});
