import type { EmailAddress } from "../../core/kernel/email-address";

/** What somebody outside does with a message that reaches her. Delays are in seconds of the stand-in's own clock. */
export type Reaction =
  | {
      readonly kind: "answers";
      readonly afterSeconds: number;
      readonly text: string;
      /** Another address of hers that she answers from. */
      readonly from?: EmailAddress;
      /** She answers this message of ours only, counted from 1; left out means each. */
      readonly nth?: number;
      /** How she writes: plain text with marked quotes below, or HTML on top of all that was there. */
      readonly style?: "plain" | "html-on-top";
    }
  /** Writes anew instead of answering: nothing in it names our message. */
  | { readonly kind: "writes-anew"; readonly afterSeconds: number; readonly subject: string; readonly text: string }
  | {
      readonly kind: "is-away";
      readonly afterSeconds: number;
      /** `{day}` in it is the day when she is back. */
      readonly text: string;
      readonly backInDays?: number;
      /** Its machine answers other machines as well, against RFC 3834 2. */
      readonly answersMachines?: true;
    }
  | { readonly kind: "bounces"; readonly afterSeconds: number; readonly status: string; readonly diagnostic: string }
  /** A list: what reaches it goes to its members, the tray among them; another member answers there. */
  | { readonly kind: "posts-to-list"; readonly afterSeconds: number; readonly member: string; readonly text: string }
  | { readonly kind: "invites"; readonly afterSeconds: number; readonly summary: string; readonly inDays: number };

/** One correspondent of the stand-in. */
export type Character = {
  readonly name: string;
  readonly address: EmailAddress;
  readonly reactions: readonly Reaction[];
  /** How often her server puts us off before it takes a message (greylisting). */
  readonly defers?: number;
  /** Whether her server signs (DKIM, RFC 6376). */
  readonly signs?: boolean;
};

const at = (address: string) => address as EmailAddress;

/** The correspondents who react; everybody else receives mail and says nothing. */
export const CHARACTERS: readonly Character[] = [
  {
    name: "Perpetua Vane",
    address: at("perpetua.vane@vanehouse.example"),
    signs: true,
    reactions: [
      {
        kind: "answers",
        afterSeconds: 8,
        text: "Thank you, that suits me well. The key is with my neighbour at number 9.",
      },
    ],
  },
  {
    name: "Leocadia Thrane",
    address: at("casework@calder.example"),
    reactions: [
      {
        kind: "is-away",
        afterSeconds: 1,
        text: "I am away from my desk and read mail again tomorrow. Urgent matters of listed organs: the duty officer at Calder.",
      },
      {
        kind: "answers",
        afterSeconds: 40,
        text: "Back at my desk. The committee is content with that; please send the drawings when they are ready.",
      },
    ],
  },
  {
    name: "Ambrose Leather",
    address: at("sales@ambroseleather.example"),
    reactions: [
      { kind: "answers", afterSeconds: 20, text: "We can hold the heavier grade for you until the end of the month." },
    ],
  },
  {
    name: "Halloran Valves",
    address: at("counter@halloranvalves.example"),
    reactions: [{ kind: "answers", afterSeconds: 5, text: "From stock, at last year’s price." }],
  },
  {
    name: "Corvin Spelter",
    address: at("corvin@spelterworks.example"),
    reactions: [
      {
        kind: "is-away",
        afterSeconds: 2,
        backInDays: 4,
        text: "I am at the smelter and out of the office. I am back on {day}.",
      },
      {
        kind: "answers",
        afterSeconds: 6,
        nth: 2,
        from: at("corvin.spelter@telephone.example"),
        text: "Forgive me, it went under while I was away. 200 kilograms, the week after next.",
      },
    ],
  },
  {
    name: "Gatehouse of Tollmere",
    address: at("gatehouse@tollmere.example"),
    reactions: [
      {
        kind: "is-away",
        afterSeconds: 2,
        text: "The gatehouse is closed for the season. Letters are read in spring.",
        answersMachines: true,
      },
    ],
  },
  {
    name: "Sexton of Old Wyke",
    address: at("sexton@oldwyke.example"),
    reactions: [{ kind: "bounces", afterSeconds: 2, status: "5.1.1", diagnostic: "550 5.1.1 no such mailbox here" }],
  },
  {
    name: "Otto Quayle",
    address: at("otto@quayle.example"),
    reactions: [
      {
        kind: "answers",
        afterSeconds: 15,
        from: at("otto.quayle@telephone.example"),
        text: "Writing from the telephone: the blower is loud again, come when you can.",
      },
    ],
  },
  {
    name: "Hester Quill",
    address: at("treasurer@stbrannoc.example"),
    reactions: [
      {
        kind: "writes-anew",
        afterSeconds: 25,
        subject: "About the invoice you wrote of",
        text: "I start a new message, as I never find the old ones. It is paid.",
      },
    ],
  },
  {
    name: "Bram Oosterling",
    address: at("bram@veldthall.example"),
    signs: true,
    reactions: [
      {
        kind: "answers",
        afterSeconds: 12,
        style: "html-on-top",
        text: "The lift is yours from eight to ten. The porter knows.",
      },
    ],
  },
  {
    name: "Gunnel Freight",
    address: at("dispatch@gunnelfreight.example"),
    defers: 1,
    reactions: [{ kind: "answers", afterSeconds: 10, text: "Noted; the driver rings an hour before." }],
  },
  {
    name: "Rolling Guild list",
    address: at("rolling@tinguild.example"),
    reactions: [
      {
        kind: "posts-to-list",
        afterSeconds: 18,
        member: "Tin and Spelter Company",
        text: "We melt at 240 and skim twice.",
      },
    ],
  },
  {
    name: "Dean Rook",
    address: at("dean@westmere.example"),
    reactions: [{ kind: "invites", afterSeconds: 14, summary: "Visit of the organ builders", inDays: 9 }],
  },
];
