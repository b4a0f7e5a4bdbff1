import { SECOND } from "../kernel/instant";

/** How often signing in failed of late, by whoever it was tried as and by wherever it was tried from. */
export type SignInFailures = { readonly ofName: number; readonly ofAddress: number };

const FREE_OF_NAME = 5;
const FREE_OF_ADDRESS = 10;
const LONGEST_OF_NAME = 5 * SECOND;
const LONGEST_OF_ADDRESS = 30 * SECOND;

/**
 * How long the next try is held up before it is looked at, in milliseconds: twice as long with each failure. It is never
 * refused for what others did: whoever knows the password is in after at most five seconds, however much a stranger tries
 * with her name; who tries many names from one place waits longer there.
 */
export function signInDelay({ ofName, ofAddress }: SignInFailures): number {
  return Math.max(
    doubled(ofName - FREE_OF_NAME, LONGEST_OF_NAME),
    doubled(ofAddress - FREE_OF_ADDRESS, LONGEST_OF_ADDRESS),
  );
}

function doubled(over: number, longest: number): number {
  return over < 0 ? 0 : Math.min(longest, (SECOND / 4) * 2 ** Math.min(over, 20));
}
