import { expect, it } from "vitest";
import { linkMismatch } from "./link-mismatch";

it.each([
  ["https://isterbank.example/login", "https://harm.example/isterbank.example", "harm.example"],
  ["isterbank.example", "http://isterbank.example.harm.example/", "isterbank.example.harm.example"],
  ["www.isterbank.example", "https://isterbank.example/x", null],
  ["isterbank.example", "https://post.isterbank.example/x", null],
  ["ISTERBANK.example", "https://harm.example", "harm.example"],
  ["Click here", "https://harm.example", null],
  ["isterbank.example", "mailto:a@harm.example", null],
  ["the end.", "https://harm.example", null],
])("%j leading to %j names another site: %j", (text, href, site) => expect(linkMismatch(text, href)).toBe(site));
