import { useRef } from "react";
import { peopleTexts } from "../../../texts/en/people";
import { Button } from "../../ui/button";
import { Field } from "../../ui/field";
import { useSay } from "../../ui/texts/use-say";
import { useFormAction } from "../forms/use-form-action";

/** Changes one's own password; whoever is signed in elsewhere under the old one is signed out there. */
export function PasswordForm() {
  const say = useSay(peopleTexts);
  const form = useRef<HTMLFormElement>(null);
  const { Form, action, isBusy, refused } = useFormAction("account", () => form.current?.reset());
  return (
    <section aria-labelledby="password">
      <h2 id="password" className="font-serif text-lg">
        {say("people.password")}
      </h2>
      <p className="mt-0.5 text-sm text-soft">{say("people.changingItEndsYourSessions")}</p>
      <Form ref={form} method="post" action={action} noValidate className="mt-3 grid gap-3.5">
        <input type="hidden" name="do" value="password" />
        <Field
          label={say("people.currentPassword")}
          name="old"
          type="password"
          autoComplete="current-password"
          problem={refused?.problems.old}
        />
        <Field
          label={say("people.newPassword")}
          name="new"
          type="password"
          autoComplete="new-password"
          problem={refused?.problems.new}
        />
        <Button look="filled" type="submit" disabled={isBusy} className="h-9 justify-center">
          {say("people.changePassword")}
        </Button>
      </Form>
    </section>
  );
}

/** Where one is reached by those outside, for copies of what the tray answers in one's place. */
export function MailAddressForm({ address }: { address: string }) {
  const say = useSay(peopleTexts);
  const { Form, action, isBusy, problems } = useFormAction("account");
  return (
    <section aria-labelledby="mail-address">
      <h2 id="mail-address" className="font-serif text-lg">
        {say("people.ownMailAddress")}
      </h2>
      <p className="mt-0.5 text-sm text-soft">{say("people.copiesOfAutomaticAnswersGoThere")}</p>
      <Form method="post" action={action} noValidate className="mt-3 grid gap-3.5">
        <input type="hidden" name="do" value="mail-address" />
        <Field
          label={say("people.address")}
          name="address"
          type="email"
          defaultValue={address}
          autoComplete="email"
          problem={problems.address}
        />
        <Button type="submit" disabled={isBusy} className="h-9 justify-center">
          {say("people.saveAddress")}
        </Button>
      </Form>
    </section>
  );
}

export type SessionView = {
  readonly id: string;
  readonly device: string;
  readonly address: string;
  readonly isOwn: boolean;
  readonly begun: string;
  readonly used: string;
};

/** Where one is signed in; each can be ended, and all but this one at once. */
export function SessionList({ sessions }: { sessions: readonly SessionView[] }) {
  const say = useSay(peopleTexts);
  const { Form, action, isBusy } = useFormAction("account");
  return (
    <section aria-labelledby="sessions">
      <div className="flex items-baseline gap-4">
        <h2 id="sessions" className="font-serif text-lg">
          {say("people.sessions")}
        </h2>
        {sessions.length > 1 && (
          <Form method="post" action={action} className="ml-auto">
            <input type="hidden" name="do" value="end-others" />
            <Button type="submit" disabled={isBusy}>
              {say("people.endAllOthers")}
            </Button>
          </Form>
        )}
      </div>
      <p className="mt-0.5 text-sm text-soft">{say("people.whereYouAreSignedIn")}</p>
      <ul className="mt-3 divide-y divide-hair border-y border-hair">
        {sessions.map(({ id, device, address, isOwn, begun, used }) => (
          <li key={id} className="flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
            <span className="min-w-0 flex-1">
              <b className="font-semibold">{device}</b>
              {address !== "" && <span className="text-soft"> {say("people.from", { address })}</span>}
              <span className="block text-sm text-soft">{say("people.sinceLastUsed", { begun, used })}</span>
            </span>
            {isOwn ? (
              <span className="text-sm text-soft">{say("people.thisOne")}</span>
            ) : (
              <Form method="post" action={action}>
                <input type="hidden" name="do" value="end" />
                <input type="hidden" name="session" value={id} />
                <Button
                  type="submit"
                  disabled={isBusy}
                  aria-label={say("people.endTheSessionOfLast", { device, used })}
                >
                  {say("people.end")}
                </Button>
              </Form>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
