import { generateKeyPairSync } from "node:crypto";
import type { KeyLookup } from "../../core/ports";

const SELECTOR = "tray";
const KEY_BITS = 2_048;

/** Signs what goes out of the stand-in's domains (RFC 6376), and knows the keys as the DNS would. */
export type Signing = {
  readonly sign: (raw: Uint8Array, domain: string) => Promise<Uint8Array>;
  readonly keys: KeyLookup;
};

/** One key for all the domains that sign; a new one each time, as nobody keeps mail of a stand-in. */
export function signingFor(domains: readonly string[]): Signing {
  const { privateKey, publicKey } = generateKeyPairSync("rsa", { modulusLength: KEY_BITS });
  const pem = privateKey.export({ type: "pkcs8", format: "pem" });
  const record = `v=DKIM1; k=rsa; p=${publicKey.export({ type: "spki", format: "der" }).toString("base64")}`;
  const names = new Set(domains.map((domain) => `${SELECTOR}._domainkey.${domain}`));
  return {
    async sign(raw, domain) {
      const signature = { signingDomain: domain, selector: SELECTOR, privateKey: pem };
      const { dkimSign } = await import("mailauth/lib/dkim/sign.js");
      const signed = await dkimSign(Buffer.from(raw), { ...signature, signatureData: [signature] });
      return Buffer.concat([Buffer.from(`${signed.signatures.trim()}\r\n`), raw]);
    },
    async keys(name) {
      if (!names.has(name)) throw Object.assign(new Error(`no record of ${name}`), { code: "ENOTFOUND" });
      return [[record]];
    },
  };
}
