import { describe, expect, it } from "vitest";
import { ChangeHub } from "./live-hub";

describe("what a page on its way missed", () => {
  it("is what the screens were told of after it was read", () => {
    const hub = new ChangeHub();
    hub.begin("a");
    hub.hear("b", ["one"]);
    hub.hear("c", ["two", "three"]);
    expect(hub.missedSince("a")).toEqual([]);
    hub.tellAll();
    expect(hub.missedSince("a")).toEqual(["one", "two", "three"]);
    expect(hub.missedSince("b")).toEqual(["two", "three"]);
    expect(hub.missedSince("c")).toEqual([]);
  });

  it("is nothing where the server was further than what it had said, and will still be told of what comes", () => {
    const hub = new ChangeHub();
    hub.begin("a");
    hub.hear("b", ["one"]);
    hub.tellAll();
    hub.hear("c", ["two"]);
    expect(hub.missedSince("d")).toEqual([]);
    expect(hub.missedSince("b")).toEqual([]);
  });

  it("is anything when that was told, and keeps its place while the oldest are forgotten", () => {
    const hub = new ChangeHub();
    hub.begin("a");
    for (let at = 0; at < 1_500; at++) hub.hear(`s${at}`, [`c${at}`]);
    hub.tellAll();
    expect(hub.missedSince("s1497")).toEqual(["c1498", "c1499"]);
    hub.hear("t", null);
    hub.hear("u", ["last"]);
    expect(hub.missedSince("s1498")).toEqual(["c1499"]);
    hub.tellAll();
    expect(hub.missedSince("s1498")).toBeNull();
    expect(hub.missedSince("t")).toEqual(["last"]);
  });

  it("begins anew with another line", () => {
    const hub = new ChangeHub();
    hub.begin("a");
    hub.hear("b", ["one"]);
    hub.tellAll();
    hub.begin("b");
    expect(hub.missedSince("a")).toEqual([]);
    hub.hear("c", ["two"]);
    hub.tellAll();
    expect(hub.missedSince("b")).toEqual(["two"]);
  });
});
