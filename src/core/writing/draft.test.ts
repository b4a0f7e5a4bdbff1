import { describe, expect, it } from "vitest";
import { type Draft, type DraftOnDevice, goOnWith, isSameDraft, type KeptDraft } from "./draft";

const draft = (html: string): Draft => ({ to: "a@x.example", cc: "", subject: "", html, after: "keep", day: "" });
const there = (html: string, version = 3, id = "d1"): KeptDraft => ({ id, version, draft: draft(html) });
const saved = (html: string, version = 3): DraftOnDevice => ({ ...there(html, version), isSaved: true });
const typed = (html: string, version = 3, id = "d1"): DraftOnDevice => ({
  ...there(html, version, id),
  isSaved: false,
});

describe("a draft goes on", () => {
  it("anew where there is none, or where it was sent or thrown away elsewhere", () => {
    expect(goOnWith(null, null)).toEqual({ kind: "new" });
    expect(goOnWith(saved("One"), null)).toEqual({ kind: "new" });
  });
  it("with what is on the server, where all that was typed here got there", () => {
    expect(goOnWith(null, there("One"))).toEqual({ kind: "there", kept: there("One") });
    expect(goOnWith(saved("One", 2), there("One and two"))).toEqual({ kind: "there", kept: there("One and two") });
    expect(goOnWith(typed("One", 2), there("One"))).toEqual({ kind: "there", kept: there("One") });
  });
  it("with what was typed here, where nobody wrote on it since or the server has none", () => {
    expect(goOnWith(typed("One more"), there("One"))).toEqual({ kind: "here", kept: typed("One more") });
    expect(goOnWith(typed("One more", 0), null)).toEqual({ kind: "here", kept: typed("One more", 0) });
  });
  it("with what was saved from here, where what is on the server was read before that", () => {
    expect(goOnWith(saved("One and two", 4), there("One"))).toEqual({ kind: "here", kept: saved("One and two", 4) });
  });
  it("with both side by side where another device wrote on it, or began another one", () => {
    for (const kept of [there("One else", 4), there("Other", 1, "d2")])
      expect(goOnWith(typed("One more"), kept)).toEqual({ kind: "differ", here: typed("One more"), there: kept });
  });
});

it("two drafts are the same whatever is left out or stands first", () => {
  const { html, ...rest } = draft("One");
  expect(isSameDraft(draft("One"), { html, ...rest, report: "", enclosures: [] })).toBe(true);
  expect(isSameDraft(draft("One"), { ...draft("One"), report: "on" })).toBe(false);
  expect(isSameDraft(draft("One"), draft("Two"))).toBe(false);
});
