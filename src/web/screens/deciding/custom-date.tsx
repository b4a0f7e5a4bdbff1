import { type KeyboardEvent, useState } from "react";
import { decidingTexts } from "../../../texts/en/deciding";
import { Button } from "../../ui/button";
import { CalendarButton } from "../../ui/dates/calendar-button";
import { Field } from "../../ui/field";
import { useSay } from "../../ui/texts/use-say";
import { AmbiguousDate } from "./ambiguous-date";
import { useTypedDate } from "./use-typed-date";

type AnotherDateProps = { readonly label: string; readonly onChoose: (at: string) => void };

/** A date in words, beside those that are offered. */
export function CustomDate({ label, onChoose }: AnotherDateProps) {
  const say = useSay(decidingTexts);
  const [isOpen, setOpen] = useState(false);
  const [wasOpen, setWasOpen] = useState(false);
  if (!isOpen) {
    return (
      <Button
        look="quiet"
        className="h-7 px-2 text-sm"
        // The field that had the focus is gone.
        autoFocus={wasOpen}
        onClick={() => setOpen(true)}
      >
        {say("deciding.another")}
      </Button>
    );
  }
  const close = () => {
    setOpen(false);
    setWasOpen(true);
  };
  return (
    <TypedDate
      label={label}
      onClose={close}
      onChoose={(at) => {
        close();
        onChoose(at);
      }}
    />
  );
}

function TypedDate({ label, onChoose, onClose }: AnotherDateProps & { readonly onClose: () => void }) {
  const say = useSay(decidingTexts);
  const { field, said, chooseTyped, pickDay } = useTypedDate(
    { edge: "closes", conversation: "", usual: false },
    onChoose,
  );
  // It stands within a form that these keys would send or close.
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key !== "Enter" && event.key !== "Escape") return;
    event.preventDefault();
    event.stopPropagation();
    if (event.key === "Enter") chooseTyped();
    else onClose();
  };
  return (
    <div className="basis-full">
      <div className="flex items-start gap-2">
        <Field inline className="w-full max-w-md" label={label} onKeyDown={onKeyDown} {...field} />
        <CalendarButton label={label} onDay={pickDay} />
        <Button className="h-[30px]" onClick={chooseTyped}>
          {say("deciding.choose")}
        </Button>
      </div>
      <AmbiguousDate said={said} onChoose={onChoose} />
    </div>
  );
}
