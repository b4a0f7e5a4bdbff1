/** The fewest and most characters of a password. Hashing costs time by length as well. */
export const PASSWORD_LENGTHS = { least: 10, most: 1_000 } as const;

/**
 * What is wrong with a password that is chosen, in words; null where nothing is (NIST SP 800-63B 5.1.1.2: a least length, no
 * rules of composition, and none that is among the commonest or made of one's own names). `common` are those, in lower case.
 */
export function passwordProblem(
  password: string,
  names: readonly string[],
  common: ReadonlySet<string>,
): string | null {
  const { least, most } = PASSWORD_LENGTHS;
  const plain = password.trim().toLowerCase();
  if (plain === "") return "Choose a password; spaces alone are none.";
  if (plain.length < least) return `At least ${least} characters, spaces at its ends not counted.`;
  if (password.length > most) return `At most ${most} characters.`;
  if (common.has(plain) || new Set(plain).size < 4)
    return "This one is among the first that are tried; choose another.";
  const own = names.map((name) => name.toLowerCase().replace(/[\d\s._-]/g, "")).filter((name) => name.length >= 4);
  if (own.some((name) => plain.replace(/[\d\s._-]/g, "") === name)) return "Your own name is the first that is tried.";
  return null;
}
