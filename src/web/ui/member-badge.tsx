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
export function MemberBadge({ initials, name, own = false, isCovered = false }: StampProps) {
  const look = initials === null ? "stamp-nobody" : own ? "stamp-own" : isCovered ? "stamp-covered" : "";
  return (
    <span
      {...(name === "" ? { "aria-hidden": true } : { role: "img", title: name })}
      className={look === "" ? "stamp" : `stamp ${look}`}
    >
      {initials ?? "–"}
    </span>
  );
}
