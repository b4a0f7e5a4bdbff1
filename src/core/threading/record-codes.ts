const CODE = /\b[A-Z]{1,4}(?:-\d{1,6}){1,3}\b/g;
const MAX_CODES = 10;

/** Where in a text what may be a reference code stands. */
export function recordCodePlaces(
  text: string,
): { readonly code: string; readonly from: number; readonly to: number }[] {
  return [...text.matchAll(CODE)].map(({ 0: code, index }) => ({ code, from: index, to: index + code.length }));
}

/** What may be reference codes of records in a text, such as P-26-012: a further link for mail that lost its references. */
export function recordCodesIn(text: string): string[] {
  return [...new Set(text.slice(0, 1_000).match(CODE) ?? [])].slice(0, MAX_CODES);
}
