import { type ReactNode, useId, useState } from "react";
import { useFetcher } from "react-router";
import { LISTED, type Listed } from "../../../core/categories/category";
import { withAllUnder } from "../../../core/categories/category-tree";
import { proposeCode } from "../../../core/categories/propose-code";
import { INKS, type Ink } from "../../../core/kernel/ink";
import { categoriesTexts } from "../../../texts/en/categories";
import { commonTexts } from "../../../texts/en/common";
import type { CaredCategory } from "../../server/categories/category-view.server";
import { Button } from "../../ui/button";
import { CategoryTab } from "../../ui/category-tab";
import { Field } from "../../ui/field";
import { Select } from "../../ui/select";
import { saidChoices, useSay } from "../../ui/texts/use-say";
import { Tick } from "../../ui/tick";
import { useCategoryChange } from "../deciding/use-category-change";
import { useTray } from "../frame/tray-data";
import { LISTED_NAMES } from "./category-maintenance-row";

type CategoryFormProps = {
  /** Null for a new one. */
  readonly category: CaredCategory | null;
  /** The category that a new one is to stand under; empty for the top. */
  readonly under: string;
  readonly all: readonly CaredCategory[];
  readonly mayChange: { readonly own: boolean; readonly common: boolean };
  readonly onClose: () => void;
};

/** Everything about a category, or about a new one; what is wrong stands beside its field and nothing typed is lost. */
export function CategoryForm({ category, under, all, mayChange, onClose }: CategoryFormProps) {
  const say = useSay(categoriesTexts, commonTexts);
  const { refused, Form, isBusy } = useCategoryChange(onClose);
  const above = all.find(({ id }) => id === under);
  const start = category ?? blank(above, mayChange);
  const [name, setName] = useState(start.name);
  const [code, setCode] = useState(start.code);
  const [ink, setInk] = useState<Ink>(start.ink);
  const [parent, setParent] = useState<string>(start.parentId ?? "");
  const [isCommon, setCommon] = useState(start.common);
  const { tray } = useTray();
  const taken = new Set<string>(all.filter(({ id }) => id !== category?.id).map((one) => one.code));
  const proposed = name.trim() === "" ? "" : proposeCode(name, taken);
  const parents = possibleParents(all, category, isCommon);
  const problems = refused?.problems ?? {};
  return (
    <Form method="post" action={`/${tray.slug}/categories`} noValidate className="space-y-3">
      <h2 className="font-serif text-xl">{category === null ? say("categories.newCategory") : category.name}</h2>
      <div className="flex h-7 items-center rounded-control border border-dashed border-rule bg-paper px-2.5">
        <CategoryTab code={code || proposed || "··"} name={name || say("categories.asItWillLook")} ink={ink} />
      </div>
      <input type="hidden" name="do" value={category === null ? "create" : "change"} />
      {category !== null && <input type="hidden" name="id" value={category.id} />}
      <Field
        label={say("common.name")}
        name="name"
        value={name}
        onChange={(event) => setName(event.target.value)}
        problem={problems.name}
        autoFocus={category === null}
        autoComplete="off"
      />
      <div className="grid grid-cols-2 gap-3">
        <Field
          label={say("categories.code")}
          name="code"
          value={code}
          placeholder={proposed}
          maxLength={3}
          onChange={(event) => setCode(event.target.value.toUpperCase())}
          problem={problems.code}
          autoComplete="off"
        />
        <Field
          label={say("categories.keyAfterG")}
          name="key"
          defaultValue={start.key ?? ""}
          maxLength={1}
          problem={problems.key}
          autoComplete="off"
        />
      </div>
      <InkChoice ink={ink} onChoose={setInk} />
      <Chosen label={say("common.parent")} problem={problems.parentId}>
        <input type="hidden" name="parent" value={parent} />
        <Select
          label={say("common.parent")}
          value={parent}
          choices={[
            ["", say("categories.nothingAtTheTop")],
            ...parents.map((one) => [one.id, one.path.join(" › ")] as const),
          ]}
          onChoose={setParent}
        />
      </Chosen>
      <ListedChoice category={category} />
      <Description text={start.description} problem={problems.description} />
      {category === null && (
        <ScopeChoice mayChange={mayChange} above={above} isCommon={isCommon} onChoose={setCommon} />
      )}
      <div className="flex items-center gap-2 pt-1">
        <Button look="filled" type="submit" disabled={isBusy}>
          {category === null ? say("categories.create") : say("common.save")}
        </Button>
        <Button look="quiet" onClick={onClose}>
          {say("common.cancel")}
        </Button>
      </div>
      {category !== null && <ListedForMe category={category} />}
    </Form>
  );
}

function blank(above: CaredCategory | undefined, mayChange: CategoryFormProps["mayChange"]) {
  return {
    name: "",
    code: "",
    key: "",
    description: "",
    ink: above?.ink ?? "moss",
    parentId: above?.id ?? null,
    common: !mayChange.own,
  } as const;
}

