import { catalogue } from "../catalogue";

export const sortRunTexts = catalogue({
  "sortRun.aboutMinutesAtYourPace": " · about {minutes, plural, one {1 minute} other {# minutes}} at your pace",
  "sortRun.accept": "Accept {them}",
  "sortRun.andGoOn": " and go on",
  "sortRun.answered": "Answered",
  "sortRun.assignTo": "Assign to ",
  "sortRun.backTo": "Back to {scope}",
  "sortRun.canBeBroughtBack": "can be brought back",
  "sortRun.conversationsInThisRunWhat":
    "{decided, plural, one {One conversation} other {# conversations}} in this run. What comes in now appears here by itself.",
  "sortRun.decidedMeanwhile": "Decided meanwhile.",
  "sortRun.earlierMessagesAndNotes": "{count, plural, one {1 earlier message} other {# earlier messages and notes}}",
  "sortRun.everythingIsDecided": "Everything is decided",
  "sortRun.fetchingTheConversation": "Fetching the conversation…",
  "sortRun.fileFirstWithItsKey": "file first with its key",
  "sortRun.leave": "Leave",
  "sortRun.leftOf": "{left} left of {all}",
  "sortRun.nextUp": "Next up",
  "sortRun.nothingIsProposedTooLittle": "Nothing is proposed: too little is known of this sender.",
  "sortRun.nothingStandsInNowNew": "Nothing stands in {scope} now. New mail appears here by itself as it comes in.",
  "sortRun.nowFromHere": "now, from here",
  "sortRun.of": " of {name}",
  "sortRun.restOrFollowUp": "Rest or follow up",
  "sortRun.skip": "Skip",
  "sortRun.sortRun": "Sort run{counted}",
  "sortRun.theConversationCouldNotBe":
    "The conversation could not be loaded. It will be loaded when the connection returns.",
  "sortRun.thereIsNothingToSort": "There is nothing to sort",
  "sortRun.toAColleague": "to a colleague",
  "sortRun.untilATimeOrFor": "until a time, or for a reminder",
  "sortRun.waysOut": "Ways out",
});
