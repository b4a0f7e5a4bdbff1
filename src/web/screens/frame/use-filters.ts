import { useSearchParams } from "react-router";

/** What a log is filtered by, kept in the URL; another choice begins with the newest again. */
export function useFilters(): {
  readonly params: URLSearchParams;
  readonly choose: (name: string, value: string) => void;
} {
  const [params, setParams] = useSearchParams();
  const choose = (name: string, value: string) => {
    const next = new URLSearchParams(params);
    next.delete("before");
    if (value === "") next.delete(name);
    else next.set(name, value);
    setParams(next);
  };
  return { params, choose };
}
