// The pieces of evidence by which each kind of decision is judged.

export type RecordPiece =
  | "person"
  | "domain"
  | "last"
  | "lastButOne"
  | "code"
  | "belongs"
  | "words"
  | "ownWords"
  | "category"
  | "title"
  | "none";

export type CategoryPiece = "person" | "domain" | "list" | "words" | "record" | "usual" | "bias";

export type OwnerPiece = "either" | "tenure" | "person" | "last" | "usual" | "none";

export type SettlePiece = "person" | "list" | "words" | "usual";
