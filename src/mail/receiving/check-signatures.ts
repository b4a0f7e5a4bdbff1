import type { CheckedSignature } from "../../core/message/sender-trust";
import type { KeyLookup } from "../../core/ports";

const MAX_SIGNATURES = 10;

/**
 * The DKIM signatures of a message (RFC 6376), each with whether it holds now. A key that cannot be had makes a signature
 * that does not hold; nothing is thrown, as a strange signature is no reason to refuse mail.
 */
export async function checkSignatures(raw: Uint8Array, keys: KeyLookup, now: Date): Promise<CheckedSignature[]> {
  try {
    // Loaded with the first letter: every start of the tool would wait for it.
    const { dkimVerify } = await import("mailauth/lib/dkim/verify.js");
    const { results } = await dkimVerify(Buffer.from(raw), { resolver: keys, curTime: now });
    return results.slice(0, MAX_SIGNATURES).flatMap(({ signingDomain, status }) => {
      const domain = signingDomain === undefined ? "" : String(signingDomain).toLowerCase();
      return domain === "" ? [] : [{ domain, isValid: status?.result === "pass" }];
    });
  } catch {
    return [];
  }
}
