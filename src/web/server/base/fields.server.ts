import Joi from "joi";
import { UUID } from "../../../core/kernel/ids";

// PostgreSQL's integer.
const MOST_VERSION = 2_147_483_647;

/** An id of anything: a lower-case UUID, as ours are (Joi's own takes braces and colons as well). */
export const ID = Joi.string().pattern(UUID).messages({ "string.pattern.base": "server.thatIsNothingThatCan" });
/** An id of ours, or nothing. */
export const ID_OR_NONE = ID.allow("").default("");
/** The version of something that was seen; 0 for none. */
export const SEEN_VERSION = Joi.number().integer().min(0).max(MOST_VERSION);

/** Ids in an order, apart by spaces. */
export const ID_LIST = Joi.string()
  .max(40_000)
  .custom((text: string, helpers) => {
    const ids = text.split(" ").filter((one) => one !== "");
    return ids.every((one) => UUID.test(one)) ? ids : helpers.error("any.invalid");
  });
