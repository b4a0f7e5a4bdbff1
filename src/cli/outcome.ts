/** The tool understood and did not do it: exit code 1. */
export class Refused extends Error {}

/** The tool was called wrongly: exit code 2. */
export class Usage extends Error {}
