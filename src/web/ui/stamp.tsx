type StampProps = {
  readonly initials: string | null;
  readonly name: string;
  readonly own?: boolean;
  /** Of somebody for whom one stands in. */
  readonly isCovered?: boolean;
};

/**
 * The owner's stamp: outlined initials, filled for oneself, with a double edge where one stands in for her, dashed for
 * nobody. With an empty name it is an ornament.
 */
export function Stamp({ initials, name, own = false, isCovered = false }: StampProps) {
  const look =
    initials === null
      ? "border-dashed border-faint text-soft"
      : own
        ? "border-ink bg-ink text-paper"
        : isCovered
          ? "border-ink text-ink outline-1 outline-offset-1 outline-ink outline-solid"
          : "border-ink text-ink";
  return (
    <span
      {...(name === "" ? { "aria-hidden": true } : { role: "img", "aria-label": name, title: name })}
      className={`inline-flex h-[19px] min-w-[26px] shrink-0 items-center justify-center rounded-control border px-1 text-[11px] leading-none font-bold ${look}`}
    >
      {initials ?? "–"}
    </span>
  );
}
