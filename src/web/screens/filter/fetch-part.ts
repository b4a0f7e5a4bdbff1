import { filterParams } from "../../../core/lists/filter";
import type { ListStart } from "../../server/list/list-view.server";

/** A part of an open list from the server; throws when it does not come. */
export async function fetchPart<T>(
  slug: string,
  list: Pick<ListStart, "scope" | "filter">,
  part: string,
  params: URLSearchParams,
): Promise<T> {
  const query = new URLSearchParams([...filterParams(list.filter), ...params]);
  const response = await fetch(`/${slug}/lists/${list.scope}/${part}?${query}`);
  if (!response.ok || response.redirected) throw new Error(`the server answered ${response.status}`);
  return response.json();
}
