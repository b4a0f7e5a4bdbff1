import { ArrowDown, ArrowUp, Plus, X } from "lucide-react";
import type { ReactElement } from "react";
import { trustedId } from "../../../core/kernel/ids";
import { URGENCIES, URGENCY_NAMES, type Urgency } from "../../../core/kernel/urgency";
import type { RuleAction, RuleActionKind, RuleActionOf } from "../../../core/rules/rule";
import { rulesTexts } from "../../../texts/en/rules";
import type { PlainKey } from "../../../texts/say";
import type { LearnedView } from "../../server/rules/learned-view.server";
import { MENU, MENU_ITEM } from "../../ui/menu-look";
import { MenuTrigger } from "../../ui/menu-trigger";
import { Select } from "../../ui/select";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";
import { NumberField } from "./chosen-ones";
import { ADD_BUTTON } from "./condition-editor";

/** An action while it is edited, with a key that stays while others change around it. */
export type EditedAction = { readonly key: string; readonly action: RuleAction };

const WORDS: Readonly<Record<RuleActionKind, PlainKey<typeof rulesTexts>>> = {
  categorise: "rules.doCategorise",
  file: "rules.doFile",
  assign: "rules.doAssign",
  urgency: "rules.doUrgency",
  settle: "rules.doSettle",
  bin: "rules.doBin",
  junk: "rules.doJunk",
  rest: "rules.doRest",
  "follow-up": "rules.doFollowUp",
  expect: "rules.doExpect",
  expire: "rules.doExpire",
  note: "rules.doNote",
  follow: "rules.doFollow",
};
const KINDS = Object.keys(WORDS) as RuleActionKind[];

type ActionEditorProps = {
  readonly actions: readonly EditedAction[];
  /** What is wrong, by place; empty for the whole. */
  readonly problems: Readonly<Record<string, string>>;
  readonly onChange: (actions: readonly EditedAction[]) => void;
  /** What people did by hand to conversations like these, where the rule was learned from some. */
  readonly byHand: Pick<LearnedView, "actions" | "proposals"> | null;
};

/** What a rule does, one thing after the other. */
export function ActionEditor({ actions, problems, onChange, byHand }: ActionEditorProps) {
  const say = useSay(rulesTexts);
  const move = (at: number, by: number) => {
    const moved = [...actions];
    const [one] = moved.splice(at, 1);
    if (one !== undefined) moved.splice(at + by, 0, one);
    onChange(moved);
  };
  return (
    <div className="space-y-1.5">
      <ol className="space-y-1.5">
        {actions.map(({ key, action }, at) => (
          <li key={key} className="grid grid-cols-[22px_minmax(0,1fr)_auto] items-start gap-x-2">
            <span className="mt-1 grid size-[22px] place-items-center rounded-[3px] border border-rule text-sm text-soft tabular-nums">
              {at + 1}
            </span>
            <div>
              <div className="flex flex-wrap items-center gap-1.5">
                <ActionFields
                  action={action}
                  onChange={(changed) =>
                    onChange(actions.map((one) => (one.key === key ? { key, action: changed } : one)))
                  }
                />
              </div>
              <ByHand action={action} learned={byHand} />
              {problems[at] !== undefined && <p className="mt-0.5 text-sm text-late">{problems[at]}</p>}
            </div>
            <span className="flex">
              {actions.length > 1 && (
                <>
                  <SmallButton
                    label={say("rules.moveActionUp", { at: at + 1 })}
                    disabled={at === 0}
                    onClick={() => move(at, -1)}
                  >
                    <ArrowUp size={14} aria-hidden />
                  </SmallButton>
                  <SmallButton
                    label={say("rules.moveActionDown", { at: at + 1 })}
                    disabled={at === actions.length - 1}
                    onClick={() => move(at, 1)}
                  >
                    <ArrowDown size={14} aria-hidden />
                  </SmallButton>
                </>
              )}
              <SmallButton
                label={say("rules.removeAction", { at: at + 1 })}
                disabled={false}
                onClick={() => onChange(actions.filter((one) => one.key !== key))}
              >
                <X size={14} aria-hidden />
              </SmallButton>
            </span>
          </li>
        ))}
      </ol>
      {problems[""] !== undefined && <p className="text-sm text-late">{problems[""]}</p>}
      <AddAction onAdd={(action) => onChange([...actions, newAction(action)])} />
    </div>
  );
}

