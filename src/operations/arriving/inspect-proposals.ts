import { createReadStream } from "node:fs";
import { createInterface } from "node:readline";
import Joi from "joi";
import { type StreamEvent, StreamedTray, type StreamProposals } from "../../core/filing/stream";

const MAX_LINE = 8 * 1024 * 1024;

const id = Joi.string().max(200).required();
// An instant of ISO 8601, or milliseconds since 1970.
const at = Joi.date().iso().cast("number").required();
const text = Joi.string().allow("").required();
const address = Joi.object({ address: text, name: Joi.string().allow("", null).default("") }).unknown();
const decided = Joi.object({
  owner: Joi.string().allow(null).default(null),
  categories: Joi.array().items(Joi.string()).default([]),
  record: Joi.string().allow(null).default(null),
  settledUnanswered: Joi.boolean().default(false),
}).unknown();

const FIELDS: Readonly<Record<StreamEvent["event"], Joi.PartialSchemaMap>> = {
  record: { code: text, title: text, parent: Joi.string().allow(null).default(null) },
  "record-closed": {},
  member: { name: text },
  "member-left": {},
  away: { until: at, cover: Joi.string().allow(null, "").empty(null).default("") },
  conversation: {
    from: address.required(),
    to: Joi.array().default([]),
    listId: Joi.string().allow(null, "").default(null),
    kind: Joi.string().allow("", null).default("person"),
    subject: Joi.string().allow("").default(""),
    text: Joi.string().allow("").default(""),
    decided: decided.required(),
  },
};
const EVENTS = new Map(
  Object.entries(FIELDS).map(([name, fields]) => [
    name,
    Joi.object({ event: Joi.string().valid(name).required(), at, id, ...fields }).unknown(),
  ]),
);

/** A line of a stream that is no event, and why. */
export type BrokenLine = { readonly line: number; readonly problem: string };

/**
 * What would be proposed for each conversation of a stream of events (one JSON object a line, in the order of time) before
 * its decision is learned. Lines that are no events are told of, and the rest goes on.
 */
export async function* inspectProposals(
  path: string,
  onBroken: (broken: BrokenLine) => void,
): AsyncGenerator<StreamProposals> {
  const tray = new StreamedTray();
  let line = 0;
  for await (const written of createInterface({
    input: createReadStream(path, "utf8"),
    crlfDelay: Number.POSITIVE_INFINITY,
  })) {
    line += 1;
    if (written.trim() === "") continue;
    const read = readEvent(written);
    if (typeof read === "string") onBroken({ line, problem: read });
    else {
      const proposed = tray.take(read);
      if (proposed !== null) yield proposed;
    }
  }
}

function readEvent(line: string): StreamEvent | string {
  if (line.length > MAX_LINE) return `longer than ${MAX_LINE} characters`;
  let written: unknown;
  try {
    written = JSON.parse(line);
  } catch {
    return "no JSON";
  }
  const name = typeof written === "object" && written !== null && "event" in written ? String(written.event) : "";
  const schema = EVENTS.get(name);
  if (schema === undefined) return `${name === "" ? "it" : `"${name}"`} is no event that is known`;
  const { error, value } = schema.validate(written, { convert: true });
  return error === undefined ? (value as StreamEvent) : error.message;
}
