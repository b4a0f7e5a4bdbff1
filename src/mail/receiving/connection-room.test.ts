import { EventEmitter } from "node:events";
import type { Socket } from "node:net";
import { describe, expect, it } from "vitest";
import { connectionRoom } from "./connection-room";

function aRoom(given: Partial<Parameters<typeof connectionRoom>[0]> = {}) {
  const clock = { now: 0 };
  const limits = { most: 10, reserved: 3, mostOfOneAddress: 4, longestMs: 60_000, idleMs: 1_000, isKnown: () => false };
  const room = connectionRoom({ ...limits, ...given }, () => clock.now);
  let port = 0;
  const connect = (address: string) => {
    port += 1;
    const events = new EventEmitter();
    const socket = Object.assign(events, {
      remoteAddress: address,
      remotePort: port,
      destroyed: false,
      destroy() {
        this.destroyed = true;
        events.emit("close");
      },
    });
    room.enter(socket as unknown as Socket);
    const stays = room.admits(address, port);
    if (!stays) socket.destroy();
    return { stays, socket, port };
  };
  return { room, clock, connect };
}

describe("connections", () => {
  it("of one address are limited, and an idle one makes room for the next", () => {
    const { clock, connect } = aRoom();
    const first = Array.from({ length: 6 }, () => connect("10.0.0.1"));
    expect(first.map(({ stays }) => stays)).toEqual([true, true, true, true, false, false]);
    expect(connect("10.0.0.2").stays).toBe(true);
    clock.now = 1_500;
    expect(connect("::ffff:10.0.0.1").stays).toBe(true);
    expect(first.map(({ socket }) => socket.destroyed).slice(0, 4)).toEqual([true, false, false, false]);
  });

  it("that hand a message over, or just said something, make no room", () => {
    const { room, clock, connect } = aRoom({ mostOfOneAddress: 2 });
    const [one, two] = [connect("10.0.0.1"), connect("10.0.0.1")];
    room.hears("10.0.0.1", one.port, true);
    clock.now = 1_500;
    room.hears("10.0.0.1", two.port);
    expect(connect("10.0.0.1").stays).toBe(false);
    room.hears("10.0.0.1", one.port);
    clock.now = 3_000;
    expect(connect("10.0.0.1").stays).toBe(true);
  });

  it("leave room for networks that are known: those that are set, and those that have delivered", () => {
    const { room, connect } = aRoom({ isKnown: (address) => address.startsWith("192.168.") });
    room.delivered("10.1.2.3");
    const strangers = Array.from({ length: 9 }, (_, at) => connect(`172.16.${at}.1`).stays);
    expect(strangers.filter(Boolean)).toHaveLength(7);
    expect([connect("192.168.0.1").stays, connect("10.1.2.99").stays, connect("10.1.3.1").stays]).toEqual([
      true,
      true,
      false,
    ]);
  });
});
