import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { inEnglish } from "@tests/support/english";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { startLeavingSite } from "../outside-world/leaving-site";
import { isInside, oneClickLeaver } from "./one-click";

describe("an address", () => {
  it.each([
    "127.0.0.1",
    "10.1.2.3",
    "172.31.0.1",
    "192.168.7.7",
    "169.254.169.254",
    "0.0.0.0",
    "::1",
    "fd00::1",
    "fe80::1",
    "::ffff:10.0.0.1",
    "::ffff:7f00:1",
    "224.0.0.1",
    "192.0.2.7",
    "100.64.0.1",
    "255.255.255.255",
    "64:ff9b::7f00:1",
    "64:ff9b:1::1",
    "2002:7f00:1::",
    "2001::1",
    "2001:db8::1",
    "100::1",
    "ff02::1",
    "no address",
  ])("inside: %s", (address) => expect(isInside(address)).toBe(true));
  it.each(["172.32.0.1", "8.8.4.4", "2606:4700::1", "::ffff:8.8.4.4"])("outside: %s", (address) =>
    expect(isInside(address)).toBe(false),
  );
});

describe("leaving at once", () => {
  it("posts what RFC 8058 asks for, and nothing that says who we are", async () => {
    const site = await startLeavingSite("127.0.0.1");
    const leaver = oneClickLeaver(`http://127.0.0.1:${site.port}`);
    expect(inEnglish(await leaver.leave("https://list.example/leave?n=7"))).toEqual({ kind: "left" });
    expect(site.asked).toEqual(["list.example/leave?n=7 List-Unsubscribe=One-Click"]);
    expect(inEnglish(await leaver.leave("https://list.example/elsewhere"))).toEqual({
      kind: "refused",
      reason: "the site answered 404",
    });
    await site.close();
    expect(inEnglish(await leaver.leave("https://list.example/leave"))).toEqual({
      kind: "not-now",
      reason: "the site could not be reached",
    });
  });

  it.each([
    ["http://list.example/leave", { kind: "refused", reason: "the address is not a safe one" }],
    ["https://127.0.0.1/leave", { kind: "not-now", reason: "the address leads to a network of ours" }],
    ["https://[::1]/leave", { kind: "not-now", reason: "the address leads to a network of ours" }],
    ["https://localhost/leave", { kind: "not-now", reason: "the address leads to a network of ours" }],
  ])("does not ask %s", async (url, outcome) =>
    expect(inEnglish(await oneClickLeaver(null).leave(url))).toEqual(outcome),
  );

  describe("at a site that answers oddly", () => {
    let server: Server;
    let status = 302;
    const headers: Record<string, unknown>[] = [];
    beforeAll(async () => {
      server = createServer((request, response) => {
        headers.push(request.headers);
        response.writeHead(status, { Location: "/leave-twice" }).end();
      });
      await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
    });
    afterAll(() => new Promise<void>((resolve) => server.close(() => resolve())));
    const leave = () =>
      oneClickLeaver(`http://127.0.0.1:${(server.address() as AddressInfo).port}`).leave("https://list.example/leave");

    it("follows no redirection", async () => {
      expect(inEnglish(await leave())).toEqual({ kind: "refused", reason: "the site answered 302" });
      expect(headers).toHaveLength(1);
      expect(Object.keys(headers[0] ?? {}).toSorted()).toEqual([
        "connection",
        "content-length",
        "content-type",
        "host",
      ]);
    });
    it.each([
      [503, "not-now"],
      [429, "not-now"],
      [410, "refused"],
      [202, "left"],
    ] as const)("takes %i for %s", async (answered, kind) => {
      status = answered;
      expect((await leave()).kind).toBe(kind);
    });
  });
});
