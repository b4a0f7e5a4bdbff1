let known: Promise<ReadonlySet<string>> | null = null;

/** The passwords that are tried first, in lower case (a list of leaked ones; loaded with the first question, as it is large). */
export function commonPasswords(): Promise<ReadonlySet<string>> {
  known ??= import("@zxcvbn-ts/language-common").then(
    ({ dictionary }) => new Set(dictionary.passwords.map((password) => String(password).toLowerCase())),
  );
  return known;
}
