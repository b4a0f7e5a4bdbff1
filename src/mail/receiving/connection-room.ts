import type { Socket } from "node:net";

/** Who may be connected at a time, so that one sender cannot shut the others out. */
export type ConnectionRoom = {
  /** Counts a connection until it closes; it ends in any case after the longest time. */
  readonly enter: (socket: Socket) => void;
  /** Whether a connection that has entered may stay. */
  readonly admits: (address: string, port: number) => boolean;
  /** It said something, or (`busy`) is handing a message over. */
  readonly hears: (address: string, port: number, busy?: boolean) => void;
  /** Its message was taken: its network is known from now on. */
  readonly delivered: (address: string) => void;
};

export type ConnectionLimits = {
  readonly most: number;
  /** Kept free for networks that are known. */
  readonly reserved: number;
  readonly mostOfOneAddress: number;
  readonly longestMs: number;
  /** Idle for so long, it makes room for the next of its address. */
  readonly idleMs: number;
  readonly isKnown: (address: string) => boolean;
};

type Connection = {
  readonly socket: Socket;
  readonly address: string;
  heardAt: number;
  busy: boolean;
  leaving: boolean;
};

const MOST_NETWORKS = 5_000;

/** `now` tells milliseconds. */
export function connectionRoom(limits: ConnectionLimits, now: () => number = Date.now): ConnectionRoom {
  const connections = new Map<string, Connection>();
  // In the order in which they delivered last.
  const networks = new Set<string>();
  const staying = () => [...connections.values()].filter(({ leaving }) => !leaving);
  const isKnown = (address: string) => limits.isKnown(address) || networks.has(networkOf(address));
  const leave = (connection: Connection) => {
    connection.leaving = true;
    connection.socket.destroy();
  };
  const makeRoom = (among: readonly Connection[]): boolean => {
    const idle = among.filter(({ busy, heardAt }) => !busy && now() - heardAt >= limits.idleMs);
    const [longest] = idle.toSorted((a, b) => a.heardAt - b.heardAt);
    if (longest === undefined) return false;
    leave(longest);
    return true;
  };
  return {
    enter(socket) {
      const { remoteAddress: address = "", remotePort = 0 } = socket;
      const key = keyOf(address, remotePort);
      connections.set(key, { socket, address: plain(address), heardAt: now(), busy: false, leaving: false });
      const end = setTimeout(() => socket.destroy(), limits.longestMs).unref();
      socket.once("close", () => {
        clearTimeout(end);
        connections.delete(key);
      });
    },
    admits(address, port) {
      const own = connections.get(keyOf(address, port));
      const others = staying().filter((connection) => connection !== own);
      const ofAddress = others.filter((connection) => connection.address === own?.address);
      const most = isKnown(address) ? limits.most : limits.most - limits.reserved;
      const fits = ofAddress.length < limits.mostOfOneAddress || makeRoom(ofAddress);
      const admitted = fits && (others.length < most || makeRoom(others));
      if (!admitted && own !== undefined) own.leaving = true;
      return admitted;
    },
    hears(address, port, busy = false) {
      const connection = connections.get(keyOf(address, port));
      if (connection === undefined) return;
      connection.heardAt = now();
      connection.busy = busy;
    },
    delivered(address) {
      const network = networkOf(address);
      networks.delete(network);
      networks.add(network);
      const [oldest] = networks;
      if (networks.size > MOST_NETWORKS && oldest !== undefined) networks.delete(oldest);
    },
  };
}

// An address of IPv4 may come as one of IPv6 (RFC 4291 2.5.5.2).
const plain = (address: string) => address.replace(/^::ffff:(?=\d+\.)/i, "");
const keyOf = (address: string, port: number) => `${plain(address)} ${port}`;

// What one office has: 256 addresses of IPv4, or a /48 of IPv6 (RFC 6177).
function networkOf(address: string): string {
  const bare = plain(address);
  return bare.includes(":") ? bare.split(":").slice(0, 3).join(":") : bare.split(".").slice(0, 3).join(".");
}
