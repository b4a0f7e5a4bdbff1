import { commonTexts } from "../../texts/en/common";
import { peopleTexts } from "../../texts/en/people";
import { type Said, saidOf } from "../../texts/said";

const said = saidOf(peopleTexts, commonTexts);
/** The fewest and most characters of a password. Hashing costs time by length as well. */
export const PASSWORD_LENGTHS = { least: 10, most: 1_000 } as const;

/**
 * What is wrong with a password that is chosen; null where nothing is (NIST SP 800-63B 5.1.1.2: a least length, no
 * rules of composition, and none that is among the commonest or made of one's own names). `common` are those, in lower case.
 */
export function passwordProblem(password: string, names: readonly string[], common: ReadonlySet<string>): Said | null {
  const { least, most } = PASSWORD_LENGTHS;
  const plain = password.trim().toLowerCase();
  if (plain === "") return said("people.chooseAPasswordSpacesAlone");
  if (plain.length < least) return said("people.atLeastCharactersSpacesAt", { least });
  if (password.length > most) return said("common.atMostCharacters", { most });
  if (common.has(plain) || new Set(plain).size < 4) return said("people.thisOneIsAmongThe");
  const own = names.map((name) => name.toLowerCase().replace(/[\d\s._-]/g, "")).filter((name) => name.length >= 4);
  if (own.some((name) => plain.replace(/[\d\s._-]/g, "") === name)) return said("people.yourOwnNameIsThe");
  return null;
}
