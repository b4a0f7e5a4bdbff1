import { Form, Link, useNavigation } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { recordsTexts } from "../../../texts/en/records";
import { Button } from "../../ui/button";
import { useSay } from "../../ui/texts/use-say";

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
  const say = useSay(recordsTexts, commonTexts);
  const isLoading = useNavigation().state === "loading";
  return (
    <Form
      role="search"
      aria-label={say("records.searchIn", { code })}
      className="flex items-center gap-2 border-b border-hair px-5 py-2"
    >
      {part !== "mail" && <input type="hidden" name="part" value={part} />}
      <input
        key={text}
        type="search"
        name="text"
        defaultValue={text}
        aria-label={say("records.searchForWordsIn", { code })}
        placeholder={hint}
        className="h-8 w-72 max-w-full rounded-control border border-rule bg-paper px-2.5 placeholder:text-soft"
      />
      <Button type="submit">{say("common.search")}</Button>
      {text !== "" && (
        <Link to={part === "mail" ? "?" : `?part=${part}`} className="text-act hover:underline">
          {say("records.showEverything")}
        </Link>
      )}
      {isLoading && <span className="text-sm text-soft">{say("common.searching")}</span>}
    </Form>
  );
}
