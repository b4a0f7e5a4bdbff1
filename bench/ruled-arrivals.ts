import type { EmailAddress } from "~/core/kernel/email-address";
import type { RuleId } from "~/core/kernel/ids";
import type { Condition } from "~/core/rules/condition";
import { listenForMail } from "~/mail/index";
import type { Wired } from "~/main/wiring";
import { dropRule, editRule, knowsAddress, receiveMessage, type TrayGrant } from "~/operations/index.server";
import { leadOf } from "./lead";
import { deliveredPerSecond } from "./mail-in";
import type { Figure } from "./measure";

const RULES = 100;
const MESSAGES = 400;
const ROUNDS = 5;
const MOST = 1.15;
// What arrives is asked by rules that are at most two seconds old.
const UNTIL_KNOWN_MS = 2_100;

/**
 * What arrival over SMTP costs with a hundred rules against none, in turns in the same database: every tenth message meets
 * a rule that acts on it, the others meet rules that are for none of them.
 */
export async function ruledArrivals(wired: Wired): Promise<Figure> {
  const { deps } = wired;
  const grant = await leadOf(wired);
  const listener = await listenForMail(
    { host: "127.0.0.1", port: 0, maxBytes: 10_000_000 },
    {
      knows: (address) => knowsAddress(deps, address),
      accept: async (mail) => void (await receiveMessage(deps, mail)),
      onProblem: (problem) => console.error(problem),
    },
  );
  const ids = await keepRules(deps, grant);
  const takes = async (round: string, areOn: boolean) => {
    for (const id of ids) await dropRule(deps, grant, id, !areOn);
    await new Promise((resolve) => setTimeout(resolve, UNTIL_KNOWN_MS));
    return 1_000 / (await deliveredPerSecond(listener.port, round, MESSAGES));
  };
  await takes("warm", true);
  const [without, within]: [number[], number[]] = [[], []];
  for (let round = 0; round < ROUNDS; round += 1) {
    without.push(await takes(`without-${round}`, false));
    within.push(await takes(`within-${round}`, true));
  }
  await listener.close();
  const [floor, measured] = [median(without), median(within)];
  const ratio = measured / floor;
  return {
    name: `a message in over SMTP with ${RULES} rules, one of which acts on every tenth`,
    unit: "ms",
    measured,
    floor,
    floorName: "with none",
    ratio,
    asked: `at most ${MOST}`,
    holds: ratio <= MOST,
  };
}

const median = (all: readonly number[]) => all.toSorted((a, b) => a - b)[Math.floor(all.length / 2)] ?? Number.NaN;

// One of 300 writes each letter: thirty of them have a rule of their own. The others are for words, patterns and houses of nobody.
async function keepRules(deps: Wired["deps"], grant: TrayGrant): Promise<RuleId[]> {
  const ids: RuleId[] = [];
  for (let at = 0; at < RULES; at += 1) {
    const kept = await editRule(deps, grant, {
      id: null,
      name: `Rule ${at}`,
      isOn: true,
      isLast: false,
      condition: conditionOf(at),
      exception: null,
      actions: [{ kind: "urgency", urgency: "reading" }],
    });
    if (!kept.ok) throw new Error(kept.error.kind);
    ids.push(kept.value);
  }
  return ids;
}

const ACTING = 30;

function conditionOf(at: number): Condition {
  const address = (at < ACTING ? `person${at * 10}@bench.example` : `nobody${at}@bench.example`) as EmailAddress;
  if (at < ACTING || at % 3 === 0) return { kind: "address", where: "from", of: [{ kind: "address", address }] };
  if (at % 3 === 1) return { kind: "text", where: "text", match: { how: "words", values: [`word${at}`, "invoice"] } };
  return {
    kind: "all",
    of: [
      { kind: "address", where: "any", of: [{ kind: "domain", domain: `house${at}.example` }] },
      { kind: "text", where: "subject", match: { how: "pattern", values: [`order ${at}\\d+`] } },
    ],
  };
}
