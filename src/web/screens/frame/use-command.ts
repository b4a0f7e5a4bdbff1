import { useCallback, useEffect } from "react";
import { v4 as uuid } from "uuid";

type Sent = { readonly id: string; readonly content: string };

/** The address of something that is to be done once, however often it arrives. */
export const onceAt = (action: string, command: string) => `${action}?command=${command}`;

/** An id for something that is to be done once. */
export const newCommand = (): string => uuid();

const keyOf = (action: string) => `sent ${action}`;

function lastSent(action: string): Sent | null {
  try {
    return JSON.parse(sessionStorage.getItem(keyOf(action)) ?? "null");
  } catch {
    return null;
  }
}

/**
 * Ids for what is sent to an address: the same for the same content until the server has answered, so that what is sent
 * again after its answer got lost is not done twice, through a reload as well.
 */
export function useCommand(action: string) {
  /** Where to send this content. */
  const at = useCallback(
    (fields: object): string => {
      const content = JSON.stringify(fields instanceof FormData ? [...fields] : Object.entries(fields));
      const last = lastSent(action);
      const sent = last?.content === content ? last : { id: newCommand(), content };
      try {
        sessionStorage.setItem(keyOf(action), JSON.stringify(sent));
      } catch {
        // Without room for it in the browser it is as it was before: sent again, it may be done twice.
      }
      return onceAt(action, sent.id);
    },
    [action],
  );
  /** The server has answered: whatever is sent next is something new. */
  const isAnswered = useCallback(() => sessionStorage.removeItem(keyOf(action)), [action]);
  return { at, isAnswered };
}

/** Calls back once for each outcome that is an answer of the server, and not the news that there is none. */
export function useAnswered(
  outcome: { readonly ok: boolean | "unreachable"; readonly unreachable?: boolean } | undefined,
  isAnswered: () => void,
): void {
  useEffect(() => {
    if (outcome !== undefined && outcome.ok !== "unreachable" && outcome.unreachable !== true) isAnswered();
  }, [outcome, isAnswered]);
}
