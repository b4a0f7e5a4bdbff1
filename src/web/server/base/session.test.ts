import { RouterContextProvider } from "react-router";
import { describe, expect, it } from "vitest";
import { instant } from "../../../core/kernel/instant";
import { liveHub } from "../../../main/live-hub";
import type { Deps, Member, TrayGrant } from "../../../operations/index.server";
import { loader as live } from "../../routes/shell/live";
import { depsContext, grantContext, liveContext, memberContext, secureCookiesContext } from "./context.server";
import { dropSession, sessionToken, setSessionCookie } from "./session-cookie.server";

function contextWith(secure: boolean): RouterContextProvider {
  const context = new RouterContextProvider();
  context.set(secureCookiesContext, secure);
  return context;
}
const expiresAt = instant(Date.UTC(2030, 0, 1));
const requestWith = (cookie: string) => new Request("http://localhost/", { headers: { cookie } });

describe("the session's cookie", () => {
  it("brings its token back, and is out of reach for scripts and other sites", async () => {
    const header = await setSessionCookie({ token: "secret-token", expiresAt }, contextWith(true));
    expect(await sessionToken(requestWith(header.split(";")[0] ?? ""))).toBe("secret-token");
    for (const part of ["HttpOnly", "Secure", "SameSite=Lax", "Path=/", "Expires=Tue, 01 Jan 2030"]) {
      expect(header).toContain(part);
    }
  });
  it("goes without TLS only where that was set", async () => {
    expect(await setSessionCookie({ token: "x", expiresAt }, contextWith(false))).not.toContain("Secure");
  });
  it("ends at once when one signs out", async () => {
    const header = await dropSession(contextWith(true));
    expect(header).toContain("Max-Age=0");
    expect(await sessionToken(requestWith(header.split(";")[0] ?? ""))).toBeNull();
  });
  it.each(["", "tray-session=", "tray-session=%%%", "other=1"])("is nothing in %j", async (cookie) => {
    expect(await sessionToken(requestWith(cookie))).toBeNull();
  });
});

describe("the stream of live changes", () => {
  const open = (trayId: string, signal: AbortSignal, hub: ReturnType<typeof liveHub>, seen?: string, lost?: string) => {
    const context = contextWith(false);
    context.set(grantContext, { tray: { id: trayId } } as unknown as TrayGrant);
    context.set(liveContext, hub);
    context.set(depsContext, {} as Deps);
    context.set(memberContext, { id: "somebody" } as unknown as Member);
    const url = `http://localhost/office/live?seen=${seen ?? hub.state(trayId as never)}`;
    const headers: HeadersInit = lost === undefined ? {} : { "Last-Event-ID": lost };
    return live({ request: new Request(url, { signal, headers }), context } as never);
  };
  const read = async (reader: ReadableStreamDefaultReader<Uint8Array>) =>
    new TextDecoder().decode((await reader.read()).value);

  it("says each change of its tray, and ends with the server", async () => {
    const hub = liveHub();
    const response = open("office", new AbortController().signal, hub);
    expect(response.headers.get("content-type")).toBe("text/event-stream");
    expect(response.headers.get("cache-control")).toContain("no-transform");
    const reader = (response.body as ReadableStream<Uint8Array>).getReader();
    expect(await read(reader)).toBe("retry: 1000\n\n");
    hub.spread({ id: "1", trayId: "parts" as never, conversationIds: null });
    hub.spread({ id: "2", trayId: "office" as never, conversationIds: null });
    expect(await read(reader)).toBe(`event: change\nid: ${hub.state("office" as never)}\ndata: null\n\n`);
    hub.spread({ id: "2a", trayId: "office" as never, conversationIds: ["one" as never], only: "presence" });
    expect(await read(reader)).toBe('event: presence\ndata: ["one"]\n\n');
    hub.end();
    expect((await reader.read()).done).toBe(true);
  });

  it("says at once that something changed since the page was read, or that it cannot know", async () => {
    const hub = liveHub();
    const seen = hub.state("office" as never);
    const said = (ids: string) => `event: change\nid: ${hub.state("office" as never)}\ndata: ${ids}\n\n`;
    const first = async (state: string, lost?: string) => {
      const leaving = new AbortController();
      const response = open("office", leaving.signal, hub, state, lost);
      const reader = (response.body as ReadableStream<Uint8Array>).getReader();
      await read(reader);
      const next = await Promise.race([
        read(reader),
        new Promise((resolve) => setImmediate(resolve)).then(() => "nothing"),
      ]);
      leaving.abort();
      return next;
    };
    hub.spread({ id: "3", trayId: "parts" as never, conversationIds: null });
    expect(await first(seen)).toBe("nothing");
    hub.spread({ id: "4", trayId: "office" as never, conversationIds: ["one" as never] });
    hub.spread({ id: "4a", trayId: "office" as never, conversationIds: ["other" as never], only: "presence" });
    hub.spread({ id: "4b", trayId: "office" as never, conversationIds: ["two" as never] });
    expect(await first(seen)).toBe(said('["one","two"]'));
    const later = hub.state("office" as never);
    // A line that was lost says where it was, which is further than the page.
    expect(await first(seen, later)).toBe("nothing");
    hub.spread({ id: "4c", trayId: "office" as never, conversationIds: null });
    expect(await first(later)).toBe(said("null"));
    expect(await first(hub.state("office" as never))).toBe("nothing");
    const before = hub.state("office" as never);
    const many = Array.from({ length: 101 }, (_, at) => `change ${at}`);
    for (const id of many) hub.spread({ id, trayId: "office" as never, conversationIds: ["one" as never] });
    expect(await first(before)).toBe(said("null"));
    hub.spreadGap();
    expect(await first(before)).toContain("change");
    expect(await first(liveHub().state("office" as never))).toContain("change");
  });

  it("is left when the browser goes away", async () => {
    const hub = liveHub();
    const leaving = new AbortController();
    const response = open("office", leaving.signal, hub);
    const reader = (response.body as ReadableStream<Uint8Array>).getReader();
    await read(reader);
    leaving.abort();
    hub.spread({ id: "5", trayId: "office" as never, conversationIds: null });
    const next = await Promise.race([reader.read(), Promise.resolve("nothing")]);
    expect(next).toBe("nothing");
  });
});
