import type { Contact } from "../../../core/contacts/contact";
import { commonTexts } from "../../../texts/en/common";
import { officeTexts } from "../../../texts/en/office";
import { Field } from "../../ui/field";
import { useSay } from "../../ui/texts/use-say";
import { CategoryChoice } from "../categories/category-choice";
import { NoteField } from "../forms/note-field";
import { SideForm } from "../forms/side-form";
import { useFormAction } from "../forms/use-form-action";
import type { ContactsOutcome } from "./contacts-outcome";

type ContactFormProps = {
  readonly contact: Contact | null;
  /** What is known of a new one. */
  readonly given: { readonly name: string; readonly address: string };
  readonly onClose: () => void;
};

/** A new contact, or one that is changed. */
export function ContactForm({ contact, given, onClose }: ContactFormProps) {
  const say = useSay(officeTexts, commonTexts);
  const step = useFormAction<ContactsOutcome>("contacts", onClose);
  const problems = step.refused?.problems ?? {};
  return (
    <SideForm
      name={contact === null ? say("office.newContact") : say("common.changeOf", { name: contact.name })}
      step={step}
      submits={say("office.saveContact")}
      onClose={onClose}
    >
      <input type="hidden" name="do" value="keep" />
      <input type="hidden" name="id" value={contact?.id ?? ""} />
      <Field
        label={say("common.name")}
        name="name"
        defaultValue={contact?.name ?? given.name}
        problem={problems.name}
        autoFocus
        autoComplete="off"
      />
      <Field
        label={say("office.organisation")}
        name="organisation"
        defaultValue={contact?.organisation ?? ""}
        problem={problems.organisation}
        autoComplete="off"
      />
      <Field
        label={say("office.addresses")}
        name="addresses"
        defaultValue={contact?.addresses.join(", ") ?? given.address}
        placeholder={say("office.oneOrMoreWithCommas")}
        problem={problems.addresses}
        autoComplete="off"
      />
      <Field
        label={say("office.telephone")}
        name="phone"
        type="tel"
        defaultValue={contact?.phone ?? ""}
        problem={problems.phone}
        autoComplete="off"
      />
      <NoteField note={contact?.note ?? ""} rows={3} problem={problems.note} />
      <CategoryChoice label={say("common.categories")} chosen={contact?.categoryIds ?? []} />
    </SideForm>
  );
}
