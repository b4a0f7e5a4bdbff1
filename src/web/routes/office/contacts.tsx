import { data, Form, useSearchParams, useSubmit } from "react-router";
import { type CategoryId, type ContactId, readId } from "../../../core/kernel/ids";
import {
  type ContactRefusal,
  contactIn,
  dropContact,
  editContact,
  getContacts,
} from "../../../operations/index.server";
import { officeTexts } from "../../../texts/en/office";
import { useTray } from "../../screens/frame/tray-data";
import { ContactForm } from "../../screens/office/contact-form";
import { ContactList } from "../../screens/office/contact-list";
import type { ContactsOutcome } from "../../screens/office/contacts-outcome";
import { depsContext, grantContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { saidByField } from "../../server/base/say.server";
import { readContactStep } from "../../server/office/contact-form.server";
import { Button } from "../../ui/button";
import { Page } from "../../ui/page";
import { Select } from "../../ui/select";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/contacts";

const MAX_QUERY_CHARACTERS = 200;

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, officeTexts, "office.contacts");
}

export async function loader({ request, context }: Route.LoaderArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const query = new URL(request.url).searchParams;
  const text = (query.get("q") ?? "").trim().slice(0, MAX_QUERY_CHARACTERS);
  const category = readId<CategoryId>(query.get("category") ?? "");
  const edited = readId<ContactId>(query.get("edit") ?? "");
  const [contacts, contact] = await Promise.all([
    getContacts(deps, grant, { text, categoryId: category.ok ? category.value : null }),
    edited.ok ? contactIn(deps, grant, edited.value) : null,
  ]);
  return { contacts, contact, text };
}

export async function action({ request, context }: Route.ActionArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const step = readContactStep(await readForm(request));
  if (!step.ok) return data<ContactsOutcome>({ ok: false, problems: {}, problem: step.error }, { status: 400 });
  if (step.value.do === "drop") {
    const dropped = await dropContact(deps, grant, step.value.id);
    if (dropped.ok) return data<ContactsOutcome>({ ok: true, said: "", dropped: dropped.value });
    return refused(dropped.error);
  }
  const kept = await editContact(deps, grant, step.value.id, step.value.draft);
  if (kept.ok) return data<ContactsOutcome>({ ok: true, said: `${kept.value.name} saved`, dropped: null });
  return refused(kept.error);
}

function refused(error: ContactRefusal) {
  const problems = error.kind === "problems" ? saidByField(error.problems) : {};
  const problem = error.kind === "problems" ? null : refusalSaid(error);
  return data<ContactsOutcome>({ ok: false, problems, problem }, { status: 409 });
}

/** The people outside whom a tray knows: who they are, how they are reached, and what they are to us. */
export default function Contacts({ loaderData: { contacts, contact, text } }: Route.ComponentProps) {
  const say = useSay(officeTexts);
  const { categories, mayDecide } = useTray();
  const [params, setParams] = useSearchParams();
  const submit = useSubmit();
  const set = (name: string, value: string | null) =>
    setParams(
      (before) => {
        const next = new URLSearchParams(before);
        if (value === null || value === "") next.delete(name);
        else next.set(name, value);
        return next;
      },
      { replace: true },
    );
  const isNew = params.get("edit") === "new";
  const close = () => set("edit", null);
  return (
    <Page
      title={say("office.contacts")}
      beside={
        <>
          <Form
            role="search"
            onChange={(event) => void submit(event.currentTarget, { replace: true })}
            className="min-w-0 sm:ml-3"
          >
            <input
              type="search"
              name="q"
              aria-label={say("office.findAContact")}
              placeholder={say("office.nameOrganisationOrAddress")}
              defaultValue={text}
              className="h-8 w-80 max-w-full rounded-control border border-rule bg-paper px-2.5"
            />
          </Form>
          <Select
            label={say("office.category")}
            value={params.get("category") ?? ""}
            choices={[
              ["", say("office.anyCategory")],
              ...categories.map(({ id, path }) => [id, path.join(" › ")] as const),
            ]}
            onChoose={(id) => set("category", id)}
          />
          {mayDecide && (
            <Button className="ml-auto" onClick={() => set("edit", "new")}>
              {say("office.newContact")}
            </Button>
          )}
        </>
      }
    >
      <div className="grid gap-x-8 gap-y-6 px-5 py-4 lg:grid-cols-[minmax(0,1fr)_380px]">
        <ContactList
          contacts={contacts}
          isFiltered={text !== "" || params.has("category")}
          onEdit={(id) => set("edit", id)}
        />
        {mayDecide && (isNew || contact !== null) && (
          <ContactForm
            key={contact?.id ?? ""}
            contact={contact}
            given={{ name: params.get("name") ?? "", address: params.get("address") ?? "" }}
            onClose={close}
          />
        )}
      </div>
    </Page>
  );
}
