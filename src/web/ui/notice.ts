export type NoticeExtra = {
  readonly description?: string;
  readonly action?: { readonly label: string; readonly onClick: () => void };
  /** How long it stays, in milliseconds. */
  readonly duration?: number;
};

/** A short notice that stands at the edge for a while. */
export type Notice = NoticeExtra & {
  readonly key: number;
  readonly kind: "done" | "problem";
  readonly words: string;
};

export type NoticeListProps = { readonly notices: readonly Notice[]; readonly onClose: (key: number) => void };
