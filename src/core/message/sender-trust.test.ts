import { inEnglish } from "@tests/support/english";
import { describe, expect, it } from "vitest";
import type { EmailAddress } from "../kernel/email-address";
import { readAuthenticationResults } from "./authentication-results";
import { looksLike, senderTrust, type TrustEvidence } from "./sender-trust";

const address = (text: string) => text as EmailAddress;
const judged = (more: Partial<TrustEvidence>) =>
  senderTrust({
    from: { name: "Perpetua Vane", address: address("perpetua@vanehouse.example") },
    authenticationResults: [],
    trustedAuthservIds: ["mx.ottermoor.example"],
    signatures: [],
    ours: [address("office@ottermoor.example")],
    colleagues: ["Ines Varga"],
    namesakes: [],
    ...more,
  });
const from = (name: string, text: string) => ({ from: { name, address: address(text) } });
const believed = (results: string) => ({ authenticationResults: [`mx.ottermoor.example; ${results}`] });

describe("who sent a message", () => {
  it.each<[string, Partial<TrustEvidence>, string]>([
    ["is not known without proof", {}, "unverified"],
    ["is not known without From", { from: null }, "unverified"],
    [
      "is proven by a signature of its domain",
      { signatures: [{ domain: "vanehouse.example", isValid: true }] },
      "verified",
    ],
    [
      "is proven by one of the domain above",
      { signatures: [{ domain: "mail.vanehouse.example", isValid: true }] },
      "verified",
    ],
    ["is not proven by a bad one", { signatures: [{ domain: "vanehouse.example", isValid: false }] }, "unverified"],
    ["is not proven by another domain's", { signatures: [{ domain: "list.example", isValid: true }] }, "unverified"],
    ["is not proven by a top level", { signatures: [{ domain: "example", isValid: true }] }, "unverified"],
    ["is proven by our server, DMARC", believed("dmarc=pass header.from=vanehouse.example"), "verified"],
    ["is proven by our server, DKIM", believed("spf=fail; dkim=pass (good) header.d=vanehouse.example"), "verified"],
    ["is proven by our server, SPF", believed("spf=pass smtp.mailfrom=perpetua@vanehouse.example"), "verified"],
    ["is not proven by what failed", believed("dkim=fail header.d=vanehouse.example"), "unverified"],
    [
      "is not proven by a server that is not ours",
      { authenticationResults: ["mx.harm.example; dmarc=pass header.from=vanehouse.example"] },
      "unverified",
    ],
    [
      "is somebody else with another address for a name",
      from("office@ottermoor.example", "x@harm.example"),
      "imitation",
    ],
    ["is somebody else under our address", from("Office", "office@ottermoor.example"), "imitation"],
    ["is somebody else under a colleague's name", from("Inès  VARGA", "ines@harm.example"), "imitation"],
    [
      "is somebody else from a domain that looks alike",
      { ...from("Perpetua Vane", "perpetua@vanehou5e.example"), namesakes: [address("perpetua@vanehouse.example")] },
      "imitation",
    ],
    [
      "may well have a second address",
      { ...from("Perpetua Vane", "vane@post.example"), namesakes: [address("perpetua@vanehouse.example")] },
      "unverified",
    ],
  ])("%s", (_, evidence, verdict) => expect(judged(evidence).verdict).toBe(verdict));

  it("says why", () => {
    expect(inEnglish(judged(believed("dmarc=pass header.from=vanehouse.example")).reason)).toBe(
      "mx.ottermoor.example checked it (DMARC)",
    );
    expect(inEnglish(judged(from("Ines Varga", "i@harm.example")).reason)).toContain("name of a colleague");
  });
});

describe("an Authentication-Results field", () => {
  it("is read with its comments left out and its quotes taken off", () => {
    const read = readAuthenticationResults('mx.a.example 1; dkim=pass (2048; "x") header.d="vane.example"; none');
    expect(read?.authservId).toBe("mx.a.example");
    expect(read?.results.map(({ method, result }) => `${method}=${result}`)).toEqual(["dkim=pass"]);
    expect(read?.results[0]?.properties.get("header.d")).toBe("vane.example");
  });
  it.each(["", "; dkim=pass", "dkim=pass"])("is none without a server: %j", (field) => {
    expect(readAuthenticationResults(field)).toBeNull();
  });
});

it.each([
  ["vanehouse.example", "vanehouse.example", false],
  ["vanehouse.example", "vanehause.example", true],
  ["ottermoor.example", "otterrnoor.example", true],
  ["isterbank.example", "1sterbank.example", true],
  ["halse.example", "calder.example", false],
])("%s and %s look alike: %s", (known, other, alike) => expect(looksLike(known, other)).toBe(alike));
