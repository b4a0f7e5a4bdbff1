import { ArrowDown, ArrowUp, Plus, X } from "lucide-react";
import type { ReactElement } from "react";
import type { EmailAddress } from "../../../core/kernel/email-address";
import { trustedId } from "../../../core/kernel/ids";
import { OWN_ACTIONS, type RuleAction, type RuleActionKind, type RuleActionOf } from "../../../core/rules/rule";
import { actionsTexts } from "../../../texts/en/actions";
import { rulesTexts } from "../../../texts/en/rules";
import type { LearnedView } from "../../server/rules/learned-view.server";
import { MENU, MENU_ITEM } from "../../ui/menu-look";
import { MenuTrigger } from "../../ui/menu-trigger";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";
import { ActionFields } from "./action-fields";
import { ACTION_WORDS } from "./action-words";
import { ADD_BUTTON } from "./condition-editor";
import { useNamesHere } from "./named-here";

/** An action while it is edited, with a key that stays while others change around it. */
export type EditedAction = { readonly key: string; readonly action: RuleAction };

const KINDS = Object.keys(ACTION_WORDS) as RuleActionKind[];

type ActionEditorProps = {
  readonly actions: readonly EditedAction[];
  /** It is a member's own rule, which can do little. */
  readonly isOwn: boolean;
  /** What is wrong, by place; empty for the whole. */
  readonly problems: Readonly<Record<string, string>>;
  readonly onChange: (actions: readonly EditedAction[]) => void;
  /** What people did by hand to conversations like these, where the rule was learned from some. */
  readonly byHand: Pick<LearnedView, "actions" | "proposals"> | null;
};

/** What a rule does, one thing after the other. */
export function ActionEditor({ actions, isOwn, problems, onChange, byHand }: ActionEditorProps) {
  const say = useSay(rulesTexts, actionsTexts);
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
                  isOwn={isOwn}
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
      <AddAction isOwn={isOwn} onAdd={(action) => onChange([...actions, newAction(action)])} />
    </div>
  );
}

function ByHand({ action, learned }: { action: RuleAction; learned: ActionEditorProps["byHand"] }) {
  const say = useSay(rulesTexts, actionsTexts);
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

type AddActionProps = { readonly isOwn: boolean; readonly onAdd: (action: RuleAction) => void };

function AddAction({ isOwn, onAdd }: AddActionProps) {
  const say = useSay(rulesTexts, actionsTexts);
  const kinds = isOwn ? OWN_ACTIONS : KINDS;
  const blank = useBlankAction(isOwn);
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
              {kinds.map((kind) => (
                <DropdownMenu.Item key={kind} className={MENU_ITEM} onSelect={() => onAdd(blank(kind))}>
                  {say(ACTION_WORDS[kind])}
                </DropdownMenu.Item>
              ))}
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
      )}
    />
  );
}

const NO_ADDRESS = "" as EmailAddress;

// What names something begins with the first there is, so that it always names something.
function useBlankAction(isOwn: boolean): (kind: RuleActionKind) => RuleAction {
  const { members, member, categories, groups } = useTray();
  const [group] = groups;
  const { rounds, templates } = useNamesHere();
  const [[round], [template]] = [rounds, templates];
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
      hold: { kind: "hold", roundId: trustedId(round?.id ?? "") },
      "follow-up": { kind: "follow-up", workingDays: 3, text: "", forMember: isOwn ? trustedId(me) : null },
      expect: { kind: "expect", workingDays: 3 },
      expire: { kind: "expire", workingDays: 5 },
      note: { kind: "note", text: "" },
      follow: { kind: "follow", memberId: trustedId(me) },
      "assign-in-turn": { kind: "assign-in-turn", groupId: trustedId(group?.id ?? "") },
      "assign-as-before": { kind: "assign-as-before", by: "person" },
      tell: { kind: "tell", memberId: trustedId(me) },
      remind: { kind: "remind", tone: "friendly", language: "en" },
      "ask-report": { kind: "ask-report" },
      answer: { kind: "answer", text: "", days: 7 },
      "answer-with": { kind: "answer-with", templateId: trustedId(template?.id ?? ""), days: 7 },
      forward: { kind: "forward", to: NO_ADDRESS },
      redirect: { kind: "redirect", to: NO_ADDRESS },
    };
    return blank[kind];
  };
}
