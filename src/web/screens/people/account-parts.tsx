import { useRef } from "react";
import { Button } from "../../ui/button";
import { Field } from "../../ui/field";
import { useStep } from "../frame/use-step";

/** Changes one's own password; whoever is signed in elsewhere under the old one is signed out there. */
export function PasswordForm() {
  const form = useRef<HTMLFormElement>(null);
  const { Form, action, isBusy, refused } = useStep("account", () => form.current?.reset());
  return (
    <section aria-labelledby="password">
      <h2 id="password" className="font-serif text-lg">
        Password
      </h2>
      <p className="mt-0.5 text-sm text-soft">Changing it ends your sessions on other devices.</p>
      <Form ref={form} method="post" action={action} noValidate className="mt-3 grid gap-3.5">
        <input type="hidden" name="do" value="password" />
        <Field
          label="Current password"
          name="old"
          type="password"
          autoComplete="current-password"
          problem={refused?.problems.old}
        />
        <Field
          label="New password"
          name="new"
          type="password"
          autoComplete="new-password"
          problem={refused?.problems.new}
        />
        <Button look="filled" type="submit" disabled={isBusy} className="h-9 justify-center">
          Change password
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
  const { Form, action, isBusy } = useStep("account");
  return (
    <section aria-labelledby="sessions">
      <div className="flex items-baseline gap-4">
        <h2 id="sessions" className="font-serif text-lg">
          Sessions
        </h2>
        {sessions.length > 1 && (
          <Form method="post" action={action} className="ml-auto">
            <input type="hidden" name="do" value="end-others" />
            <Button type="submit" disabled={isBusy}>
              End all others
            </Button>
          </Form>
        )}
      </div>
      <p className="mt-0.5 text-sm text-soft">
        Where you are signed in. End what you do not know, and change your password.
      </p>
      <ul className="mt-3 divide-y divide-hair border-y border-hair">
        {sessions.map(({ id, device, address, isOwn, begun, used }) => (
          <li key={id} className="flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
            <span className="min-w-0 flex-1">
              <b className="font-semibold">{device}</b>
              {address !== "" && <span className="text-soft"> from {address}</span>}
              <span className="block text-sm text-soft">
                since {begun}, last used {used}
              </span>
            </span>
            {isOwn ? (
              <span className="text-sm text-soft">this one</span>
            ) : (
              <Form method="post" action={action}>
                <input type="hidden" name="do" value="end" />
                <input type="hidden" name="session" value={id} />
                <Button type="submit" disabled={isBusy} aria-label={`End the session of ${device}, last used ${used}`}>
                  End
                </Button>
              </Form>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
