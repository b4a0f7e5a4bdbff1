/** A path of this application to go on to after signing in; "/" for anything that leads elsewhere. */
export function safeNext(next: string | null): string {
  if (next === null || !next.startsWith("/") || next.startsWith("//") || next.includes("\\")) return "/";
  return next;
}
