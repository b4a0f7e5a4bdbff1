import { describe, expect, it } from "vitest";
import { readMailto } from "./mailto";

const nothing = { to: "", cc: "", subject: "", body: "" };

describe("a mailto link", () => {
  it.each([
    ["mailto:chris@x.example", { to: "chris@x.example" }],
    ["MailTo:a@x.example,b@y.example", { to: "a@x.example, b@y.example" }],
    ["mailto:?to=a@x.example&to=b@y.example&cc=c@z.example", { to: "a@x.example, b@y.example", cc: "c@z.example" }],
    ["mailto:a@x.example?subject=current-issue", { to: "a@x.example", subject: "current-issue" }],
    ["mailto:a@x.example?SUBJECT=Middle%20C&body=One%0D%0ATwo", { subject: "Middle C", body: "One\nTwo" }],
    ["mailto:gorby%25kremvax@x.example", { to: "gorby%kremvax@x.example" }],
    ["mailto:unlikely%3Faddress@x.example?blat=foop", { to: "unlikely?address@x.example" }],
    ["mailto:Mike%26family@x.example?body=a=b%26c", { to: "Mike&family@x.example", body: "a=b&c" }],
    ["mailto:user@x.example?subject=caf%C3%A9", { subject: "café" }],
    ["mailto:a+b@x.example?subject=1+1", { to: "a+b@x.example", subject: "1+1" }],
    ["mailto:a@x.example#part", { to: "a@x.example" }],
  ])("%s", (uri, asked) => expect(readMailto(uri)).toMatchObject(asked));

  it("takes nothing that is not harmless to begin with", () => {
    const uri = "mailto:a@x.example?bcc=b@y.example&attach=/etc/passwd&from=c@z.example&in-reply-to=%3Cx%3E";
    expect(readMailto(uri)).toEqual({ ...nothing, to: "a@x.example" });
  });
  it("begins no other field by a line break", () => {
    const uri =
      "mailto:a@x.example%0D%0ABcc:b@y.example?subject=One%0D%0ABcc:%20c@z.example&cc=d@x.example%0Ae@x.example";
    expect(readMailto(uri)).toEqual({
      ...nothing,
      to: "a@x.example Bcc:b@y.example",
      cc: "d@x.example e@x.example",
      subject: "One Bcc: c@z.example",
    });
  });
  it("is taken as it stands where it is not encoded as it should be", () =>
    expect(readMailto("mailto:a@x.example?subject=100%&body=%E9")).toMatchObject({ subject: "100%", body: "%E9" }));
  it.each(["", "a@x.example", "https://x.example", "mailto"])("%j is none", (text) =>
    expect(readMailto(text)).toBeNull(),
  );
  it("can begin with nothing", () => expect(readMailto("mailto:")).toEqual(nothing));
});
