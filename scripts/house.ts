import { readFileSync, writeFileSync } from "node:fs";
import { instance } from "@viz-js/viz";
import { cruise, type ICruiseResult } from "dependency-cruiser";
import extractTSConfig from "dependency-cruiser/config-utl/extract-ts-config";

// Reads the house from its imports: finds circles between the rooms of a layer and rooms that are too large, and draws it.

const PICTURE = "docs/architecture.svg";
const MOST_FILES = 25;
/** The layers as they stand upon each other, the highest first. Where it has rooms, every file is in one of them. */
const LAYERS: readonly { readonly folder: string; readonly floor: number; readonly hasRooms: boolean }[] = [
  { folder: "main", floor: 0, hasRooms: false },
  { folder: "cli", floor: 1, hasRooms: false },
  { folder: "jobs", floor: 1, hasRooms: false },
  { folder: "demo", floor: 1, hasRooms: false },
  { folder: "web/routes", floor: 1, hasRooms: true },
  { folder: "web/screens", floor: 1, hasRooms: true },
  { folder: "web/server", floor: 1, hasRooms: true },
  { folder: "web/keys", floor: 1, hasRooms: false },
  { folder: "web/ui", floor: 1, hasRooms: false },
  { folder: "operations", floor: 2, hasRooms: true },
  { folder: "storage", floor: 3, hasRooms: true },
  { folder: "mail", floor: 3, hasRooms: true },
  { folder: "core", floor: 4, hasRooms: true },
];
// A migration is a file of its own for good.
const GROWS_FOR_GOOD = new Set(["src/storage/migrations"]);

type Room = { readonly name: string; readonly layer: string; files: number; readonly uses: Set<string> };

const isTest = (file: string) => /\.test\.tsx?$/.test(file);

/** The rooms and layers of a folder of sources, and which of them import which. */
async function readHouse(): Promise<Map<string, Room>> {
  const { output } = await cruise(["src"], { includeOnly: "^src/", tsPreCompilationDeps: true }, undefined, {
    tsConfig: extractTSConfig("tsconfig.json"),
  });
  const rooms = new Map<string, Room>();
  const roomOf = (file: string): Room | null => {
    const layer = LAYERS.find(({ folder }) => file.startsWith(`src/${folder}/`));
    if (layer === undefined) return null;
    const inside = file.slice(`src/${layer.folder}/`.length);
    const name =
      layer.hasRooms && inside.includes("/") ? `src/${layer.folder}/${inside.split("/")[0]}` : `src/${layer.folder}`;
    const room = rooms.get(name) ?? { name, layer: layer.folder, files: 0, uses: new Set<string>() };
    rooms.set(name, room);
    return room;
  };
  for (const { source, dependencies } of (output as ICruiseResult).modules) {
    const room = isTest(source) ? null : roomOf(source);
    if (room === null) continue;
    room.files += 1;
    for (const { resolved } of dependencies) {
      const used = roomOf(resolved);
      if (used !== null && used !== room) room.uses.add(used.name);
    }
  }
  return rooms;
}

/** What is wrong with a house: rooms that import each other in a circle, and rooms with too many files. */
function wrongWith(rooms: ReadonlyMap<string, Room>): string[] {
  const large = [...rooms.values()].filter(
    ({ name, layer, files }) => files > MOST_FILES && name !== `src/${layer}` && !GROWS_FOR_GOOD.has(name),
  );
  return [
    ...LAYERS.flatMap(({ folder }) => circlesIn([...rooms.values()].filter(({ layer }) => layer === folder))),
    ...large.map(({ name, files }) => `${name} has ${files} files: at most ${MOST_FILES} are in a room`),
  ];
}

// Whatever uses nothing of what is left, or is not used by it, is taken away again and again; what stays uses itself by others.
function circlesIn(rooms: readonly Room[]): string[] {
  let left = rooms;
  for (;;) {
    const names = new Set(left.map(({ name }) => name));
    const used = new Set(left.flatMap(({ uses }) => [...uses]));
    const next = left.filter(({ name, uses }) => used.has(name) && [...uses].some((one) => names.has(one)));
    if (next.length === left.length) break;
    left = next;
  }
  const names = new Set(left.map(({ name }) => name));
  return left.map(
    ({ name, uses }) =>
      `${name} is in a circle of rooms: it imports ${[...uses].filter((one) => names.has(one)).join(", ")}`,
  );
}

