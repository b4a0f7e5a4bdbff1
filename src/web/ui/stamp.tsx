/** The owner's stamp: outlined initials, filled for oneself, dashed for nobody. With an empty name it is an ornament. */
export function Stamp({ initials, name, own = false }: { initials: string | null; name: string; own?: boolean }) {
  const look =
    initials === null
      ? "border-dashed border-faint text-soft"
      : own
        ? "border-ink bg-ink text-paper"
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
