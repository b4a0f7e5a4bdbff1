import Joi from "joi";
import { type GroupId, type InvitationId, type MemberId, trustedId } from "../../../core/kernel/ids";
import { err, ok, type Result } from "../../../core/kernel/result";
import type { HandOver, Role } from "../../../operations/index.server";
import { ID } from "../base/fields.server";
import { problemsByField, speak } from "../base/say.server";

/** What is wrong, by the name of the field. */
export type MembersProblems = Readonly<Record<string, string>>;

/** Something that those who lead a tray do about its people. */
export type MembersStep =
  | { readonly do: "role"; readonly memberId: MemberId; readonly role: Role }
  | { readonly do: "invite"; readonly role: Role }
  | { readonly do: "take-back"; readonly id: InvitationId }
  | { readonly do: "let-in"; readonly memberId: MemberId }
  | { readonly do: "shut-out"; readonly memberId: MemberId; readonly handOver: HandOver }
  | {
      readonly do: "group";
      readonly id: GroupId | null;
      readonly name: string;
      readonly memberIds: readonly MemberId[];
    }
  | { readonly do: "drop-group"; readonly id: GroupId };

const MAX_NAME = 60;
const role = Joi.string().valid("lead", "member", "reader").required();

const FORMS = {
  role: Joi.object({ member: ID.required(), role }),
  invite: Joi.object({ role }),
  "take-back": Joi.object({ id: ID.required() }),
  "let-in": Joi.object({ member: ID.required() }),
  "shut-out": Joi.object({
    member: ID.required(),
    // Nothing stays with nobody by oversight: even that is chosen.
    to: Joi.string()
      .pattern(/^(nobody|(to|group) [0-9a-f-]{36})$/)
      .required()
      .messages({ "*": "people.chooseWhoTakesOver" }),
  }),
  group: Joi.object({
    id: ID.allow("").default(""),
    name: Joi.string().trim().max(MAX_NAME).required().messages({
      "string.empty": "people.giveTheGroupAName",
      "any.required": "people.giveTheGroupAName",
      "string.max": "people.aNameHasAtMost",
    }),
    members: Joi.array().items(ID).min(1).required().messages({ "array.min": "people.chooseItsMembers" }),
  }),
  "drop-group": Joi.object({ id: ID.required() }),
} as const;

/** The posted step, or what is wrong with its fields. */
export function readMembersStep(form: FormData): Result<MembersStep, MembersProblems> {
  const kind = String(form.get("do"));
  if (!isKnown(kind)) return err({ do: speak("people.thatIsNothingThatCan") });
  const posted = { ...Object.fromEntries(form), ...(kind === "group" ? { members: form.getAll("members") } : {}) };
  const { value, error } = FORMS[kind].validate(posted, { abortEarly: false, stripUnknown: true });
  if (error !== undefined) {
    return err(problemsByField(error));
  }
  return ok(STEPS[kind](value));
}

function isKnown(kind: string): kind is keyof typeof FORMS {
  return Object.hasOwn(FORMS, kind);
}

// biome-ignore lint/suspicious/noExplicitAny: what Joi checked by the form of the same name
const STEPS: { readonly [Kind in keyof typeof FORMS]: (value: any) => MembersStep } = {
  role: ({ member, role: given }) => ({ do: "role", memberId: trustedId<MemberId>(member), role: given }),
  invite: ({ role: given }) => ({ do: "invite", role: given }),
  "take-back": (value) => ({ do: "take-back", id: trustedId<InvitationId>(value.id) }),
  "let-in": ({ member }) => ({ do: "let-in", memberId: trustedId<MemberId>(member) }),
  "shut-out": ({ member, to }) => ({
    do: "shut-out",
    memberId: trustedId<MemberId>(member),
    handOver: handOverOf(to),
  }),
  group: ({ id: given, name, members }) => ({
    do: "group",
    id: given === "" ? null : trustedId<GroupId>(given),
    name,
    memberIds: [...new Set<string>(members)].map((one) => trustedId<MemberId>(one)),
  }),
  "drop-group": (value) => ({ do: "drop-group", id: trustedId<GroupId>(value.id) }),
};

function handOverOf(to: string): HandOver {
  const [kind, which = ""] = to.split(" ");
  if (kind === "to") return { kind: "to", memberId: trustedId<MemberId>(which) };
  return kind === "group" ? { kind: "in-turn", groupId: trustedId<GroupId>(which) } : { kind: "nobody" };
}
