import { type Desk, done, refusal, setUpDesk } from "@tests/support/desk";
import { inEnglish } from "@tests/support/english";
import { type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { ContactDraft } from "../../core/contacts/contact";
import { type CategoryId, type ContactId, trustedId } from "../../core/kernel/ids";
import { dropContact, editContact, getContacts, setUpCategories } from "../index.server";

let tray: TestTray;
let desk: Desk;
let invoices: CategoryId;

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
  const made = await setUpCategories(tray.deps, [{ code: "IN", name: "Invoices", ink: "moss", parentCode: null }]);
  invoices = made[0]?.id ?? trustedId("");
});
afterAll(() => tray.close());

describe("a contact", () => {
  const someone = (given: Partial<ContactDraft> = {}): ContactDraft => ({
    name: "Perpetua Vane",
    organisation: "Vane House",
    phone: "",
    note: "",
    categoryIds: [invoices],
    addresses: "vane@vanehouse.example, p.vane@x.example",
    ...given,
  });
  const found = async (text: string, categoryId: CategoryId | null = null) =>
    (await getContacts(tray.deps, desk.lead, { text, categoryId })).map(({ name }) => name);

  it("added by several at once with the same address is one", async () => {
    const same = () => editContact(tray.deps, desk.lead, null, someone({ name: "Bram", addresses: "bram@x.example" }));
    const outcomes = (await Promise.all(Array.from({ length: 6 }, same))).map(refusal);
    expect(outcomes.toSorted()).toEqual(["done", ...Array.from({ length: 5 }, () => "problems")]);
    for (const { id } of await getContacts(tray.deps, desk.lead, { text: "Bram", categoryId: null }))
      done(await dropContact(tray.deps, desk.lead, id));
  });

  it("is kept, found by name, organisation, address and category, and changed", async () => {
    const { id } = done(await editContact(tray.deps, desk.maraGrant, null, someone()));
    done(
      await editContact(
        tray.deps,
        desk.lead,
        null,
        someone({ name: "Hugo Lund", addresses: "h@x.example", categoryIds: [] }),
      ),
    );
    expect(await found("")).toEqual(["Hugo Lund", "Perpetua Vane"]);
    for (const text of ["perpetua", "vane house", "p.vane@"])
      expect(await found(text)).toEqual(
        ["Perpetua Vane"].concat(text === "vane house" ? ["Hugo Lund"] : []).toSorted(),
      );
    expect(await found("", invoices)).toEqual(["Perpetua Vane"]);
    expect(await found("100%")).toEqual([]);
    const { addresses } = done(
      await editContact(tray.deps, desk.lead, id, someone({ addresses: "new@vanehouse.example" })),
    );
    expect(addresses).toEqual(["new@vanehouse.example"]);
    expect(await found("p.vane@")).toEqual([]);
  });

  it("has its addresses alone, until it is removed; and comes back as it was", async () => {
    const { id } = done(
      await editContact(tray.deps, desk.lead, null, someone({ name: "One", addresses: "one@x.example" })),
    );
    const other = someone({ name: "Other", addresses: "one@x.example" });
    expect(inEnglish(await editContact(tray.deps, desk.lead, null, other))).toMatchObject({
      error: { kind: "problems", problems: { addresses: "one@x.example is One’s already." } },
    });
    const dropped = done(await dropContact(tray.deps, desk.lead, id));
    expect(refusal(await dropContact(tray.deps, desk.lead, id))).toBe("no-such");
    expect(await found("one@x")).toEqual([]);
    done(await editContact(tray.deps, desk.lead, id, { ...dropped, addresses: dropped.addresses.join(" ") }));
    expect(await found("one@x")).toEqual(["One"]);
    done(await dropContact(tray.deps, desk.lead, id));
    done(await editContact(tray.deps, desk.lead, null, other));
    expect(refusal(await editContact(tray.deps, desk.lead, id, { ...dropped, addresses: "one@x.example" }))).toBe(
      "problems",
    );
  });

  it("is not kept by a reader, under a category that is not there, or when it is not there itself", async () => {
    expect(refusal(await editContact(tray.deps, desk.reader, null, someone()))).toBe("readers-only-read");
    expect(refusal(await dropContact(tray.deps, desk.reader, trustedId<ContactId>(desk.ines.id)))).toBe(
      "readers-only-read",
    );
    const nowhere = someone({ addresses: "n@x.example", categoryIds: [trustedId(desk.ines.id)] });
    expect(refusal(await editContact(tray.deps, desk.lead, null, nowhere))).toBe("no-such");
    expect(refusal(await editContact(tray.deps, desk.lead, trustedId(desk.ines.id), someone()))).toBe("no-such");
  });
});
