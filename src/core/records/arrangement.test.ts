import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type RecordId, trustedId } from "../kernel/ids";
import {
  type Arranged,
  type Arrangement,
  addedTo,
  arrangedIds,
  copied,
  DEEPEST,
  isSound,
  itemAt,
  knownOf,
  MOST_ARRANGED,
  movedInto,
  placedItems,
  removedAt,
  renamedAt,
  steppedAt,
} from "./arrangement";

const rec = (id: string, name = ""): Arranged => ({ kind: "record", recordId: trustedId<RecordId>(id), name });
const folder = (key: string, ...items: readonly Arranged[]): Arranged => ({ kind: "folder", key, name: key, items });
const told = (tree: Arrangement): string =>
  tree
    .map((item) => (item.kind === "folder" ? `${item.name}(${told(item.items)})` : item.name || item.recordId))
    .join(" ");

const TREE: Arrangement = [rec("a"), folder("F", rec("b"), folder("G", rec("c"))), rec("d")];

describe("a member's own tree of records", () => {
  it.each([
    ["a record at the end of a folder", addedTo(TREE, ["F", "G"], rec("e")), "a F(b G(c e)) d"],
    ["a record that is there already", addedTo(TREE, ["F", "G"], rec("c")), "a F(b G(c)) d"],
    ["a folder outermost", addedTo(TREE, [], folder("H")), "a F(b G(c)) d H()"],
    ["a name of her own", renamedAt(TREE, { folders: ["F"], at: 0 }, "Bea"), "a F(Bea G(c)) d"],
    ["a folder that is taken out, not what was in it", removedAt(TREE, { folders: [], at: 1 }), "a b G(c) d"],
    ["a record that is taken out", removedAt(TREE, { folders: ["F", "G"], at: 0 }), "a F(b G()) d"],
    ["an item one step up", steppedAt(TREE, { folders: [], at: 1 }, -1), "F(b G(c)) a d"],
    ["an item one step down", steppedAt(TREE, { folders: ["F"], at: 0 }, 1), "a F(G(c) b) d"],
    ["a step past the end, which is none", steppedAt(TREE, { folders: [], at: 2 }, 1), "a F(b G(c)) d"],
    ["a record moved into a folder", movedInto(TREE, { folders: [], at: 0 }, ["F", "G"]), "F(b G(c a)) d"],
    ["a folder moved outermost", movedInto(TREE, { folders: ["F"], at: 1 }, []), "a F(b) d G(c)"],
    ["a folder that does not go into itself", movedInto(TREE, { folders: [], at: 1 }, ["F", "G"]), "a F(b G(c)) d"],
  ])("has %s", (_, tree, words) => expect(told(tree)).toBe(words));

  it("is read folder by folder, its records once each", () => {
    expect(arrangedIds([...TREE, rec("b")])).toEqual(["a", "b", "c", "d"]);
    for (const { item, spot } of placedItems(TREE)) expect(itemAt(TREE, spot)).toBe(item);
    expect(itemAt(TREE, { folders: ["X"], at: 0 })).toBeNull();
    expect(told(knownOf(TREE, (id) => id !== "c"))).toBe("a F(b G()) d");
  });

  it("is kept only while it is neither too much nor too deep, with each key once", () => {
    expect(isSound(TREE)).toBe(true);
    expect(isSound([folder("F"), folder("G", folder("F"))])).toBe(false);
    expect(isSound(Array.from({ length: MOST_ARRANGED + 1 }, (_, at) => rec(`${at}`)))).toBe(false);
    let key = 0;
    const copy = copied(TREE, () => `copy ${key++}`);
    expect(told(copy)).toBe(told(TREE));
    expect(isSound([...TREE, folder("H", ...copy)])).toBe(true);
    let deep: Arranged = rec("x");
    for (let level = 0; level <= DEEPEST; level += 1) deep = folder(`${level}`, deep);
    expect(isSound([deep])).toBe(false);
  });
});

it("nothing is lost or doubled whatever is moved where", () => {
  const step = fc.record({
    from: fc.nat(),
    into: fc.nat(),
    what: fc.constantFrom<"up" | "down" | "into" | "name">("up", "down", "into", "name"),
  });
  fc.assert(
    fc.property(fc.array(step, { maxLength: 30 }), (steps) => {
      let tree = TREE;
      for (const { from, into, what } of steps) {
        const placed = placedItems(tree);
        const spot = placed[from % placed.length]?.spot ?? { folders: [], at: 0 };
        const folders = [
          [],
          ...placed.flatMap(({ item, spot: its }) => (item.kind === "folder" ? [[...its.folders, item.key]] : [])),
        ];
        if (what === "name") tree = renamedAt(tree, spot, "named");
        else if (what === "into") tree = movedInto(tree, spot, folders[into % folders.length] ?? []);
        else tree = steppedAt(tree, spot, what === "up" ? -1 : 1);
        expect(isSound(tree)).toBe(true);
        expect(arrangedIds(tree).toSorted()).toEqual(["a", "b", "c", "d"]);
        expect(placedItems(tree)).toHaveLength(6);
      }
    }),
  );
});
