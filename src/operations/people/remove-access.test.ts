import { type Desk, done, refusal, setUpDesk } from "@tests/support/desk";
import { asLead, passes, setUpParts, testTray } from "@tests/support/test-database";
import { beforeEach, describe, expect, it } from "vitest";
import { type ConversationId, type FollowUpId, trustedId } from "../../core/kernel/ids";
import {
  changeRole,
  decide,
  editGroup,
  examine,
  type HandOver,
  handDraft,
  openConversation,
  peopleOfTray,
  removeAccess,
  restoreAccess,
  signIn,
  undoBatch,
  whoIs,
} from "../index.server";
import { acceptInvitation, invite, invitedTo, joinByInvitation, takeInvitationBack } from "./invitations";
import { disable, enable } from "./member-access";

let desk: Desk;
beforeEach(async () => {
  desk = await setUpDesk(await testTray());
  return () => desk.tray.close();
});

const assign = (ownerId: Desk["tobias"]["id"] | null) => ({ kind: "assign" as const, ownerId });
const leave = (handOver: HandOver) => removeAccess(desk.tray.deps, desk.lead, desk.tobias.id, handOver);
const unowned = async () =>
  desk.tray.ask("select id from conversation where owner_id = $1 or (owner_id is null and standing = 'our-move')", [
    desk.tobias.id,
  ]);
const some = async (count: number) => {
  const ids: ConversationId[] = [];
  for (let at = 0; at < count; at += 1) ids.push(await desk.arrive());
  await desk.does(desk.lead, ids, assign(desk.tobias.id));
  return ids;
};

