import { useEffect, useState } from "react";
import { useParams } from "react-router";

/** What the server made of a date in words; null where it did not answer. */
export type DateAnswered<Answer> = { readonly asked: string; readonly answer: Answer | null };

/**
 * Asks the server for the dates of a query as it is typed; the newest question counts. Nothing is asked while it is null;
 * what was answered last stays until something else was.
 */
export function useDateAnswer<Answer>(query: string | null): DateAnswered<Answer> | null {
  // Not from the tray's data: what a record asks for is asked above all screens.
  const { tray = "" } = useParams();
  const [answered, setAnswered] = useState<DateAnswered<Answer> | null>(null);
  useEffect(() => {
    if (query === null) return;
    const aborter = new AbortController();
    fetch(`/${tray}/dates?${query}`, { signal: aborter.signal })
      .then((response) => (response.ok ? response.json() : Promise.reject(new Error("no dates"))))
      .then((answer: Answer) => setAnswered({ asked: query, answer }))
      .catch(() => !aborter.signal.aborted && setAnswered({ asked: query, answer: null }));
    return () => aborter.abort();
  }, [tray, query]);
  return answered;
}
