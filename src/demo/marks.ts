/** What a reader finds in a text that we sent: the sentences that ask for an answer, those that commit us, the dates named. */
export type Marks = {
  readonly asks?: readonly string[];
  readonly promises?: readonly string[];
  readonly dates?: readonly string[];
};

/** Every text that the demo's world sends, marked by hand: what finding asks, promises and dates is measured against. */
export const MARKS: Readonly<Record<string, Marks>> = {
  "Four ranks fit into the van. Is there a morning on which the vestry is open?": {
    asks: ["Is there a morning on which the vestry is open?"],
  },
  "The account has gone to them.": {},
  "Could you tell us whether it hums when the wind is off as well, and send a recording if that is possible?": {
    asks: ["Could you tell us whether it hums when the wind is off as well, and send a recording if that is possible?"],
  },
  "Thank you for telling us at once. Please leave the box open overnight; Col will come by this week.": {
    promises: ["Please leave the box open overnight; Col will come by this week."],
  },
  "Thank you for the visit. The case drawings are being measured again and will be with you before the committee meets; we will send them by Wednesday.":
    {
      promises: [
        "The case drawings are being measured again and will be with you before the committee meets; we will send them by Wednesday.",
      ],
      dates: ["Wednesday"],
    },
  "Monday at six it is. How much may the lift carry, with two people in it?": {
    asks: ["How much may the lift carry, with two people in it?"],
    dates: ["Monday at six"],
  },
  "Thank you. Would the price hold if we take delivery in February, and could two boards be 40 mm?": {
    asks: ["Would the price hold if we take delivery in February, and could two boards be 40 mm?"],
  },
  "The console is declared at 48,000. Is that enough for your form, or do you need the survey?": {
    asks: ["Is that enough for your form, or do you need the survey?"],
  },
  "Please send a sample of the heavier grade, and tell us until when you can hold the twelve skins.": {
    asks: ["Please send a sample of the heavier grade, and tell us until when you can hold the twelve skins."],
  },
  "The second and third week of January, mornings. Could you tell us which rooms have lessons then?": {
    asks: ["Could you tell us which rooms have lessons then?"],
  },
  "The works account, please, as for stage one. Will the wardens meet before Christmas to release it?": {
    asks: ["Will the wardens meet before Christmas to release it?"],
  },
  "We can send the van on a Friday. Who has the key to the store?": {
    asks: ["Who has the key to the store?"],
    dates: ["Friday"],
  },
  "May we come on the 8th, at ten? It would take two hours.": {
    asks: ["May we come on the 8th, at ten?"],
    dates: ["8th, at ten"],
  },
  "Thank you. May Tobias come on Thursday at nine to read the log?": {
    asks: ["May Tobias come on Thursday at nine to read the log?"],
    dates: ["Thursday at nine"],
  },
  "Yes to the 200 kilograms. Can it be rolled to 1.2 mm, and what would the carriage be?": {
    asks: ["Can it be rolled to 1.2 mm, and what would the carriage be?"],
  },
  "Enclosed in spirit: nothing was altered this year but the Sorrel case.": {},
  "We go by yours. Please send the corrected note.": { asks: ["Please send the corrected note."] },
  "Please plane it to 24, we take the rest off here.": {},
  "The organ says 440, and it is older than the pianist.": {},
  "Col can come on a morning that week; please have the heating off the evening before.": {},
  "Please pull the key up gently and look whether a pencil has fallen behind it. If not, we come tomorrow.": {
    promises: ["If not, we come tomorrow."],
    dates: ["tomorrow"],
  },
  "In the yard, from the lane behind. The front is too steep for a lorry.": {},
  "Four at present: the Sorrel case, the Quayle blower chest, and two practice organs of the conservatory.": {},
  "Thank you; the washers may come with the next order.": {},
  "It is the visit in the week of the wedding of the mayor; the day sheet is in the post.": {},
  "It is the visit in the week of the advent concert; the day sheet is in the post.": {},
  "It is the visit in the week of harvest; the day sheet is in the post.": {},
  "Two metres at least, and never below the impost. A bucket of sand would make us sleep better.": {},
};
