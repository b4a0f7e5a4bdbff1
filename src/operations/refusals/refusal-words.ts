import type { Said } from "../../texts/said";

/** By kind: a refusal as the person who tried reads it, what is the matter and how things are now. */
export type RefusalWords<Refusals extends { readonly kind: string }> = {
  readonly [Kind in Refusals["kind"]]: (refusal: Extract<Refusals, { readonly kind: Kind }>) => Said;
};