describe("shutting a member out", () => {
  it("hands what is open to whom the lead chose, and what is settled when somebody writes again", async () => {
    const [open, settled, followed] = (await some(3)) as [ConversationId, ConversationId, ConversationId];
    await desk.does(desk.tobiasGrant, settled, { kind: "settle" });
    const followUp = { followUpId: trustedId<FollowUpId>(desk.tray.deps.newId()), dueAt: null, text: "call" };
    await desk.does(desk.lead, followed, assign(desk.mara.id), {
      kind: "follow-up",
      forMember: desk.tobias.id,
      ...followUp,
    });
    const content = { to: "", cc: "", subject: "", html: "<p>x</p>", after: "keep" as const, day: "" };
    done(await handDraft(desk.tray.deps, desk.lead, open, { content, to: desk.tobias.id, note: "", seen: null }));
    const session = done(await signIn(desk.tray.deps, "tobias", "ottermoor"));
    expect(done(await leave({ kind: "to", memberId: desk.mara.id })).handedOver).toBe(2);

    expect((await desk.isNow(open)).ownerId).toBe(desk.mara.id);
    expect((await desk.isNow(settled)).ownerId).toBe(desk.mara.id);
    const docket = (await openConversation(desk.tray.deps, desk.lead, followed))?.docket;
    expect(docket?.followUps.map(({ forMember }) => forMember)).toEqual([desk.mara.id]);
    expect((await openConversation(desk.tray.deps, desk.lead, open))?.drafts[0]?.holderId).toBe(desk.mara.id);
    await desk.arrive({ into: settled });
    expect(await desk.isNow(settled)).toMatchObject({ standing: "our-move", ownerId: desk.mara.id });
    expect(await unowned()).toEqual([]);
    expect(await whoIs(desk.tray.deps, session.token)).toBeNull();
    expect(refusal(await signIn(desk.tray.deps, "tobias", "ottermoor"))).toBe("wrong-name-or-password");
    expect(
      refusal(await decide(desk.tray.deps, desk.lead, { ids: [open], seenVersion: null }, assign(desk.tobias.id))),
    ).toBe("no-such");
    expect((await examine(desk.tray.deps)).differences).toEqual([]);
  });

  it("leaves nothing with her even when what she was given is undone, or the handing over is", async () => {
    const id = await desk.arrive();
    await desk.does(desk.lead, id, assign(desk.tobias.id));
    const [later] = await desk.does(desk.lead, id, assign(desk.ines.id));
    const [kept] = await some(1);
    const { batchId } = done(await leave({ kind: "to", memberId: desk.mara.id }));
    done(await undoBatch(desk.tray.deps, desk.lead, later ?? trustedId("")));
    expect((await desk.isNow(id)).ownerId).toBe(desk.mara.id);
    done(await undoBatch(desk.tray.deps, desk.lead, batchId));
    expect((await desk.isNow(kept ?? trustedId(""))).ownerId).toBe(desk.mara.id);
    expect((await examine(desk.tray.deps)).differences).toEqual([]);
  });

  it("in turn gives each to whoever of the group has least", async () => {
    const ids = await some(4);
    const memberIds = [desk.mara.id, desk.ines.id, desk.tobias.id];
    const groupId = done(await editGroup(desk.tray.deps, desk.lead, { id: null, name: "All", memberIds }));
    done(await leave({ kind: "in-turn", groupId }));
    const owners = await Promise.all(ids.map(async (id) => (await desk.isNow(id)).ownerId));
    expect(owners.toSorted()).toEqual([desk.mara.id, desk.mara.id, desk.ines.id, desk.ines.id].toSorted());
  });

  it("to nobody is the lead's own choice: it stands where everybody sees it, a new message has to be sorted", async () => {
    const [open, settled] = (await some(2)) as [ConversationId, ConversationId];
    await desk.does(desk.tobiasGrant, settled, { kind: "settle" });
    done(await leave({ kind: "nobody" }));
    expect(await desk.isNow(open)).toMatchObject({ ownerId: null, standing: "our-move" });
    passes(desk.tray, 5);
    await desk.arrive({ into: settled });
    expect(await desk.isNow(settled)).toMatchObject({ ownerId: null, standing: "to-sort" });
    expect((await examine(desk.tray.deps)).differences).toEqual([]);
  });

  it("passes what came by an earlier one on as well", async () => {
    const [id] = (await some(1)) as [ConversationId];
    await desk.does(desk.tobiasGrant, id, { kind: "settle" });
    done(await leave({ kind: "to", memberId: desk.mara.id }));
    done(await removeAccess(desk.tray.deps, desk.lead, desk.mara.id, { kind: "to", memberId: desk.ines.id }));
    expect((await desk.isNow(id)).ownerId).toBe(desk.ines.id);
    expect((await examine(desk.tray.deps)).differences).toEqual([]);
  });

  it("is taken back by letting them in again: what was handed over stays, what is given from then on is theirs", async () => {
    const { deps } = desk.tray;
    const [settled, open] = (await some(2)) as [ConversationId, ConversationId];
    await desk.does(desk.tobiasGrant, settled, { kind: "settle" });
    done(await leave({ kind: "to", memberId: desk.mara.id }));
    expect(refusal(await leave({ kind: "nobody" }))).toBe("no-such");
    expect((await peopleOfTray(deps, desk.lead)).disabled).toMatchObject([
      { id: desk.tobias.id, role: "member", isReplaced: true },
    ]);
    expect((await peopleOfTray(deps, desk.maraGrant)).disabled).toEqual([]);
    expect(refusal(await restoreAccess(deps, desk.maraGrant, desk.tobias.id))).toBe("leads-only");
    expect(refusal(await restoreAccess(deps, desk.lead, desk.mara.id))).toBe("no-such");
    passes(desk.tray, 5);
    done(await restoreAccess(deps, desk.lead, desk.tobias.id));
    expect((await signIn(deps, "tobias", "ottermoor")).ok).toBe(true);
    passes(desk.tray, 5);
    await desk.does(desk.lead, open, assign(desk.tobias.id));
    passes(desk.tray, 5);
    for (const id of [settled, open]) await desk.arrive({ into: id });
    expect([(await desk.isNow(settled)).ownerId, (await desk.isNow(open)).ownerId]).toEqual([
      desk.mara.id,
      desk.tobias.id,
    ]);
    expect((await examine(deps)).differences).toEqual([]);
    // Gone once more, to somebody else: what was Mara's stays hers.
    passes(desk.tray, 5);
    done(await leave({ kind: "to", memberId: desk.ines.id }));
    expect([(await desk.isNow(settled)).ownerId, (await desk.isNow(open)).ownerId]).toEqual([
      desk.mara.id,
      desk.ines.id,
    ]);
    expect((await examine(deps)).differences).toEqual([]);
  });

  it("comes after the operator disabled somebody, who keeps everything until then", async () => {
    const { deps } = desk.tray;
    const [settled, open] = (await some(2)) as [ConversationId, ConversationId];
    await desk.does(desk.tobiasGrant, settled, { kind: "settle" });
    expect((await disable(deps, "tobias")).ok).toBe(true);
    await desk.arrive({ into: settled });
    expect((await desk.isNow(settled)).ownerId).toBe(desk.tobias.id);
    expect((await examine(deps)).differences).toEqual([]);
    expect((await peopleOfTray(deps, desk.lead)).disabled).toMatchObject([{ id: desk.tobias.id, isReplaced: false }]);
    expect(done(await leave({ kind: "to", memberId: desk.mara.id })).handedOver).toBe(2);
    expect((await desk.isNow(open)).ownerId).toBe(desk.mara.id);
  });

  it("is for those who lead all her trays, never oneself, never to her or to a reader", async () => {
    const { deps } = desk.tray;
    expect([
      refusal(await removeAccess(deps, desk.maraGrant, desk.tobias.id, { kind: "nobody" })),
      refusal(await removeAccess(deps, desk.lead, desk.ines.id, { kind: "nobody" })),
      refusal(await leave({ kind: "to", memberId: desk.tobias.id })),
      refusal(await leave({ kind: "to", memberId: desk.reader.memberId })),
    ]).toEqual(["leads-only", "not-yourself", "no-such", "no-such"]);
    const { grant } = await setUpParts(deps);
    const token = done(await invite(deps, grant, "member")).token;
    done(await joinByInvitation(deps, token, desk.tobias));
    const [hers] = await some(1);
    expect(refusal(await leave({ kind: "nobody" }))).toBe("leads-of-all-only");
    expect((await disable(deps, "tobias")).ok).toBe(true);
    expect(refusal(await restoreAccess(deps, desk.lead, desk.tobias.id))).toBe("leads-of-all-only");
    expect((await enable(deps, "tobias")).ok).toBe(true);
    // What was handed over in the first of her trays by then is hers again.
    expect((await desk.isNow(hers ?? trustedId(""))).ownerId).toBe(desk.tobias.id);
    expect((await peopleOfTray(deps, desk.lead)).members.map(({ id }) => id)).toContain(desk.tobias.id);
  });
});

