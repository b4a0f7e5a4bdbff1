import Joi from "joi";
import { data } from "react-router";
import { type MessageId, readId } from "../../../core/kernel/ids";
import { readTextPart } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { problemOf, speak } from "../../server/base/say.server";
import { textBlocks } from "../../server/conversation/text-blocks.server";
import type { Route } from "./+types/message-text";

const ASKED = Joi.object<{ of: "own" | "rest"; from: number }>({
  of: Joi.string().valid("own", "rest").default("own"),
  from: Joi.number().integer().min(0).max(2_000_000).default(0),
});

/** The next part of a long text, ready to be drawn. */
export async function loader({ request, params, context }: Route.LoaderArgs) {
  const id = readId<MessageId>(params.message);
  const { value, error } = ASKED.validate(Object.fromEntries(new URL(request.url).searchParams), {
    stripUnknown: true,
  });
  if (error !== undefined) throw data(problemOf(error), { status: 400 });
  const part = id.ok ? await readTextPart(context.get(depsContext), context.get(grantContext), id.value, value) : null;
  if (part === null) throw data(speak("server.noSuchMessage"), { status: 404 });
  return {
    blocks: textBlocks(part.text),
    next: part.left === 0 ? null : value.from + part.text.length,
    left: part.left,
  };
}
