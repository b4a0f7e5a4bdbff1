import { X } from "lucide-react";
import { useEffect, useState } from "react";
import { useFetcher } from "react-router";
import type { WatchKind } from "../../../core/notifications/events";
import { commonTexts } from "../../../texts/en/common";
import { officeTexts } from "../../../texts/en/office";
import type { NotificationSettingsView } from "../../server/people/notification-view.server";
import { Button } from "../../ui/button";
import { Field } from "../../ui/field";
import { Cell, ColumnHead, DataTable, RowHead } from "../../ui/layout/data-table";
import { Select } from "../../ui/select";
import { saidChoices, useSay } from "../../ui/texts/use-say";
import { SettingsForm } from "../forms/settings-form";
import { useFormAction } from "../forms/use-form-action";
import { useTray } from "../frame/tray-data";

/** What a member wants to be told of, how, and when not. */
export function NotificationSettingsForm({ settings, watches }: NotificationSettingsView) {
  const say = useSay(officeTexts, commonTexts);
  const step = useFormAction("notifications");
  const { problems } = step;
  return (
    <section
      aria-label={say("office.notificationSettings")}
      className="grid gap-x-14 px-5 py-4 lg:grid-cols-[460px_minmax(0,360px)]"
    >
      <SettingsForm step={step} does="settings">
        <DataTable
          caption={say("office.notifyMeWhen")}
          head={
            <>
              <ColumnHead className="pl-0">
                <span className="sr-only">{say("office.event")}</span>
              </ColumnHead>
              <ColumnHead side="center" className="w-14">
                {say("office.list")}
              </ColumnHead>
              <ColumnHead side="center" className="w-16">
                {say("office.browser")}
              </ColumnHead>
            </>
          }
        >
          {settings.events.map(({ event, name, list, browser }) => (
            <tr key={event}>
              <RowHead isTight className="pl-0">
                {name}
              </RowHead>
              <Cell side="center" isTight>
                <Box name={`list-${event}`} label={say("office.inTheList", { name })} isOn={list} />
              </Cell>
              <Cell side="center" isTight>
                <Box name={`browser-${event}`} label={say("office.inTheBrowser", { name })} isOn={browser} />
              </Cell>
            </tr>
          ))}
        </DataTable>
        <BrowserLeave />
        <div className="mt-3 grid grid-cols-3 gap-3">
          <Field
            label={say("office.quietFrom")}
            name="quiet-from"
            placeholder="18:00"
            defaultValue={settings.quietFrom}
            problem={problems["quiet-from"]}
          />
          <Field
            label={say("office.until")}
            name="quiet-to"
            placeholder="07:00"
            defaultValue={settings.quietTo}
            problem={problems["quiet-to"]}
          />
          <Field
            label={say("office.digestAt")}
            name="digest-at"
            placeholder={say("office.never")}
            defaultValue={settings.digestAt}
            problem={problems["digest-at"]}
          />
        </div>
        <p className="mt-1 text-sm text-soft">{say("office.inQuietHoursTheBrowser")}</p>
      </SettingsForm>
      <Watches watches={watches} />
    </section>
  );
}

function Box({ name, label, isOn }: { name: string; label: string; isOn: boolean }) {
  return (
    <label className="inline-grid size-6 cursor-pointer place-items-center">
      <input type="checkbox" name={name} defaultChecked={isOn} aria-label={label} className="size-4 accent-act" />
    </label>
  );
}

/** The browser shows nothing until it was asked, and it is asked by a click only. */
function BrowserLeave() {
  const say = useSay(officeTexts, commonTexts);
  const [leave, setLeave] = useState<NotificationPermission | "none" | null>(null);
  useEffect(() => setLeave("Notification" in window ? Notification.permission : "none"), []);
  if (leave === null || leave === "granted") return null;
  if (leave === "default") {
    return (
      <p className="mt-2 text-sm">
        <Button onClick={() => void Notification.requestPermission().then(setLeave)}>
          {say("office.allowNotificationsInThisBrowser")}
        </Button>
      </p>
    );
  }
  return (
    <p className="mt-2 text-sm text-soft">
      {leave === "denied"
        ? say("office.notificationsAreBlockedInThis")
        : say("office.thisBrowserCannotShowNotifications")}
    </p>
  );
}

const KINDS = [
  ["person", "office.aPerson"],
  ["category", "office.aCategory"],
  ["words", "office.words"],
] as const;

function Watches({ watches }: Pick<NotificationSettingsView, "watches">) {
  const say = useSay(officeTexts, commonTexts);
  const { categories } = useTray();
  const [kind, setKind] = useState<WatchKind>("person");
  const [value, setValue] = useState("");
  const { Form, action, problems, isBusy } = useFormAction("notifications", () => setValue(""));
  const problem = problems.value;
  const nameOf = (id: string) =>
    categories.find((one) => one.id === id)?.path.join(" › ") ?? say("common.aRemovedCategory");
  return (
    <section aria-labelledby="watched" className="max-lg:mt-5 max-lg:border-t max-lg:border-rule max-lg:pt-3">
      <h2 id="watched" className="font-semibold">
        {say("office.watched")}
      </h2>
      {watches.length === 0 && <p className="text-sm text-soft">{say("office.nothingYetYouAreAlways")}</p>}
      <ul>
        {watches.map((one) => (
          <WatchLine key={one.id} id={one.id} words={one.kind === "category" ? nameOf(one.value) : one.value} />
        ))}
      </ul>
      <Form method="post" action={action} noValidate className="mt-2 flex flex-wrap items-end gap-2">
        <input type="hidden" name="do" value="watch" />
        <input type="hidden" name="kind" value={kind} />
        <Select
          label={say("office.watchFor")}
          value={kind}
          choices={saidChoices(say, KINDS)}
          onChoose={(chosen) => {
            setKind(chosen as WatchKind);
            setValue(chosen === "category" ? (categories[0]?.id ?? "") : "");
          }}
        />
        {kind === "category" ? (
          <>
            <input type="hidden" name="value" value={value} />
            <Select
              label={say("office.categoryToWatch")}
              value={value}
              choices={categories.map(({ id, path }) => [id, path.join(" › ")])}
              onChoose={setValue}
            />
          </>
        ) : (
          <Field
            label={kind === "person" ? say("office.addressOrDomain") : say("office.wordsAllOfThem")}
            name="value"
            value={value}
            onChange={(event) => setValue(event.target.value)}
            problem={problem}
            className="min-w-40 flex-1"
            autoComplete="off"
          />
        )}
        <Button type="submit" disabled={isBusy}>
          {say("office.watch")}
        </Button>
        {kind === "category" && problem !== undefined && <p className="w-full text-sm text-late">{problem}</p>}
      </Form>
    </section>
  );
}

function WatchLine({ id, words }: { id: string; words: string }) {
  const say = useSay(officeTexts);
  const { tray } = useTray();
  const { Form } = useFetcher();
  return (
    <li className="flex items-center gap-2 border-b border-hair py-0.5">
      <span className="min-w-0 flex-1 truncate">{words}</span>
      <Form method="post" action={`/${tray.slug}/notifications`}>
        <input type="hidden" name="id" value={id} />
        <button
          type="submit"
          name="do"
          value="unwatch"
          aria-label={say("office.stopWatching", { words })}
          className="grid size-7 place-items-center rounded-control text-soft hover:bg-sunk hover:text-ink"
        >
          <X size={14} aria-hidden />
        </button>
      </Form>
    </li>
  );
}
