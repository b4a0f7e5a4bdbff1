import { useId } from "react";
import type { Contact } from "../../core/contacts/contact";
import { Button } from "../ui/button";
import { Field } from "../ui/field";
import { CategoryChoice } from "./category-choice";
import type { ContactsOutcome } from "./contacts-outcome";
import { useStep } from "./use-step";

type ContactFormProps = {
  readonly contact: Contact | null;
  /** What is known of a new one. */
  readonly given: { readonly name: string; readonly address: string };
  readonly onClose: () => void;
};

/** A new contact, or one that is changed. */
export function ContactForm({ contact, given, onClose }: ContactFormProps) {
  const { Form, action, refused, isBusy } = useStep<ContactsOutcome>("contacts", onClose);
  const problems = refused?.problems ?? {};
  const noteId = useId();
  return (
    <Form
      method="post"
      action={action}
      noValidate
      aria-label={contact === null ? "New contact" : `Change ${contact.name}`}
      className="space-y-2.5 self-start rounded-sheet border border-rule p-3.5"
    >
      <input type="hidden" name="do" value="keep" />
      <input type="hidden" name="id" value={contact?.id ?? ""} />
      <Field
        label="Name"
        name="name"
        defaultValue={contact?.name ?? given.name}
        problem={problems.name}
        autoFocus
        autoComplete="off"
      />
      <Field
        label="Organisation"
        name="organisation"
        defaultValue={contact?.organisation ?? ""}
        problem={problems.organisation}
        autoComplete="off"
      />
      <Field
        label="Addresses"
        name="addresses"
        defaultValue={contact?.addresses.join(", ") ?? given.address}
        placeholder="one or more, with commas between"
        problem={problems.addresses}
        autoComplete="off"
      />
      <Field
        label="Telephone"
        name="phone"
        type="tel"
        defaultValue={contact?.phone ?? ""}
        problem={problems.phone}
        autoComplete="off"
      />
      <div>
        <label htmlFor={noteId} className="mb-1 block text-sm font-semibold">
          Good to know
        </label>
        <textarea
          id={noteId}
          name="note"
          rows={3}
          defaultValue={contact?.note ?? ""}
          aria-invalid={problems.note !== undefined}
          aria-describedby={problems.note === undefined ? undefined : `${noteId}-problem`}
          className="w-full rounded-control border border-rule bg-paper px-2.5 py-1.5"
        />
        {problems.note !== undefined && (
          <p id={`${noteId}-problem`} className="text-sm text-late">
            {problems.note}
          </p>
        )}
      </div>
      <CategoryChoice label="Categories" chosen={contact?.categoryIds ?? []} />
      {refused?.problem != null && (
        <p role="alert" className="text-late">
          {refused.problem}
        </p>
      )}
      <div className="flex justify-end gap-2">
        <Button look="quiet" onClick={onClose}>
          Cancel
        </Button>
        <Button look="filled" type="submit" disabled={isBusy}>
          Keep contact
        </Button>
      </div>
    </Form>
  );
}
