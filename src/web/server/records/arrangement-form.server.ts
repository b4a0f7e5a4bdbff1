import Joi from "joi";
import { type MemberId, trustedId } from "../../../core/kernel/ids";
import { err, ok, type Result } from "../../../core/kernel/result";
import type { Arrangement } from "../../../core/records/arrangement";
import type { HandedTo } from "../../../operations/index.server";
import { ID, SEEN_VERSION } from "../base/fields.server";
import { readJson } from "../base/read-json.server";
import { speak } from "../base/say.server";

/** Something that is done about one's own tree. */
export type ArrangementStep =
  | { readonly do: "keep"; readonly tree: Arrangement; readonly version: number }
  | { readonly do: "hand-out"; readonly to: HandedTo };

const MAX_NAME = 100;
const name = Joi.string().trim().allow("").max(MAX_NAME);
const ITEM = Joi.alternatives()
  .conditional(Joi.object({ kind: "folder" }).unknown(), {
    // biome-ignore lint/suspicious/noThenProperty: Joi names its branches so
    then: Joi.object({
      kind: Joi.valid("folder").required(),
      key: Joi.string().max(60).required(),
      name: Joi.string().trim().min(1).max(MAX_NAME).required(),
      items: Joi.array().items(Joi.link("#item")).max(500).required(),
    }),
    otherwise: Joi.object({
      kind: Joi.valid("record").required(),
      recordId: ID.required(),
      name: name.required(),
    }),
  })
  .id("item");
const TREE = Joi.array<Arrangement>().items(ITEM).max(500);
const VERSION = SEEN_VERSION.required();
const HAND_OUT = Joi.object({
  role: Joi.string().valid("lead", "member", "reader", "").default(""),
  members: Joi.array().items(ID).max(200).default([]),
});

/** The posted step; a refusal is a sentence. */
export function readArrangementStep(form: FormData): Result<ArrangementStep, string> {
  if (form.get("do") === "hand-out") {
    const given = HAND_OUT.validate({ role: form.get("role") ?? "", members: form.getAll("members") });
    if (given.error !== undefined) return err(speak("records.chooseToWhomItIs"));
    const { role, members } = given.value;
    if (role !== "") return ok({ do: "hand-out", to: { role } });
    return ok({ do: "hand-out", to: { memberIds: members.map((id: string) => trustedId<MemberId>(id)) } });
  }
  const tree = TREE.validate(readJson(String(form.get("tree") ?? "")), { stripUnknown: true });
  const version = VERSION.validate(form.get("version"));
  if (form.get("do") !== "keep" || tree.error !== undefined || tree.value == null || version.error !== undefined)
    return err(speak("records.thatIsNoTreeOf", { most: MAX_NAME }));
  return ok({ do: "keep", tree: tree.value as unknown as Arrangement, version: version.value });
}
