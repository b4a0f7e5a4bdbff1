type MarkedTextProps = {
  readonly pieces: readonly { readonly text: string; readonly hit: boolean }[];
  /** What stands there where there is none. */
  readonly empty?: string;
};

/** A text in which what was looked for is marked. */
export function MarkedText({ pieces, empty = "" }: MarkedTextProps) {
  if (pieces.length === 0) return <>{empty}</>;
  return pieces.map(({ text, hit }, at) => {
    const key = `${at} ${text}`;
    return hit ? (
      <mark key={key} className="bg-act-soft text-inherit">
        {text}
      </mark>
    ) : (
      <span key={key}>{text}</span>
    );
  });
}