describe("an invitation", () => {
  const newcomer = {
    signInName: "runa",
    name: "Runa Holt",
    initials: "RH",
    password: "a long password",
    timeZone: "UTC",
  };
  it("lets one person in within a week, with its role, once", async () => {
    const { deps } = desk.tray;
    const { token } = done(await invite(deps, desk.lead, "reader"));
    expect(await invitedTo(deps, token)).toBe("Ottermoor");
    const runa = done(await acceptInvitation(deps, token, newcomer));
    expect((await desk.grantNow(runa)).role).toBe("reader");
    expect(await invitedTo(deps, token)).toBeNull();
    expect(refusal(await acceptInvitation(deps, token, { ...newcomer, signInName: "other" }))).toBe("no-invitation");
  });

  it("ends with the rights of whoever made it, for good", async () => {
    const { deps } = desk.tray;
    const other = await asLead(desk.tray, desk.mara);
    const [ofRemoved, ofDemoted] = [
      done(await invite(deps, other, "lead")),
      done(await invite(deps, desk.lead, "lead")),
    ];
    const session = done(await signIn(deps, "ines", "ottermoor"));
    done(await changeRole(deps, other, desk.ines.id, "member"));
    expect(await invitedTo(deps, ofDemoted.token)).toBeNull();
    // With other rights one signs in anew.
    expect(await whoIs(deps, session.token)).toBeNull();
    done(await changeRole(deps, other, desk.ines.id, "lead"));
    expect(await invitedTo(deps, ofDemoted.token)).toBeNull();
    done(await removeAccess(deps, desk.lead, desk.mara.id, { kind: "nobody" }));
    expect(refusal(await acceptInvitation(deps, ofRemoved.token, newcomer))).toBe("no-invitation");
    expect(await desk.tray.ask("select from member where sign_in_name = 'runa'")).toEqual([]);
  });

  it("is not used up by a name that is taken, and ends by time or when it is taken back", async () => {
    const { deps } = desk.tray;
    const { token } = done(await invite(deps, desk.lead, "member"));
    expect(refusal(await acceptInvitation(deps, token, { ...newcomer, signInName: "Tobias" }))).toBe("name-taken");
    expect(await invitedTo(deps, token)).toBe("Ottermoor");
    const [open] = (await peopleOfTray(deps, desk.lead)).invitations;
    expect((await peopleOfTray(deps, desk.grant)).invitations).toEqual([]);
    done(await takeInvitationBack(deps, desk.lead, open?.id ?? trustedId("")));
    expect(await invitedTo(deps, token)).toBeNull();
    const late = done(await invite(deps, desk.lead, "member")).token;
    passes(desk.tray, 7 * 24 * 60 + 1);
    expect(await invitedTo(deps, late)).toBeNull();
    expect(refusal(await invite(deps, desk.grant, "member"))).toBe("leads-only");
  });

  it("takes no right from whoever is in the tray already, and is still there for somebody else", async () => {
    const { deps } = desk.tray;
    const { token } = done(await invite(deps, desk.lead, "reader"));
    done(await joinByInvitation(deps, token, desk.ines));
    expect((await desk.grantNow(desk.ines)).role).toBe("lead");
    expect(await invitedTo(deps, token)).toBe("Ottermoor");
  });

  it("is kept so that who reads the table cannot use it", async () => {
    const { token } = done(await invite(desk.tray.deps, desk.lead, "member"));
    const [row] = await desk.tray.ask("select row_to_json(invitation)::text as kept from invitation");
    expect(row.kept).not.toContain(token);
  });
});
