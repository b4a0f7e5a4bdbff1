import { describe, expect, it } from "vitest";
import { unflowed } from "./flowed-text";

const lines = (...some: readonly string[]) => some.join("\n");

describe("text of format=flowed", () => {
  it.each([
    ["lines that flow are one", lines("It started ", "again ", "yesterday."), "It started again yesterday."],
    ["a line that ends where it ends is one", lines("One.", "Two."), lines("One.", "Two.")],
    ["quoted ones as well, without their marks inside", lines("> It started ", "> again."), "> It started again."],
    ["at each depth for itself", lines(">> a ", ">> b", "> c ", "> d", "e ", "f"), lines(">> a b", "> c d", "e f")],
    ["marks are counted, with or without spaces after them", lines(">a ", ">b"), "> a b"],
    ["another depth ends a paragraph that was to go on", lines("> a ", "b"), lines("> a ", "b")],
    ["a stuffed space is taken off", lines(" From here ", " on"), "From here on"],
    ["after the marks as well", lines(">  indented ", "> on"), ">  indented on"],
    ["a stuffed mark is no quotation", lines(" > not quoted"), " > not quoted"],
    ["the signature's line stands for itself", lines("bye ", "-- ", "Ines"), lines("bye ", "-- ", "Ines")],
    ["in a quotation as well", lines("> bye", "> -- ", "> Ines"), lines("> bye", "> -- ", "> Ines")],
    ["empty lines part paragraphs", lines("a ", "", "b"), lines("a ", "", "b")],
    ["an empty quoted line has its mark alone", lines("> a", ">", "> b"), lines("> a", ">", "> b")],
    ["the last line may be cut off in its paragraph", "a ", "a "],
    ["CRLF is a line end", "a \r\nb\r\n", lines("a b", "")],
    ["nothing is nothing", "", ""],
  ])("%s", (_, text, read) => expect(unflowed(text, false)).toBe(read));

  it("with DelSp loses the space at which it was broken", () => {
    expect(unflowed(lines("Orgel ", "bau und  ", "mehr"), true)).toBe("Orgelbau und mehr");
    expect(unflowed(lines("> 日本 ", "> 語"), true)).toBe("> 日本語");
    expect(unflowed(lines("x", "-- ", "Ines"), true)).toBe(lines("x", "-- ", "Ines"));
  });
});
