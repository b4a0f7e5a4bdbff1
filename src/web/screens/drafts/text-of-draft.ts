import type { Draft } from "../../../core/writing/draft";

/** What a draft says, as the browser reads its HTML: a line for each paragraph. Nothing in it is run or fetched. */
export function textOfDraft({ html }: Pick<Draft, "html">): string {
  const { body } = new DOMParser().parseFromString(html, "text/html");
  const blocks = [...body.querySelectorAll("p, li, h1, h2, h3, pre")];
  const lines = blocks.map((block) => block.textContent.trim());
  return (blocks.length === 0 ? body.textContent.trim() : lines.filter((line) => line !== "").join("\n")) || "…";
}