function ByHand({ action, learned }: { action: RuleAction; learned: ActionEditorProps["byHand"] }) {
  const say = useSay(rulesTexts);
  const written = JSON.stringify(action);
  const found = learned?.actions.find((one) => JSON.stringify(one.action) === written);
  const of = learned?.proposals[0]?.count ?? 0;
  if (found === undefined) return null;
  return <p className="text-sm text-soft">{say("rules.byHandOf", { count: found.byHand, of })}</p>;
}

let made = 0;

/** An action to be edited. */
export function newAction(action: RuleAction): EditedAction {
  made += 1;
  return { key: `action-${made}`, action };
}

type SmallButtonProps = {
  readonly label: string;
  readonly disabled: boolean;
  readonly onClick: () => void;
  readonly children: ReactElement;
};

function SmallButton({ label, ...native }: SmallButtonProps) {
  return (
    <button
      type="button"
      aria-label={label}
      className="grid size-7 place-items-center rounded-control text-soft hover:bg-sunk hover:text-ink disabled:opacity-40"
      {...native}
    />
  );
}

function AddAction({ onAdd }: { onAdd: (action: RuleAction) => void }) {
  const say = useSay(rulesTexts);
  const blank = useBlankAction();
  const trigger = {
    className: `${ADD_BUTTON} ms-[30px]`,
    children: (
      <>
        <Plus size={14} aria-hidden />
        {say("rules.addAnAction")}
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
              {KINDS.map((kind) => (
                <DropdownMenu.Item key={kind} className={MENU_ITEM} onSelect={() => onAdd(blank(kind))}>
                  {say(WORDS[kind])}
                </DropdownMenu.Item>
              ))}
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
      )}
    />
  );
}

// What names something begins with the first there is, so that it always names something.
function useBlankAction(): (kind: RuleActionKind) => RuleAction {
  const { members, member, categories } = useTray();
  const [category] = categories.filter(({ retired }) => !retired);
  const mine = members.find(({ id }) => id === member.id) ?? members[0];
  const [me, given] = [trustedId(mine?.id ?? ""), trustedId(category?.id ?? "")] as const;
  return (kind) => {
    const blank: { readonly [Kind in RuleActionKind]: RuleActionOf<Kind> } = {
      categorise: { kind: "categorise", categoryId: trustedId(given), give: true },
      file: { kind: "file", recordId: trustedId("") },
      assign: { kind: "assign", ownerId: trustedId(me) },
      urgency: { kind: "urgency", urgency: "reading" },
      settle: { kind: "settle" },
      bin: { kind: "bin" },
      junk: { kind: "junk" },
      rest: { kind: "rest", workingDays: 1 },
      "follow-up": { kind: "follow-up", workingDays: 3, text: "", forMember: null },
      expect: { kind: "expect", workingDays: 3 },
      expire: { kind: "expire", workingDays: 5 },
      note: { kind: "note", text: "" },
      follow: { kind: "follow", memberId: trustedId(me) },
    };
    return blank[kind];
  };
}

type FieldsProps<Kind extends RuleActionKind> = Kind extends RuleActionKind
  ? { readonly action: RuleActionOf<Kind>; readonly onChange: (action: RuleAction) => void }
  : never;

type AnyProps = { readonly action: RuleAction; readonly onChange: (action: RuleAction) => void };

function ActionFields(props: AnyProps) {
  // The table's type ties each action to its fields; an index by a union loses that tie.
  const Fields = FIELDS[props.action.kind] as (props: AnyProps) => ReactElement;
  return <Fields {...props} />;
}

const FIELDS: { readonly [Kind in RuleActionKind]: (props: FieldsProps<Kind>) => ReactElement } = {
  categorise: CategoriseFields,
  file: FileFields,
  assign: ({ action, onChange }) => (
    <WithMember
      kind="assign"
      id={action.ownerId}
      onId={(ownerId) => onChange({ ...action, ownerId: trustedId(ownerId) })}
    />
  ),
  urgency: UrgencyFields,
  settle: PlainAction,
  bin: PlainAction,
  junk: PlainAction,
  rest: WithDays,
  expect: WithDays,
  expire: WithDays,
  "follow-up": FollowUpFields,
  note: ({ action, onChange }) => (
    <WithText kind="note" text={action.text} onText={(text) => onChange({ ...action, text })} />
  ),
  follow: ({ action, onChange }) => (
    <WithMember
      kind="follow"
      id={action.memberId}
      onId={(memberId) => onChange({ ...action, memberId: trustedId(memberId) })}
    />
  ),
};

