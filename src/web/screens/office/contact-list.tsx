import { Link } from "react-router";
import type { Contact } from "../../../core/contacts/contact";
import { commonTexts } from "../../../texts/en/common";
import { officeTexts } from "../../../texts/en/office";
import { Button } from "../../ui/button";
import { CategoryTab } from "../../ui/category-tab";
import { notice } from "../../ui/notices";
import { useSay } from "../../ui/texts/use-say";
import { useFormAction } from "../forms/use-form-action";
import { useTray } from "../frame/tray-data";
import type { ContactsOutcome } from "./contacts-outcome";

type ContactListProps = {
  readonly contacts: readonly Contact[];
  readonly isFiltered: boolean;
  readonly onEdit: (id: string | null) => void;
};

/** Contacts by name; each leads to what she wrote. */
export function ContactList({ contacts, isFiltered, onEdit }: ContactListProps) {
  const say = useSay(officeTexts, commonTexts);
  const { tray, categories, mayDecide } = useTray();
  const { post, refused } = useFormAction<ContactsOutcome>("contacts", ({ dropped }) => {
    if (dropped === null) return;
    notice(say("office.isNoContactAnyMore", { name: dropped.name }), {
      action: { label: say("common.undo"), onClick: () => post(keeping(dropped)) },
    });
  });
  if (contacts.length === 0) {
    return (
      <p className="max-w-prose text-soft">
        {isFiltered ? say("office.noContactsMatch") : say("office.noContactsYetAContact")}
      </p>
    );
  }
  return (
    <div className="min-w-0">
      {refused !== null && (
        <p role="alert" className="pb-2 text-late">
          {refused.problem ?? Object.values(refused.problems)[0]}
        </p>
      )}
      <ul aria-label={say("office.contacts")} className="border-t border-rule">
        {contacts.map(({ id, name, organisation, phone, addresses, categoryIds }) => (
          <li
            key={id}
            className="grid grid-cols-[minmax(0,1fr)_auto] gap-x-3 border-b border-hair py-1.5 sm:grid-cols-[200px_minmax(0,1fr)_auto]"
          >
            <span className="min-w-0">
              <span className="block truncate font-semibold">{name}</span>
              <span className="block truncate text-sm text-soft">{organisation}</span>
            </span>
            <span className="min-w-0 max-sm:col-span-2 max-sm:row-start-2">
              <span className="block truncate">
                {addresses.map((address, at) => (
                  <span key={address}>
                    {at > 0 && ", "}
                    <Link
                      to={`/${tray.slug}/open?person=${encodeURIComponent(address)}`}
                      className="hover:text-act hover:underline"
                    >
                      {address}
                    </Link>
                  </span>
                ))}
              </span>
              <span className="flex flex-wrap items-center gap-1.5 text-sm text-soft">
                {phone}
                {categories
                  .filter((category) => categoryIds.includes(category.id))
                  .map(({ id: given, code, name: called, ink, retired }) => (
                    <CategoryTab key={given} code={code} name={called} ink={ink} retired={retired} />
                  ))}
              </span>
            </span>
            {mayDecide && (
              <span className="flex items-start">
                <Button
                  look="quiet"
                  aria-label={say("common.changeOf", { name })}
                  onClick={() => onEdit(id)}
                  className="px-2"
                >
                  {say("common.change")}
                </Button>
                <Button
                  look="quiet"
                  aria-label={say("common.removeOf", { name })}
                  onClick={() => {
                    onEdit(null);
                    post({ do: "drop", id });
                  }}
                  className="px-2"
                >
                  {say("common.remove")}
                </Button>
              </span>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}

function keeping({ id, name, organisation, phone, note, addresses, categoryIds }: Contact): FormData {
  const form = new FormData();
  const fields = { do: "keep", id, name, organisation, phone, note, addresses: addresses.join(", ") };
  for (const [field, value] of Object.entries(fields)) form.set(field, value);
  for (const category of categoryIds) form.append("categories", category);
  return form;
}
