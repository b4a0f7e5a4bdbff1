import { catalogue } from "../catalogue";

export const refusalsTexts = catalogue({
  "refusals.aColleague": "A colleague",
  "refusals.aFileThatWasAttached": "A file that was attached is not kept any more: take it off and attach it again.",
  "refusals.aNoteCanBeEdited": "A note can be edited for half an hour. Add another one.",
  "refusals.aTrayNeedsALead": "A tray needs a lead. Name another one first.",
  "refusals.answeredWhileYouWereWriting":
    "{who} answered while you were writing. Read it first, or send yours all the same.",
  "refusals.asksForMoreOfWhat": "{code} asks for more of what is filed on it.",
  "refusals.blanksAreLeft":
    "{more, plural, =0 {“{first}” is not filled yet.} one {“{first}” and another blank are not filled yet.} other {“{first}” and # other blanks are not filled yet.}}",
  "refusals.cannotLookIntoThisTray":
    "{names} cannot look into this tray and would not see it. Take the name out, or have them let in first.",
  "refusals.conversationsOnAreStillOpen":
    "{count, plural, one {A conversation} other {# conversations}} on {code} {count, plural, one {is} other {are}} still open; settle them first.",
  "refusals.everythingHangsOnThatMessage": "Everything hangs on that message: nothing would stay here.",
  "refusals.isAwayAndNobodyCovers": "{name} is away until {back}. Nobody covers for them here.",
  "refusals.isAwayAndSomebodyCovers": "{name} is away until {back}. {cover} covers.",
  "refusals.isClosedReopenItFirst": "{code} is closed; reopen it first, or choose another record.",
  "refusals.isGivenToThingsGive":
    "{name} is given to {count, plural, one {something} other {# things}}; give them another policy first.",
  "refusals.isOfThisTrayAlone": "“{name}” is of this tray alone and cannot stand for one of all trays.",
  "refusals.isRetiredWhatHasIt": "“{name}” is retired; what has it keeps it, but it is not given any more.",
  "refusals.isWritingAnAnswerAt": "{who} is writing an answer at this moment. Ask first, or send yours all the same.",
  "refusals.itHasEndedAlready": "It has ended already.",
  "refusals.itWasChangedAgainSince": "It was changed again since; take that back first.",
  "refusals.mayBeKnownToOthers": "{code} may be known to others than this one; give both the same access first.",
  "refusals.mayOnlyReadThisTray": "{name} may only read this tray; assign it to a member instead.",
  "refusals.nobodyOfIsThereNow": "Nobody of “{name}” is there now; choose somebody else.",
  "refusals.notDoneMeanwhileThisIs": "Not done: {who} {did} meanwhile. This is how it stands now.",
  "refusals.notDoneWroteMeanwhileRead": "Not done: {who} wrote meanwhile. Read it first, then decide again.",
  "refusals.nothingIsAwaitedThereAny": "Nothing is awaited there any more.",
  "refusals.nothingIsSelectedAnyMore": "Nothing is selected any more. Select what it is about.",
  "refusals.onlyTheDemosTimeCan": "Only the demo’s time can be let pass.",
  "refusals.onlyWhoWroteTheLetter": "Only who wrote this letter can do that.",
  "refusals.otherRecordsStandUnderThey": "Other records stand under {code}; they go first.",
  "refusals.ownsOpenConversationsHandThem":
    "{name} owns {count} open {count, plural, one {conversation} other {conversations}}; hand them over first.",
  "refusals.sayWhyWhoeverComesTo": "Say why; whoever comes to it later has to know.",
  "refusals.somebodyChangedThisRecordMeanwhile":
    "Somebody changed this record meanwhile. This is how it stands now; what you typed is still here.",
  "refusals.somebodyHasToGetIt": "Somebody has to get it: fill in To.",
  "refusals.standsUnderItAndWould": "“{name}” stands under it and would meet another of that name; rename one first.",
  "refusals.thatDayIsOverChoose": "That day is over; choose one to come.",
  "refusals.thatIsForThoseWho": "That is for those who lead the tray.",
  "refusals.thatIsMoreThanAt": "That is more than {most, number} at once; filter the list first.",
  "refusals.thatIsMoreThanOne":
    "That is more than one tree can have: at most 500 records and folders, five folders deep.",
  "refusals.thatIsSomebodyElsesNote": "That is somebody else’s note; write one of your own.",
  "refusals.thatIsThisConversationItself": "That is this conversation itself; choose another one.",
  "refusals.thatMessageIsAlreadyOut": "That message is already out.",
  "refusals.theDraftWasChangedOr": "The draft was changed or sent meanwhile. Your text is kept here.",
  "refusals.theFilesComeToMore":
    "The files come to more than {mostBytes}, which most mail servers refuse: send some of them apart.",
  "refusals.theLetterIsOver": "This letter has gone, or was called off.",
  "refusals.theMember": "The member",
  "refusals.theReplyIsDueBefore":
    "The reply is expected before it would go. Choose a later day for the reply, or none.",
  "refusals.theSenderIsNotVerified":
    "The sender is not verified: this message could be from anybody. Show its pictures once instead.",
  "refusals.theTemplateWasChanged":
    "Somebody changed the template meanwhile. Copy what you wrote, and load the page again.",
  "refusals.theTermOfIsNot": "The term of {code} is not over, or something holds it.",
  "refusals.thereIsNoSuchAny":
    "There is no such {what, select, category {category} contact {contact} document {document} draft {draft} expectation {expectation} group {group} import {import} letter {letter} invitation {invitation} member {member} message {message} note {note} place {place} policy {policy} record {record} rule {rule} sender {sender} template {template} tray {tray} type {type} timeOff {time off} zip {ZIP export} other {thing}} any more.",
  "refusals.thereIsNothingLeftTo": "There is nothing left to undo.",
  "refusals.thereIsNothingToDo": "There is nothing to do again.",
  "refusals.thisConversationIsNotIn": "This conversation is not in this tray.",
  "refusals.thisTraySettlesOnlyWhat": "This tray settles only what is filed. File it to a record first.",
  "refusals.thisTrayWouldNeverBe": "This tray would never be open; set its hours first.",
  "refusals.whatIsCommonToAll": "What is common to all trays is changed by those who lead all of them.",
  "refusals.whatWouldGoIsNot": "What would go is not what was shown before. Look at it as it is now.",
  "refusals.youCannotRemoveYourOwn": "You cannot remove your own access. Ask another lead of the tray.",
  "refusals.youMayOnlyReadThis": "You may only read this tray; its members can decide.",
  "refusals.youWouldNotKnowOf": "You would not know of it any more; leave yourself among those who do.",
});
