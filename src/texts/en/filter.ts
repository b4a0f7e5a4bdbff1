import { catalogue } from "../catalogue";

export const filterTexts = catalogue({
  "filter.age": "Age",
  "filter.attachments": "Attachments",
  "filter.category": "Category",
  "filter.counting": "Counting…",
  "filter.everybodyS": "Everybody's",
  "filter.filterBy": "Filter by {name}",
  "filter.mine": "Mine",
  "filter.noneOfThatName": "None of that name.",
  "filter.nothingToChoose": "Nothing to choose.",
  "filter.owner": "Owner",
  "filter.person": "Person",
  "filter.record": "Record",
  "filter.selected": "selected",
  "filter.theCountsCouldNotBe": "The counts could not be loaded.",
  "filter.typeToFind": "Type to find",
  "filter.unread": "Unread",
  "filter.whichFollowUps": "Which follow-ups",
});
