import Joi from "joi";
import { type CategoryDraft, LISTED } from "../../../core/categories/category";
import { type CategoryId, type TrayId, trustedId } from "../../../core/kernel/ids";
import { INKS } from "../../../core/kernel/ink";
import { err, ok, type Result } from "../../../core/kernel/result";
import type { CategoryUses } from "../../../operations/index.server";
import { ID } from "../base/fields.server";
import { problemOf, speak } from "../base/say.server";

// Generous here: what is right for a name is said beside its field by whoever knows the tree.
const text = Joi.string().allow("").max(5_000).default("");
const count = Joi.number().integer().min(0).required();

const FIELDS = {
  name: text,
  code: text,
  ink: Joi.string()
    .valid(...INKS)
    .default(INKS[0]),
  key: text,
  description: text,
  listed: Joi.string()
    .valid(...LISTED)
    .default("open"),
  parent: ID.allow("").default(""),
};

const FORMS = {
  create: Joi.object({ ...FIELDS, common: Joi.boolean().default(false) }),
  change: Joi.object({ ...FIELDS, id: ID.required() }),
  place: Joi.object({ id: ID.required(), parent: ID.allow("").default(""), before: ID.allow("").default("") }),
  retire: Joi.object({ id: ID.required() }),
  "bring-back": Joi.object({ id: ID.required() }),
  end: Joi.object({
    id: ID.required(),
    by: ID.allow("").default(""),
    conversations: count,
    open: count,
    followUps: count,
    views: count,
    places: count,
    rules: count,
    contacts: count,
  }),
  right: Joi.object({ members: Joi.boolean().default(false) }),
  begin: Joi.object({ set: Joi.string().max(40).required() }),
} as const;

/** A change of categories as it was posted. */
export type PostedChange =
  | { readonly do: "create"; readonly draft: CategoryDraft }
  | { readonly do: "change"; readonly id: CategoryId; readonly draft: Omit<CategoryDraft, "trayId"> }
  | {
      readonly do: "place";
      readonly id: CategoryId;
      readonly parentId: CategoryId | null;
      readonly before: CategoryId | null;
    }
  | { readonly do: "retire" | "bring-back"; readonly id: CategoryId }
  | { readonly do: "end"; readonly id: CategoryId; readonly by: CategoryId | null; readonly announced: CategoryUses }
  | { readonly do: "right"; readonly members: boolean }
  | { readonly do: "begin"; readonly set: string };

/** What was posted, as a change of the categories of a tray, or of all (`common`); a refusal is a sentence. */
export function readCategoryChange(form: FormData, trayId: TrayId): Result<PostedChange, string> {
  const kind = String(form.get("do"));
  if (!isChange(kind)) return err(speak("categories.thatIsNothingToDo"));
  const { value, error } = FORMS[kind].validate(Object.fromEntries(form), { stripUnknown: true });
  if (error !== undefined) return err(problemOf(error));
  return ok(postedOf(kind, value, trayId));
}

function isChange(kind: string): kind is PostedChange["do"] {
  return Object.hasOwn(FORMS, kind);
}

function postedOf(kind: PostedChange["do"], value: Record<string, never>, trayId: TrayId): PostedChange {
  const idOf = (text: string) => (text === "" ? null : trustedId<CategoryId>(text));
  const [category, by] = [trustedId<CategoryId>(value.id ?? ""), idOf(value.by ?? "")];
  switch (kind) {
    case "create":
      return { do: kind, draft: { ...draftOf(value), trayId: value.common ? null : trayId } };
    case "change":
      return { do: kind, id: category, draft: draftOf(value) };
    case "place":
      return { do: kind, id: category, parentId: idOf(value.parent ?? ""), before: idOf(value.before ?? "") };
    case "retire":
    case "bring-back":
      return { do: kind, id: category };
    case "end": {
      const { conversations = 0, open = 0, followUps = 0, views = 0, places = 0, rules = 0, contacts = 0 } = value;
      const announced = { conversations, open, followUps, views, places, rules, contacts };
      return { do: kind, id: category, by, announced };
    }
    case "right":
      return { do: kind, members: value.members ?? false };
    case "begin":
      return { do: kind, set: value.set ?? "" };
  }
}

function draftOf(value: Record<string, string>): Omit<CategoryDraft, "trayId"> {
  const { name = "", code = "", key = "", description = "", parent = "" } = value;
  return {
    name,
    code,
    description,
    key: key.trim() === "" ? null : key,
    ink: value.ink as CategoryDraft["ink"],
    listed: value.listed as CategoryDraft["listed"],
    parentId: parent === "" ? null : trustedId<CategoryId>(parent),
  };
}
