import type { EmailAddress } from "../../core/kernel/email-address";

/** What somebody outside does with a message that reaches her. Delays are in seconds of the stand-in's own clock. */
export type Reaction =
  | { readonly kind: "answers"; readonly afterSeconds: number; readonly text: string }
  | { readonly kind: "is-away"; readonly afterSeconds: number; readonly text: string }
  | { readonly kind: "bounces"; readonly afterSeconds: number; readonly status: string; readonly diagnostic: string };

/** One correspondent of the stand-in. */
export type Character = {
  readonly name: string;
  readonly address: EmailAddress;
  readonly reactions: readonly Reaction[];
};

const at = (address: string) => address as EmailAddress;

/** The correspondents who react; everybody else receives mail and says nothing. */
export const CHARACTERS: readonly Character[] = [
  {
    name: "Perpetua Vane",
    address: at("perpetua.vane@vanehouse.example"),
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
    name: "Sexton of Old Wyke",
    address: at("sexton@oldwyke.example"),
    reactions: [{ kind: "bounces", afterSeconds: 2, status: "5.1.1", diagnostic: "550 5.1.1 no such mailbox here" }],
  },
];
