import { Form, Link, useNavigation } from "react-router";
import { Button } from "../../ui/button";

type RecordLookProps = {
  readonly code: string;
  /** What was looked for. */
  readonly text: string;
  /** The part of the page that is looked through, and what stands in the empty field. */
  readonly part: "mail" | "documents";
  readonly hint: string;
};

/** Looks for words in a part of a record. */
export function RecordLook({ code, text, part, hint }: RecordLookProps) {
  const isLoading = useNavigation().state === "loading";
  return (
    <Form
      role="search"
      aria-label={`Search in ${code}`}
      className="flex items-center gap-2 border-b border-hair px-5 py-2"
    >
      {part !== "mail" && <input type="hidden" name="part" value={part} />}
      <input
        key={text}
        type="search"
        name="text"
        defaultValue={text}
        aria-label={`Search for words in ${code}`}
        placeholder={hint}
        className="h-8 w-72 max-w-full rounded-control border border-rule bg-paper px-2.5 placeholder:text-soft"
      />
      <Button type="submit">Search</Button>
      {text !== "" && (
        <Link to={part === "mail" ? "?" : `?part=${part}`} className="text-act hover:underline">
          show everything
        </Link>
      )}
      {isLoading && <span className="text-sm text-soft">Searching…</span>}
    </Form>
  );
}
