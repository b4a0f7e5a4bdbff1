import { describe, expect, it } from "vitest";
import { listIdIn, listNameIn, waysToLeave } from "./ways-to-leave";

const PAGE = "https://list.example/leave?id=7";

it.each([
  ["Tin Guild news <News.tinguild.example>", "news.tinguild.example"],
  ["<one.example>", "one.example"],
  [" bare.example ", "bare.example"],
])("the list of %j is %j", (field, id) => expect(listIdIn(field)).toBe(id));

describe("the ways to leave a list", () => {
  it("are at once where the sender says so for an https address", () => {
    expect(waysToLeave([PAGE], true)).toEqual({ atOnce: PAGE, mail: null, page: PAGE });
    expect(waysToLeave([PAGE], false)).toEqual({ atOnce: null, mail: null, page: PAGE });
    expect(waysToLeave(["http://list.example/leave"], true)?.atOnce).toBeNull();
  });
  it("are a message with its subject and body", () => {
    expect(waysToLeave(["mailto:leave@list.example?subject=stop%20it&body=number%207"], false)?.mail).toEqual({
      to: "leave@list.example",
      subject: "stop it",
      body: "number 7",
    });
    expect(waysToLeave(["mailto:leave%2Btoken@list.example"], false)?.mail).toEqual({
      to: "leave+token@list.example",
      subject: "unsubscribe",
      body: "unsubscribe",
    });
  });
  it("keep the sender's first of each kind, and prefer a page that is secure", () => {
    const ways = waysToLeave(["http://a.example/", PAGE, "mailto:one@a.example", "mailto:two@a.example"], true);
    expect(ways).toMatchObject({ atOnce: PAGE, page: PAGE, mail: { to: "one@a.example" } });
  });
  it("put no further fields or lines into a message", () => {
    const mail = waysToLeave(["mailto:l@a.example?Subject=x%0d%0aBcc:y@b.example&cc=z@c.example"], false)?.mail;
    expect(mail).toEqual({ to: "l@a.example", subject: "x Bcc:y@b.example", body: "unsubscribe" });
  });
  it.each([
    [[]],
    [["not a uri"]],
    [["mailto:nobody"]],
    [["ftp://a.example/leave"]],
    [["javascript:alert(1)"]],
    [[`https://a.example/${"x".repeat(3_000)}`]],
  ])("are none in %j", (uris) => expect(waysToLeave(uris, true)).toBeNull());
  it("reads a broken percent sign as it stands", () => {
    expect(waysToLeave(["mailto:l@a.example?subject=100%"], false)?.mail?.subject).toBe("100%");
  });
});

it.each([
  ["The Rolling Page <page.tinguild.example>", "The Rolling Page"],
  ['"Ringers, all of them" <all.tinguild.example>', "Ringers, all of them"],
  ["<page.tinguild.example>", null],
  ["page.tinguild.example", null],
])("a list calls itself in %j %j", (field, name) => expect(listNameIn(field)).toBe(name));
