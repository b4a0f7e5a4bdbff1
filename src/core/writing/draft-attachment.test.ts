import { describe, expect, it } from "vitest";
import { mentionsAttachment } from "./draft-attachment";

describe("a text that says that something goes along", () => {
  it.each([
    "Please find the attached drawing.",
    "Attached you will find the offer.",
    "I have attached the plan of the loft.",
    "We enclose two samples.",
    "The invoice is enclosed.",
    "You will find the list in the attachment.",
    "Anbei die Zeichnung.",
    "Vous trouverez ci-joint le devis.",
    "De tekening is bijgevoegd.",
    "Le envío adjunto el plano.",
  ])("is heard: %s", (text) => expect(mentionsAttachment(`Dear all. ${text} Best wishes.`)).toBe(text));

  it.each([
    "Is the drawing with it?",
    "Thank you for your attachment.",
    "The pipes are attached to the chest by screws; we look at them on Monday.",
    "We came on Tuesday.",
    "",
  ])("is not heard in: %s", (text) => expect(mentionsAttachment(text)).toBeNull());
});
