/** What kept a server from starting, in words, with what to do when it is a port. */
export function portProblem(problem: unknown): string {
  if (!(problem instanceof Error)) return String(problem);
  const { code, port } = problem as { code?: string; port?: number };
  if (code === "EADDRINUSE") return `port ${port} is taken; stop what uses it or set another (HTTP_PORT, MAIL_PORT).`;
  if (code === "EACCES") return `port ${port} is not for this user; set one above 1023 (HTTP_PORT, MAIL_PORT).`;
  return problem.message;
}
