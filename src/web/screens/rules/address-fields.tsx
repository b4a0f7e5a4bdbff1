import type { EmailAddress } from "../../../core/kernel/email-address";
import { type CategoryId, type ContactId, trustedId } from "../../../core/kernel/ids";
import { ADDRESS_PLACES, type AddressMatch, type AddressPlace } from "../../../core/rules/condition";
import { rulesTexts } from "../../../texts/en/rules";
import { Select } from "../../ui/select";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";
import { ChosenOnes } from "./chosen-ones";
import type { FieldsProps } from "./fields-props";
import { ValuesField } from "./values-field";

type Whom = "written" | "category" | Exclude<AddressMatch["kind"], "address" | "domain" | "contact-category">;
const WHOM: readonly Whom[] = ["written", "contact", "category", "organisation", "colleague", "known", "unknown"];

/** Whom a message is from or to: addresses and domains, or people by what is known of them. */
export function AddressFields({ test, hasProblem, onChange }: FieldsProps<"address">) {
  const say = useSay(rulesTexts);
  const whom = whomOf(test.of[0]);
  const put = (of: readonly AddressMatch[]) => onChange({ ...test, of });
  return (
    <>
      <Select
        label={say("rules.where")}
        value={test.where}
        choices={ADDRESS_PLACES.map((where) => [where, say("rules.addressPlace", { where })] as const)}
        onChoose={(where) => onChange({ ...test, where: where as AddressPlace })}
      />
      <Select
        label={say("rules.whom")}
        value={whom}
        choices={WHOM.map((one) => [one, say("rules.whomKind", { one })] as const)}
        onChoose={(one) => put(beginning(one as Whom))}
      />
      <Values whom={whom} of={test.of} hasProblem={hasProblem} onOf={put} />
    </>
  );
}

function whomOf(first: AddressMatch | undefined): Whom {
  if (first === undefined || first.kind === "address" || first.kind === "domain") return "written";
  return first.kind === "contact-category" ? "category" : first.kind;
}

// What is chosen has to be named; whoever is known or not needs no name.
function beginning(whom: Whom): AddressMatch[] {
  switch (whom) {
    case "colleague":
    case "known":
    case "unknown":
      return [{ kind: whom }];
    case "contact":
      return [{ kind: "contact", contactId: trustedId<ContactId>("") }];
    case "category":
      return [{ kind: "contact-category", categoryId: trustedId<CategoryId>("") }];
    case "organisation":
      return [{ kind: "organisation", name: "" }];
    case "written":
      return [];
  }
}

type ValuesProps = {
  readonly whom: Whom;
  readonly of: readonly AddressMatch[];
  readonly hasProblem: boolean;
  readonly onOf: (of: readonly AddressMatch[]) => void;
};

function Values({ whom, of, hasProblem, onOf }: ValuesProps) {
  const say = useSay(rulesTexts);
  const { categories } = useTray();
  const texts = of.map(textOf).filter((text) => text !== "");
  // One that names nobody yet keeps its kind.
  const named = (make: (text: string) => AddressMatch) => (values: readonly string[]) =>
    onOf(values.length === 0 ? beginning(whom) : values.map(make));
  const field = { values: texts, problem: hasProblem };
  switch (whom) {
    case "written":
      return (
        <ValuesField
          {...field}
          label={say("rules.addresses")}
          placeholder={say("rules.addressOrDomain")}
          endsAt={/[,;\s]/}
          onValues={named(writtenAddress)}
        />
      );
    case "contact":
      return (
        <ValuesField
          {...field}
          label={say("rules.contacts")}
          placeholder={say("rules.nameOrAddress")}
          onValues={named((text) => ({ kind: "contact", contactId: trustedId<ContactId>(text) }))}
        />
      );
    case "organisation":
      return (
        <ValuesField
          {...field}
          label={say("rules.organisations")}
          placeholder={say("rules.organisationName")}
          onValues={named((name) => ({ kind: "organisation", name }))}
        />
      );
    case "category":
      return (
        <ChosenOnes
          label={say("rules.kindCategory")}
          choices={categories.map(({ id, path }) => [id, path.join(" › ")] as const)}
          chosen={texts}
          problem={hasProblem}
          onChosen={named((id) => ({ kind: "contact-category", categoryId: trustedId<CategoryId>(id) }))}
        />
      );
    default:
      return null;
  }
}

function textOf(match: AddressMatch): string {
  switch (match.kind) {
    case "address":
      return match.address;
    case "domain":
      return `@${match.domain}`;
    case "contact":
      return match.contactId;
    case "contact-category":
      return match.categoryId;
    case "organisation":
      return match.name;
    default:
      return "";
  }
}

function writtenAddress(text: string): AddressMatch {
  const written = text.toLowerCase();
  return written.startsWith("@")
    ? { kind: "domain", domain: written.slice(1) }
    : { kind: "address", address: written as EmailAddress };
}
