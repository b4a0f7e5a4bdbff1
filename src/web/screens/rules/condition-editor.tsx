import { Plus, X } from "lucide-react";
import type { TestKind } from "../../../core/rules/condition";
import { rulesTexts } from "../../../texts/en/rules";
import type { PlainKey } from "../../../texts/say";
import { MENU, MENU_ITEM } from "../../ui/menu-look";
import { MenuTrigger } from "../../ui/menu-trigger";
import { Select } from "../../ui/select";
import { useSay } from "../../ui/texts/use-say";
import { blankTest, type EditedGroup, type EditedPart, type EditedTest, newGroup, newTest } from "./edited-condition";
import { TestFields } from "./test-fields";

/** How a button looks that adds a line. */
export const ADD_BUTTON =
  "inline-flex h-7 items-center gap-1 rounded-control px-1.5 text-sm font-semibold text-act hover:bg-act-soft";

type Key = PlainKey<typeof rulesTexts>;

const KINDS: readonly (readonly [heading: Key, kinds: readonly (readonly [TestKind, Key])[]])[] = [
  [
    "rules.groupPeople",
    [
      ["address", "rules.kindAddress"],
      ["reach", "rules.kindReach"],
      ["verified", "rules.kindVerified"],
      ["list", "rules.throughAListAsKind"],
    ],
  ],
  [
    "rules.groupMessage",
    [
      ["text", "rules.kindText"],
      ["attachment", "rules.kindAttachment"],
      ["message-kind", "rules.kindMessageKind"],
      ["opening", "rules.kindOpening"],
      ["reference", "rules.codeAsKind"],
      ["template", "rules.aboutTemplate"],
      ["size", "rules.kindSize"],
      ["header", "rules.kindHeader"],
      ["address-part", "rules.kindAddressPart"],
      ["every", "rules.kindEvery"],
    ],
  ],
  [
    "rules.groupTime",
    [
      ["open", "rules.kindOpen"],
      ["weekday", "rules.kindWeekday"],
      ["days", "rules.kindDays"],
    ],
  ],
  [
    "rules.groupConversation",
    [
      ["standing", "rules.kindStanding"],
      ["owner", "rules.aboutOwner"],
      ["owner-away", "rules.aboutOwnerAway"],
      ["category", "rules.aboutCategory"],
      ["record", "rules.aboutRecord"],
      ["urgency", "rules.aboutUrgency"],
      ["age", "rules.aboutAge"],
      ["standing-for", "rules.aboutStandingFor"],
      ["due", "rules.aboutDue"],
    ],
  ],
];

const JOINED: Readonly<Record<EditedGroup["kind"], Key>> = {
  all: "rules.joinedAnd",
  any: "rules.joinedOr",
  none: "rules.joinedNor",
};

type GroupProps = {
  readonly label: string;
  readonly group: EditedGroup;
  /** What is wrong, by the places that lead there from the whole; empty for the whole. */
  readonly problems: Readonly<Record<string, string>>;
  readonly onChange: (group: EditedGroup) => void;
  readonly path?: string;
};

/** Several conditions together, each in a line of its own, joined by the word that says how. */
export function ConditionEditor({ label, group, problems, onChange, path = "" }: GroupProps) {
  const say = useSay(rulesTexts);
  const put = (at: number, part: EditedPart | null) =>
    onChange({ ...group, of: group.of.flatMap((one, place) => (place === at ? [part ?? []].flat() : [one])) });
  const add = (part: EditedPart) => onChange({ ...group, of: [...group.of, part] });
  const problem = problems[path];
  return (
    <fieldset aria-label={label} className="space-y-1.5">
      {(group.of.length > 1 || path !== "") && (
        <span className="inline-block ps-9">
          <Select
            look="quiet"
            label={say("rules.howManyHold")}
            value={group.kind}
            choices={[
              ["all", say("rules.allOfThese")],
              ["any", say("rules.anyOfThese")],
              ["none", say("rules.noneOfThese")],
            ]}
            onChoose={(kind) => onChange({ ...group, kind: kind as EditedGroup["kind"] })}
          />
        </span>
      )}
      {group.of.map((part, at) => (
        <div key={part.key} className="grid grid-cols-[34px_minmax(0,1fr)_28px] items-start gap-x-1.5">
          <span className="pt-1.5 text-end text-sm text-soft">{at > 0 && say(JOINED[group.kind])}</span>
          {"test" in part ? (
            <Line part={part} problem={problems[within(path, at)]} onChange={(changed) => put(at, changed)} />
          ) : (
            <div className="border-s-2 border-rule ps-2.5">
              <ConditionEditor
                label={say("rules.groupWithin")}
                group={part}
                problems={problems}
                path={within(path, at)}
                onChange={(changed) => put(at, changed)}
              />
            </div>
          )}
          <button
            type="button"
            aria-label={say("rules.removeCondition", { at: at + 1 })}
            onClick={() => put(at, null)}
            className="grid size-7 place-items-center rounded-control text-soft hover:bg-sunk hover:text-ink"
          >
            <X size={14} aria-hidden />
          </button>
        </div>
      ))}
      {problem !== undefined && <p className="ps-10 text-sm text-late">{problem}</p>}
      <div className="flex gap-1 ps-9">
        <AddMenu onAdd={(kind) => add(newTest(blankTest(kind)))} />
        <button
          type="button"
          onClick={() => add(newGroup(group.kind === "any" ? "all" : "any", [newTest(blankTest("address"))]))}
          className={ADD_BUTTON}
        >
          {say("rules.addAGroup")}
        </button>
      </div>
    </fieldset>
  );
}

const within = (path: string, at: number) => (path === "" ? String(at) : `${path}.${at}`);

type LineProps = {
  readonly part: EditedTest;
  readonly problem: string | undefined;
  readonly onChange: (part: EditedPart) => void;
};

function Line({ part, problem, onChange }: LineProps) {
  return (
    <div>
      <div className="flex flex-wrap items-center gap-1.5">
        <TestFields
          test={part.test}
          hasProblem={problem !== undefined}
          onChange={(test) => onChange({ ...part, test })}
        />
      </div>
      {problem !== undefined && <p className="mt-0.5 text-sm text-late">{problem}</p>}
    </div>
  );
}

function AddMenu({ onAdd }: { onAdd: (kind: TestKind) => void }) {
  const say = useSay(rulesTexts);
  const trigger = {
    className: ADD_BUTTON,
    children: (
      <>
        <Plus size={14} aria-hidden />
        {say("rules.addACondition")}
      </>
    ),
  };
  return (
    <MenuTrigger
      {...trigger}
      menu={({ DropdownMenu }, isOpen) => (
        <DropdownMenu.Root defaultOpen={isOpen}>
          <DropdownMenu.Trigger {...trigger} />
          <DropdownMenu.Portal>
            <DropdownMenu.Content className={`${MENU} max-h-96 overflow-y-auto`} align="start">
              {KINDS.map(([heading, kinds]) => (
                <DropdownMenu.Group key={heading}>
                  <DropdownMenu.Label className="px-3 pt-2 pb-0.5 text-sm text-soft">{say(heading)}</DropdownMenu.Label>
                  {kinds.map(([kind, words]) => (
                    <DropdownMenu.Item key={kind} className={MENU_ITEM} onSelect={() => onAdd(kind)}>
                      {say(words)}
                    </DropdownMenu.Item>
                  ))}
                </DropdownMenu.Group>
              ))}
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
      )}
    />
  );
}
