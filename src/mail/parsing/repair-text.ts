// The characters of windows-1252 at 0x80 to 0x9f. Node 20 decodes that charset as ISO 8859-1, which has controls there that
// no mail means; what the WHATWG Encoding Standard asks for is put in their place.
const WINDOWS_1252 =
  "\u20ac\u0081\u201a\u0192\u201e\u2026\u2020\u2021\u02c6\u2030\u0160\u2039\u0152\u008d\u017d\u008f\u0090\u2018\u2019\u201c\u201d\u2022\u2013\u2014\u02dc\u2122\u0161\u203a\u0153\u009d\u017e\u0178";

/** Text with the quotes, dashes and other signs of windows-1252 where decoding left control characters. */
export function repairText(text: string): string {
  return text.replace(/[\u0080-\u009f]/g, (control) => WINDOWS_1252.charAt(control.charCodeAt(0) - 0x80));
}
