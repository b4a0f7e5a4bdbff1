/** The field of a form that carries decisions, as the browser posts them: JSON of the core's own type. */
export const posted = (...decisions: readonly object[]) => ({ decisions: JSON.stringify(decisions) });