/** Which rooms of a layer import which, without what follows from the others: an arrow from a to c is left out where a imports b and b imports c. */
function arrowsOf(rooms: readonly Room[]): (readonly [from: string, to: string])[] {
  const byName = new Map(rooms.map((room) => [room.name, room]));
  const within = (room: Room) => [...room.uses].flatMap((name) => byName.get(name) ?? []);
  const reached = (room: Room): Set<string> => new Set(within(room).flatMap((used) => [used.name, ...reached(used)]));
  return rooms.flatMap((room) => {
    const further = new Set(within(room).flatMap((used) => [...reached(used)]));
    return within(room)
      .filter(({ name }) => !further.has(name))
      .map(({ name }) => [room.name, name] as const);
  });
}

const LOOK = `
  rankdir=TB; ranksep=0.28; nodesep=0.14; compound=true; bgcolor="white"; fontname="Helvetica"; pad=0.2;
  node [shape=box, style="filled,rounded", fillcolor="#f4f6f4", color="#9aa8a0", fontname="Helvetica", fontsize=10, height=0.24, margin="0.09,0.03"];
  edge [color="#7c8a84", arrowsize=0.5];`;

const FRAME = `labeljust=l; fontname="Helvetica"; fontsize=11; color="#c9d2cd";`;

/** A house as a picture: a frame for each layer with its rooms, and in it which of them imports which. */
async function drawn(rooms: ReadonlyMap<string, Room>): Promise<string> {
  const layers = LAYERS.map(({ folder, floor }) => {
    const all = [...rooms.values()].filter(({ layer }) => layer === folder);
    const inner = all.filter(({ name }) => name !== `src/${folder}`);
    const boxes = (inner.length === 0 ? all : inner).toSorted((a, b) => (a.name < b.name ? -1 : 1));
    // In an order of their own: files are found in another on another machine.
    const arrows = arrowsOf(boxes).toSorted((a, b) => (a.join() < b.join() ? -1 : 1));
    return { folder, floor, boxes, arrows };
  });
  const frames = layers.map(({ folder, boxes, arrows }) => {
    const nodes = boxes.map(({ name }) => `"${name}" [label="${name.split("/").at(-1)}"];`);
    const within = arrows.map(([from, to]) => `"${from}" -> "${to}";`);
    return `subgraph "cluster ${folder}" { label="src/${folder}"; ${FRAME} ${[...nodes, ...within].join(" ")} }`;
  });
  // What stands on a floor is above all that stands on the next.
  const stacked = layers.flatMap((above) => {
    const lowest = above.boxes.filter(({ name }) => !above.arrows.some(([from]) => from === name));
    const below = layers.filter(({ floor }) => floor === above.floor + 1);
    const highest = below.flatMap(({ boxes, arrows }) =>
      boxes.filter(({ name }) => !arrows.some(([, to]) => to === name)),
    );
    return lowest.flatMap((from) => highest.map((to) => `"${from.name}" -> "${to.name}" [style=invis];`));
  });
  const viz = await instance();
  return viz.renderString(`digraph house { ${LOOK} ${[...frames, ...stacked].join("\n")} }`, { format: "svg" });
}

const rooms = await readHouse();
const wrong = wrongWith(rooms);
// Where rooms stand in a circle there is no order to draw them in.
if (wrong.length === 0) {
  const picture = await drawn(rooms);
  if (!process.argv.includes("--check")) writeFileSync(PICTURE, picture);
  else if (readFileSync(PICTURE, "utf8") !== picture)
    wrong.push(`${PICTURE} is not the house as it is: npx tsx scripts/house.ts draws it anew`);
}
for (const line of wrong) console.error(line);
process.exit(wrong.length === 0 ? 0 : 1);