function PlainAction({ action: { kind } }: FieldsProps<"settle" | "bin" | "junk">) {
  return <span className="py-1">{useSay(rulesTexts)(WORDS[kind])}</span>;
}

function CategoriseFields({ action, onChange }: FieldsProps<"categorise">) {
  const say = useSay(rulesTexts);
  const { categories } = useTray();
  const offered = categories.filter(({ id, retired }) => !retired || id === action.categoryId);
  return (
    <>
      <Select
        label={say(WORDS.categorise)}
        value={action.give ? "give" : "take"}
        choices={[
          ["give", say("rules.addCategory")],
          ["take", say("rules.takeCategoryOff")],
        ]}
        onChoose={(how) => onChange({ ...action, give: how === "give" })}
      />
      <Select
        label={say("rules.kindCategory")}
        value={action.categoryId}
        choices={offered.map(({ id, path }) => [id, path.join(" › ")] as const)}
        onChoose={(id) => onChange({ ...action, categoryId: trustedId(id) })}
      />
    </>
  );
}

function FileFields({ action, onChange }: FieldsProps<"file">) {
  const say = useSay(rulesTexts);
  return (
    <>
      <span>{say(WORDS.file)}</span>
      <input
        aria-label={say("rules.codeOfTheRecord")}
        value={action.recordId}
        placeholder="P-26-012"
        autoComplete="off"
        onChange={(event) => onChange({ ...action, recordId: trustedId(event.target.value.toUpperCase()) })}
        className="h-8 w-36 rounded-control border border-rule bg-paper px-2 placeholder:text-soft"
      />
    </>
  );
}

function UrgencyFields({ action, onChange }: FieldsProps<"urgency">) {
  const say = useSay(rulesTexts);
  return (
    <>
      <span>{say(WORDS.urgency)}</span>
      <Select
        label={say("rules.kindUrgency")}
        value={action.urgency}
        choices={URGENCIES.map((one) => [one, say(URGENCY_NAMES[one])] as const)}
        onChoose={(urgency) => onChange({ ...action, urgency: urgency as Urgency })}
      />
    </>
  );
}

function WithDays({ action, onChange }: FieldsProps<"rest" | "expect" | "expire">) {
  const say = useSay(rulesTexts);
  return (
    <>
      <span>{say(WORDS[action.kind])}</span>
      <NumberField
        label={say("rules.workingDays")}
        value={action.workingDays}
        unit={say("rules.workingDays")}
        onNumber={(days) => onChange({ ...action, workingDays: Math.round(days) })}
      />
    </>
  );
}

function FollowUpFields({ action, onChange }: FieldsProps<"follow-up">) {
  const say = useSay(rulesTexts);
  const { members } = useTray();
  return (
    <>
      <WithText kind="follow-up" text={action.text} onText={(text) => onChange({ ...action, text })} />
      <Select
        label={say("rules.forWhom")}
        value={action.forMember ?? ""}
        choices={[["", say("rules.forTheOwner")], ...members.map(({ id, name }) => [id, name] as const)]}
        onChoose={(id) => onChange({ ...action, forMember: id === "" ? null : trustedId(id) })}
      />
      <NumberField
        label={say("rules.workingDays")}
        value={action.workingDays}
        unit={say("rules.workingDays")}
        onNumber={(days) => onChange({ ...action, workingDays: Math.round(days) })}
      />
    </>
  );
}

type WithMemberProps = { readonly kind: "assign" | "follow"; readonly id: string; readonly onId: (id: string) => void };

function WithMember({ kind, id, onId }: WithMemberProps) {
  const say = useSay(rulesTexts);
  const { members } = useTray();
  const offered = kind === "assign" ? members.filter(({ reads }) => !reads) : members;
  return (
    <>
      <span>{say(WORDS[kind])}</span>
      <Select
        label={say("rules.member")}
        value={id}
        choices={offered.map((member) => [member.id, member.name] as const)}
        onChoose={onId}
      />
    </>
  );
}

type WithTextProps = {
  readonly kind: "note" | "follow-up";
  readonly text: string;
  readonly onText: (text: string) => void;
};

function WithText({ kind, text, onText }: WithTextProps) {
  const say = useSay(rulesTexts);
  return (
    <>
      <span>{say(WORDS[kind])}</span>
      <input
        aria-label={say("rules.text")}
        value={text}
        placeholder={say("rules.whatItSays")}
        autoComplete="off"
        onChange={(event) => onText(event.target.value)}
        className="h-8 min-w-48 flex-1 rounded-control border border-rule bg-paper px-2 placeholder:text-soft"
      />
    </>
  );
}