function possibleParents(all: readonly CaredCategory[], category: CaredCategory | null, isCommon: boolean) {
  const under = category === null ? new Set<string>() : withAllUnder(all, category.id);
  return all.filter((one) => !one.retired && !under.has(one.id) && (one.common || !isCommon));
}

function Description({ text, problem }: { text: string; problem: string | undefined }) {
  const say = useSay(categoriesTexts);
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="mb-1 block text-sm font-semibold">
        {say("categories.description")}
      </label>
      <textarea
        id={id}
        name="description"
        rows={2}
        defaultValue={text}
        aria-invalid={problem !== undefined}
        aria-describedby={problem === undefined ? undefined : `${id}-problem`}
        className="w-full rounded-control border border-rule bg-paper px-2.5 py-1.5"
      />
      {problem !== undefined && (
        <p id={`${id}-problem`} className="text-sm text-late">
          {problem}
        </p>
      )}
    </div>
  );
}

type ScopeChoiceProps = Pick<CategoryFormProps, "mayChange"> & {
  readonly above: CaredCategory | undefined;
  readonly isCommon: boolean;
  readonly onChoose: (common: boolean) => void;
};

/** Whether a new category is of this tray or of all, where both may be. */
function ScopeChoice({ mayChange, above, isCommon, onChoose }: ScopeChoiceProps) {
  const say = useSay(categoriesTexts);
  if (!mayChange.own) return <input type="hidden" name="common" value="true" />;
  if (!mayChange.common || above?.common === false) return null;
  return (
    <Tick name="common" value="true" checked={isCommon} onTick={onChoose} className="text-sm">
      {say("categories.commonToAllTrays")}
    </Tick>
  );
}

function Chosen({ label, problem, children }: { label: string; problem?: string | undefined; children: ReactNode }) {
  return (
    <div>
      <span className="mb-1 block text-sm font-semibold">{label}</span>
      {children}
      {problem !== undefined && <p className="mt-1 text-sm text-late">{problem}</p>}
    </div>
  );
}

function InkChoice({ ink, onChoose }: { ink: Ink; onChoose: (ink: Ink) => void }) {
  const say = useSay(categoriesTexts);
  const id = useId();
  return (
    <fieldset>
      <legend className="mb-1 text-sm font-semibold">
        {say("categories.ink")} <span className="font-normal text-soft">{ink}</span>
      </legend>
      <div className="grid grid-cols-12 gap-1">
        {INKS.map((one) => (
          <label key={one} title={one} className="relative">
            <input
              type="radio"
              name="ink"
              value={one}
              checked={one === ink}
              onChange={() => onChoose(one)}
              aria-label={one}
              id={`${id}-${one}`}
              className="peer absolute inset-0 opacity-0"
            />
            <span
              aria-hidden
              className="block h-6 rounded-[2px] border-2 border-transparent peer-checked:border-ink peer-focus-visible:outline-2 peer-focus-visible:outline-offset-2 peer-focus-visible:outline-act"
              style={{ background: `var(--${one})` }}
            />
          </label>
        ))}
      </div>
    </fieldset>
  );
}

const LISTED_WORDS = [
  ["open", "categories.whenItHasOpenConversations"],
  ["always", "categories.always"],
  ["never", "categories.never"],
] as const;

function ListedChoice({ category }: { category: CaredCategory | null }) {
  const say = useSay(categoriesTexts);
  const [listed, setListed] = useState<Listed>(category?.listed ?? "open");
  return (
    <Chosen label={say("categories.shownInMenus")}>
      <input type="hidden" name="listed" value={listed} />
      <Select
        label={say("categories.shownInMenus")}
        value={listed}
        choices={saidChoices(say, LISTED_WORDS)}
        onChoose={(one) => setListed(LISTED.find((each) => each === one) ?? "open")}
      />
    </Chosen>
  );
}

/** What a member wants otherwise for herself: kept as soon as it is chosen. */
function ListedForMe({ category }: { category: CaredCategory }) {
  const say = useSay(categoriesTexts);
  const { tray, preferences } = useTray();
  const { submit } = useFetcher();
  const choose = (listed: string) => {
    const { [category.id]: _, ...others } = preferences.categoriesListed;
    const value = listed === "" ? others : { ...others, [category.id]: listed };
    void submit(
      { name: "categories-listed", value: JSON.stringify(value) },
      { method: "post", action: `/${tray.slug}/settings` },
    );
  };
  return (
    <div className="mt-4 border-t border-rule pt-3">
      <Chosen label={say("categories.forMeOnly")}>
        <Select
          label={say("categories.forMeOnly")}
          value={category.listedForMe ?? ""}
          choices={[
            ["", say("categories.asForEverybody", { name: say(LISTED_NAMES[category.listed]) })],
            ...saidChoices(say, LISTED_WORDS),
          ]}
          onChoose={choose}
        />
      </Chosen>
    </div>
  );
}
