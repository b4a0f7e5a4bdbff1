import { sayIn } from "../../texts/say";

/** Says what is kept or sent for everybody, whatever language they read the screens in: journal, notifications, mails. */
export const writtenDown = sayIn("en");
