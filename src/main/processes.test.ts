import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, describe, expect, it } from "vitest";
import { type ConversationId, type MemberId, type TrayId, trustedId } from "../core/kernel/ids";
import { takeFolder } from "./folder-lock";
import { liveHub } from "./live-hub";
import { portProblem } from "./port-problem";
import { freePort } from "./private-cluster";

const folder = mkdtempSync(join(tmpdir(), "common-tray-lock-"));
afterAll(() => rmSync(folder, { recursive: true }));

describe("a folder", () => {
  it("is taken by one process, and let go of", () => {
    const taken = takeFolder(folder);
    expect(readFileSync(join(folder, "process"), "utf8")).toBe(String(process.pid));
    if (taken.ok) taken.value();
    expect(() => readFileSync(join(folder, "process"))).toThrow();
  });
  it("is free again after a kill, when the number belongs to nobody or to another program", () => {
    for (const left of ["999999999", "1", "nonsense"]) {
      writeFileSync(join(folder, "process"), left);
      expect(takeFolder(folder).ok).toBe(true);
    }
  });
});

describe("open screens", () => {
  const change = (trayId: string) => ({
    id: trayId,
    trayId: trustedId<TrayId>(trayId),
    conversationIds: [trustedId<ConversationId>("c")],
  });
  it("hear of changes in their tray until they leave, or may not look any more, and of every gap", async () => {
    const hub = liveHub();
    const heard: string[] = [];
    let stays = true;
    const subscribe = (trayId: string) =>
      hub.subscribe({
        trayId: trustedId<TrayId>(trayId),
        memberId: trustedId<MemberId>(`member of ${trayId}`),
        mayStay: async () => stays,
        hear: () => heard.push(trayId),
        end: () => heard.push(`${trayId} ended`),
      });
    const leave = subscribe("office");
    subscribe("parts");
    hub.spread(change("office"));
    hub.spread(change("parts"));
    leave();
    hub.spread(change("office"));
    hub.spreadGap();
    hub.end();
    hub.spreadGap();
    expect(heard).toEqual(["office", "parts", "parts", "parts ended"]);
    subscribe("office");
    const hers = trustedId<MemberId>("member of office");
    hub.lookAgain(hers);
    stays = false;
    hub.lookAgain(trustedId<MemberId>("somebody else"));
    await new Promise((resolve) => setImmediate(resolve));
    expect(heard).toHaveLength(4);
    hub.lookAgain(hers);
    await expect.poll(() => heard.at(-1)).toBe("office ended");
  });
});

describe("counts that were behind", () => {
  it("are asked for by the screens of their tray, once, and by none after the end", async () => {
    const hub = liveHub();
    const heard: (readonly string[] | null)[] = [];
    const office = trustedId<TrayId>("office");
    const screen = { memberId: trustedId<MemberId>("ines"), mayStay: async () => true, end: () => {} };
    hub.subscribe({ ...screen, trayId: office, hear: ({ conversationIds }) => heard.push(conversationIds) });
    const state = hub.state(office);
    hub.askForCounts(office, 5);
    hub.askForCounts(office, 1);
    await expect.poll(() => heard).toEqual([[]]);
    expect(hub.state(office)).toBe(state);
    hub.askForCounts(office, 1);
    hub.end();
    await new Promise((resolve) => setTimeout(resolve, 10));
    expect(heard).toEqual([[]]);
  });
});

describe("the state of a tray", () => {
  const change = (id: string) => ({ id, trayId: trustedId<TrayId>("office"), conversationIds: null });
  const stateIn = (hub: ReturnType<typeof liveHub>) => hub.state(trustedId<TrayId>("office"));
  it("is the same word in processes that began together and heard the same, and in no others", () => {
    const [one, other, later] = [liveHub("begun"), liveHub("begun"), liveHub()];
    expect(stateIn(one)).toBe(stateIn(other));
    expect(stateIn(later)).not.toBe(stateIn(one));
    one.spread(change("first"));
    expect(stateIn(one)).not.toBe(stateIn(other));
    other.spread(change("first"));
    expect(stateIn(one)).toBe(stateIn(other));
    other.spreadGap();
    expect(stateIn(one)).not.toBe(stateIn(other));
  });
});

describe("a port", () => {
  it("that is free can be listened on", async () => {
    const port = await freePort();
    const server = createServer();
    await new Promise<void>((resolve) => server.listen(port, "127.0.0.1", resolve));
    expect(server.listening).toBe(true);
    server.close();
  });
  it.each([
    [Object.assign(new Error("x"), { code: "EADDRINUSE", port: 3000 }), "port 3000 is taken"],
    [Object.assign(new Error("x"), { code: "EACCES", port: 25 }), "above 1023"],
    [new Error("something else"), "something else"],
    ["text", "text"],
  ])("that cannot be had is told in words", (problem, words) => expect(portProblem(problem)).toContain(words));
});
