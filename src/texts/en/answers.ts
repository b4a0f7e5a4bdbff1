import { catalogue } from "../catalogue";

export const answersTexts = catalogue({
  "answers.aNameHasAtMost": "A name has at most {most} characters.",
  "answers.anotherHasThatName": "Another automatic answer has that name.",
  "answers.atMostCharacters": "At most {most} characters.",
  "answers.atMostTexts": "At most {most} texts.",
  "answers.daysFromTo": "Enter a number of days from 1 to {most}.",
  "answers.endsBeforeItBegins": "It ends before it begins. Choose a later end.",
  "answers.giveItAName": "Give it a name.",
  "answers.isNoBlank": "{name} is filled by nothing. Use [back], [colleague] or [cover].",
  "answers.sentBy": "the tray sent it by itself: “{name}”",
  "answers.soon": "soon",
  "answers.writeWhatIsAnswered": "Write what is answered.",
});
