import { RadioGroup } from "radix-ui";
import { type FormEvent, useRef, useState } from "react";
import { commonTexts } from "../../../texts/en/common";
import { officeTexts } from "../../../texts/en/office";
import type { Say } from "../../../texts/say";
import { Button } from "../../ui/button";
import { Progress } from "../../ui/progress";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";

const WAYS = [
  ["history", "office.asHistory", "office.threadsStandSettledNobodyHas"],
  ["new", "office.asNewMail", "office.comesToToSortLike"],
] as const;
const RECORD = ["record", "office.asARecord", "office.theZipOfARecord"] as const;

type ImportFormProps = {
  readonly onReceived: () => void;
  /** How it comes in to begin with. */
  readonly start: string;
};

/** Chooses a file and sends it up, with how far it is. */
export function ImportForm({ onReceived, start }: ImportFormProps) {
  const say = useSay(officeTexts, commonTexts);
  const { tray, mayDecide, mayLead } = useTray();
  const ways = mayLead ? [...WAYS, RECORD] : WAYS;
  const field = useRef<HTMLInputElement>(null);
  const [way, setWay] = useState<string>(ways.find(([one]) => one === start)?.[0] ?? "history");
  const [sent, setSent] = useState<number | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  if (!mayDecide) return <p className="px-5 py-4 text-soft">{say("office.youMayReadThisTray")}</p>;
  const send = (event: FormEvent) => {
    event.preventDefault();
    const file = field.current?.files?.[0];
    if (file === undefined) {
      setProblem(say("office.chooseAFileFirst"));
      return;
    }
    setProblem(null);
    setSent(0);
    const query = new URLSearchParams({ name: file.name, as: way });
    const ended = (said: string | null) => {
      setSent(null);
      setProblem(said);
      if (said === null && field.current !== null) field.current.value = "";
      onReceived();
    };
    upload(say, `/${tray.slug}/import/upload?${query}`, file, setSent, ended);
  };
  return (
    <form onSubmit={send} className="grid gap-3 border-b border-rule px-5 py-4 *:max-w-[720px]">
      <label className="grid gap-1">
        <span className="text-sm font-semibold">{say("common.file")}</span>
        <input
          ref={field}
          type="file"
          accept=".mbox,.mbx,.eml,.zip,application/mbox,message/rfc822"
          aria-invalid={problem !== null}
          aria-describedby="import-problem"
          onChange={() => setProblem(null)}
          className="rounded-control border border-rule bg-paper text-sm file:mr-3 file:h-8 file:cursor-pointer file:border-0 file:border-r file:border-solid file:border-rule file:bg-ground file:px-3 file:font-semibold"
        />
        <span id="import-problem" role="alert" className="text-sm text-late">
          {problem}
        </span>
      </label>
      <RadioGroup.Root
        value={way}
        onValueChange={setWay}
        aria-label={say("office.howItComesIn")}
        className="grid gap-2"
      >
        {ways.map(([value, name, words]) => (
          <RadioGroup.Item
            key={value}
            value={value}
            className="flex flex-col rounded-control border border-rule px-3 py-2 text-start hover:border-act data-[state=checked]:border-act data-[state=checked]:bg-act-soft"
          >
            <b className="font-semibold">{say(name)}</b>
            <span className="block text-sm text-soft">{say(words)}</span>
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
      {sent === null ? (
        <Button look="filled" type="submit" className="justify-self-start">
          {say("office.import")}
        </Button>
      ) : (
        <Progress value={sent} label={say("office.sendingTheFile")} />
      )}
    </form>
  );
}

// fetch does not say how far it is.
function upload(
  say: Say<typeof officeTexts>,
  address: string,
  file: File,
  onPart: (part: number) => void,
  onEnd: (problem: string | null) => void,
) {
  const request = new XMLHttpRequest();
  request.open("POST", address);
  request.setRequestHeader("Content-Type", "application/octet-stream");
  request.upload.onprogress = ({ loaded, total }) => onPart(total === 0 ? 0 : loaded / total);
  request.onload = () => onEnd(request.status < 400 ? null : say("office.theFileWasNotTaken"));
  request.onerror = () => onEnd(say("office.theConnectionWasLostDuring"));
  request.send(file);
}
