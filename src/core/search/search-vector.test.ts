import { expect, it } from "vitest";
import type { EmailAddress } from "../kernel/email-address";
import { searchedPeople, searchVector } from "./search-vector";

const none = { subject: "", people: "", ownText: "", restText: "" };

it("has every word with its places, subject and people weighted, quoted words without a place", () => {
  const vector = searchVector({
    subject: "Swell box",
    people: "Vane",
    ownText: "The box, the Böx",
    restText: "old box",
  });
  expect(vector).toBe("'swell':1A 'box':2A,25,27 'vane':13B 'the':24,26 'old'");
});

it("folds words as queries are folded, so that accents do not matter", () => {
  expect(searchVector({ ...none, ownText: "Längenfeld langenfeld" })).toBe("'langenfeld':21,22");
});

it("stays within what PostgreSQL can hold", () => {
  const vector = searchVector({ ...none, ownText: "word ".repeat(40_000) });
  expect(vector.split(",")).toHaveLength(200);
  expect(searchVector({ ...none, ownText: Array.from({ length: 20_000 }, (_, at) => `w${at}`).join(" ") })).toContain(
    ":16383",
  );
});

it("holds nothing that is syntax", () => {
  expect(searchVector({ ...none, ownText: "it's 'quoted' \\ :1A" })).toBe("'it':21 's':22 'quoted':23 '1a':24");
});

it("of the people has those outside: what a tray is called stands in all of its mail", () => {
  const box = (name: string, address: string) => ({ name, address: address as EmailAddress });
  const people = [
    box("Perpetua Vane", "vane@vanehouse.example"),
    box("Ottermoor Organ Works", "office@ottermoor.example"),
    box("", "choir@oldwyke.example"),
  ];
  expect(searchedPeople(people, [box("", "office@ottermoor.example").address])).toBe(
    "Perpetua Vane vane@vanehouse.example\n choir@oldwyke.example",
  );
});
