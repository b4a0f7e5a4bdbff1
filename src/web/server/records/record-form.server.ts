import Joi from "joi";
import { type GroupId, type MemberId, type RecordId, type RecordTypeId, trustedId } from "../../../core/kernel/ids";
import { err, ok, type Result } from "../../../core/kernel/result";
import { FIELD_KINDS } from "../../../core/records/filing-field";
import type { EntryDraft } from "../../../core/records/register-entry";
import { type Deps, recordOfCode, type TrayGrant, type TypeDraft } from "../../../operations/index.server";
import { ID, ID_OR_NONE, SEEN_VERSION } from "../base/fields.server";
import { readJson } from "../base/read-json.server";
import { speak } from "../base/say.server";

/** Something that is done about a record; `version` is that of the one that was seen. */
export type RecordStep =
  | { readonly do: "keep"; readonly draft: EntryDraft & { readonly version: number } }
  | { readonly do: "close" | "reopen" }
  | { readonly do: "merge"; readonly into: RecordId };

// Generous here: what is right for a field is said beside it by whoever knows.
const MAX_TYPED = 20_000;
const MAX_CODE = 40;
const typed = Joi.string().allow("").max(MAX_TYPED).default("");
const ids = Joi.array().items(ID).max(200).default([]);

const KEEP = Joi.object({
  type: ID.required(),
  version: SEEN_VERSION.default(0),
  responsible: ID_OR_NONE,
  title: typed,
  parent: typed,
  addresses: typed,
  note: typed,
  access: Joi.string().valid("all", "some").default("all"),
  members: ids,
  groups: ids,
});

/** The posted step; what is wrong is said by field. */
export async function readRecordStep(
  deps: Deps,
  grant: TrayGrant,
  form: FormData,
): Promise<Result<RecordStep, Readonly<Record<string, string>>>> {
  const step = form.get("do");
  if (step === "close" || step === "reopen") return ok({ do: step });
  if (step === "merge") return readMerge(deps, grant, String(form.get("into") ?? ""));
  const posted = { ...Object.fromEntries(form), members: form.getAll("members"), groups: form.getAll("groups") };
  const { value, error } = KEEP.validate(posted, { stripUnknown: true });
  if (step !== "keep" || error !== undefined) return err({ title: speak("records.thatIsTooMuchOr") });
  const code = value.parent.trim().toUpperCase();
  const parent = code === "" ? null : await recordOfCode(deps, grant, code);
  if (code !== "" && parent === null) return err({ parentId: speak("records.thereIsNoRecord", { code }) });
  const access =
    value.access === "all"
      ? null
      : {
          memberIds: value.members.map((id: string) => trustedId<MemberId>(id)),
          groupIds: value.groups.map((id: string) => trustedId<GroupId>(id)),
        };
  return ok({
    do: "keep",
    draft: {
      typeId: trustedId<RecordTypeId>(value.type),
      title: value.title,
      addresses: value.addresses,
      note: value.note,
      version: value.version,
      access,
      parentId: parent?.id ?? null,
      responsibleId: value.responsible === "" ? null : trustedId<MemberId>(value.responsible),
    },
  });
}

async function readMerge(
  deps: Deps,
  grant: TrayGrant,
  text: string,
): Promise<Result<RecordStep, Readonly<Record<string, string>>>> {
  const code = text.trim().toUpperCase();
  const into = await recordOfCode(deps, grant, code.slice(0, MAX_CODE));
  return into === null
    ? err({ code: speak("records.thereIsNoRecord", { code: code || speak("records.withoutACode") }) })
    : ok({ do: "merge", into: into.id });
}

const FIELDS = Joi.array()
  .max(50)
  .items(
    Joi.object({
      key: Joi.string().max(40).required(),
      label: typed,
      kind: Joi.string()
        .valid(...FIELD_KINDS)
        .required(),
      required: Joi.boolean().default(false),
      remembers: Joi.boolean().default(false),
      choices: Joi.array().items(Joi.string().trim().max(200)).max(100).default([]),
      start: typed,
    }),
  )
  .default([]);

const TYPE = Joi.object({
  id: ID_OR_NONE,
  name: typed,
  codePattern: typed,
  fields: FIELDS,
});

/** The posted type of records; a refusal is a sentence. */
export function readTypeDraft(form: FormData): Result<TypeDraft, string> {
  const posted = { ...Object.fromEntries(form), fields: readJson(String(form.get("fields") ?? "[]")) };
  const { value, error } = TYPE.validate(posted, { stripUnknown: true });
  if (error !== undefined) return err(speak("records.thatIsTooMuchOrNo"));
  const { id, ...type } = value;
  return ok({ ...type, id: id === "" ? null : trustedId<RecordTypeId>(id) });
}
