import { done, setUpDesk } from "@tests/support/desk";
import { aMessage } from "@tests/support/mail";
import { worded } from "@tests/support/ruled-messages";
import { address, testTray } from "@tests/support/test-database";
import pino from "pino";
import { afterAll, expect, it } from "vitest";
import { DAY, later, SECOND } from "../../core/kernel/instant";
import { wire } from "../../main/wiring";
import { editRule, planTimeOff, receiveMessage, watch } from "../index.server";

const DELIVERIES = 20;

const tray = await testTray();
const few = wire({ databaseUrl: tray.url, demo: true, poolSize: 2 }, pino({ level: "silent" }));
afterAll(async () => {
  await few.close();
  await tray.close();
});

it("twenty deliveries at once come through two connections, with rules, watches and absences to ask for", async () => {
  const desk = await setUpDesk(tray);
  const covers = [{ trayId: desk.lead.tray.id, recordId: null, memberId: desk.tobias.id }];
  const now = tray.deps.now();
  done(await planTimeOff(tray.deps, desk.maraGrant, { memberId: null, from: now, until: later(now, DAY), covers }));
  done(await watch(tray.deps, desk.lead, "words", "bellows"));
  const actions = [{ kind: "assign", ownerId: desk.mara.id }] as const;
  const condition = worded("subject", "words", "bellows");
  const rule = { id: null, name: "Bellows", isOn: true, isLast: false, exception: null, condition, actions };
  done(await editRule(tray.deps, desk.lead, rule));
  let asked = 0;
  const deps = {
    ...few.deps,
    jobs: tray.deps.jobs,
    // What a process knows for two seconds is too old each time that it is asked for.
    now: () => {
      asked += 1;
      return later(now, asked * 3 * SECOND);
    },
  };
  const recipients = [address("office@ottermoor.example")];
  const deliver = (at: number) => {
    const raw = aMessage({ id: `m${at}@x.example`, subject: `Re: Bellows ${at}`, inReplyTo: `none${at}@x.example` });
    return receiveMessage(deps, { raw, envelopeSender: "a@x.example", recipients });
  };
  const kept = await Promise.all(Array.from({ length: DELIVERIES }, (_, at) => deliver(at)));
  expect(kept.flat()).toHaveLength(DELIVERIES);
  const owners = await tray.ask("select owner_id, count(*)::int as count from conversation group by 1");
  expect(owners).toEqual([{ owner_id: desk.tobias.id, count: DELIVERIES }]);
});
