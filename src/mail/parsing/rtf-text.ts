import { decodeText } from "./decode-text";

/** What an RTF says: HTML where it was made of HTML ([MS-OXRTFEX]), otherwise plain text. */
export type RtfText = { readonly isHtml: boolean; readonly text: string };

// Groups that hold no text of the letter.
const SILENT = new Set([
  "fonttbl",
  "colortbl",
  "stylesheet",
  "info",
  "pict",
  "object",
  "themedata",
  "listtable",
  "generator",
]);
const BREAKS: Readonly<Record<string, string>> = {
  par: "\n",
  line: "\n",
  sect: "\n",
  page: "\n",
  row: "\n",
  cell: "\t",
  tab: "\t",
};
const SIGNS: Readonly<Record<string, string>> = {
  lquote: "‘",
  rquote: "’",
  ldblquote: "“",
  rdblquote: "”",
  endash: "–",
  emdash: "—",
  bullet: "•",
  "~": "\u00a0",
  "\\": "\\",
  "{": "{",
  "}": "}",
};
const TOKEN = /\\'([0-9a-f]{2})|\\u(-?\d{1,6}) ?|\\([a-z]{1,32})(-?\d{1,10})? ?|\\([^a-z'])|([{}])|([^\\{}\r\n]+)/gi;
const MAX_GROUPS = 1_000;

type Group = {
  readonly isSilent: boolean;
  readonly isRtfOnly: boolean;
  readonly isTag: boolean;
  readonly skips: number;
};

type State = {
  readonly isHtml: boolean;
  readonly charset: string;
  readonly pieces: string[];
  readonly groups: Group[];
  group: Group;
  /** Bytes of its charset that are not yet text: a sign may take more than one. */
  bytes: number[];
  /** How many signs stand in for one that was said in Unicode. */
  skip: number;
};

/** Reads RTF as text. It never throws. */
export function textOfRtf(rtf: Buffer): RtfText {
  const source = rtf.toString("latin1");
  const beginning = source.slice(0, 2_000);
  const isHtml = beginning.includes("\\fromhtml1");
  const state: State = {
    isHtml,
    charset: `windows-${/\\ansicpg(\d{3,4})/.exec(beginning)?.[1] ?? "1252"}`,
    pieces: [],
    groups: [],
    group: { isSilent: false, isRtfOnly: false, isTag: false, skips: 1 },
    bytes: [],
    skip: 0,
  };
  for (const token of source.matchAll(TOKEN)) {
    if (state.groups.length > MAX_GROUPS) break;
    read(state, token);
  }
  flush(state);
  return { isHtml, text: state.pieces.join("").trim() };
}

function read(state: State, [, hex, unicode, word, number, sign, brace, text]: RegExpExecArray): void {
  if (hex !== undefined) readByte(state, Number.parseInt(hex, 16));
  else if (unicode !== undefined) {
    say(state, String.fromCharCode((Number(unicode) + 0x10000) % 0x10000));
    state.skip = state.group.skips;
  } else if (brace !== undefined) {
    flush(state);
    if (brace === "{") state.groups.push(state.group);
    else state.group = state.groups.pop() ?? state.group;
  } else if (word !== undefined) readWord(state, word, number);
  else if (sign === "*") state.group = { ...state.group, isSilent: true };
  else {
    say(state, sign === undefined ? (text ?? "").slice(state.skip) : (SIGNS[sign] ?? ""));
    state.skip = 0;
  }
}

function readByte(state: State, byte: number): void {
  if (state.skip > 0) state.skip -= 1;
  else if (!isMute(state)) state.bytes.push(byte);
}

function readWord(state: State, word: string, number: string | undefined): void {
  const { group, isHtml } = state;
  if (word === "htmltag") state.group = { ...group, isTag: true };
  else if (word === "htmlrtf") state.group = { ...group, isRtfOnly: number !== "0" };
  else if (word === "uc") state.group = { ...group, skips: Number(number ?? "1") };
  else if (SILENT.has(word)) state.group = { ...group, isSilent: true };
  else {
    const said = isHtml && word === "par" ? "\r\n" : (BREAKS[word] ?? SIGNS[word]);
    if (said !== undefined) say(state, said);
  }
}

function isMute({ isHtml, group: { isSilent, isRtfOnly, isTag } }: State): boolean {
  return isHtml ? isRtfOnly || (isSilent && !isTag) : isSilent;
}

function say(state: State, text: string): void {
  flush(state);
  if (!isMute(state)) state.pieces.push(text);
}

function flush(state: State): void {
  if (state.bytes.length > 0) state.pieces.push(decodeText(Uint8Array.from(state.bytes), state.charset));
  state.bytes = [];
}
