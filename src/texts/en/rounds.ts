import { catalogue } from "../catalogue";

export const roundsTexts = catalogue({
  "rounds.aNameHasAtMost": "A name has at most {most} characters.",
  "rounds.anotherHasThatName": "Another round has that name.",
  "rounds.atMostTimes": "At most {most} times a day.",
  "rounds.broughtBack": "Round brought back",
  "rounds.chooseARound": "That is no round. Choose one of the list.",
  "rounds.enterAtLeastOneTime": "Enter at least one time, such as 11:00.",
  "rounds.giveItAName": "Give the round a name.",
  "rounds.heldBy": "Held by {rules}.",
  "rounds.heldUntil":
    "{count, plural, =0 {Holds nothing; next {next}.} one {Holds # conversation until {next}.} other {Holds # conversations until {next}.}}",
  "rounds.heldWithoutAnHour":
    "{count, plural, =0 {Holds nothing:} one {Holds # conversation:} other {Holds # conversations:}} this tray has no working day to come.",
  "rounds.isNoTimeOfDay": "“{text}” is no time of day. Write it as 11:00.",
  "rounds.letInNow": "Let in now",
  "rounds.letInNowOf": "Let in now: {name}",
  "rounds.letInRound": "Let in: {round}",
  "rounds.newRound": "New round",
  "rounds.noRoundsYet":
    "There are no rounds yet. Make one, such as “Mass mail” at 11:00 and 16:00, and let a rule hold mail for it.",
  "rounds.noRuleHoldsForIt": "No rule holds mail for it yet.",
  "rounds.removed": "Round removed; what it held was let in",
  "rounds.roundCalled": "Round: {name}",
  "rounds.rounds": "Rounds",
  "rounds.saved": "Round saved",
  "rounds.timesOnWorkingDays": "Times on working days",
  "rounds.whatARoundIs":
    "A rule can hold mail back for a round: it stays out of To sort and is let in together at the round’s times, on working days, {zone}. What an exception of the rule is for comes through at once.",
  "rounds.whatIsHeld": "What is held",
});
