/** A file with its bytes, as somebody brings it. */
export type NamedFile = { readonly name: string; readonly contentType: string; readonly content: Uint8Array };
