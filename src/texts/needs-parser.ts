// Choices, formats, marks and braces that are said. What has only names of values in it needs none of the parser.
const SYNTAX = /\{\w+,|<|'[{}']/;

/** Whether a message has more in it than words and names of values. */
export function needsParser(message: string): boolean {
  return SYNTAX.test(message);
}
