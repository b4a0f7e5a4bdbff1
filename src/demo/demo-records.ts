import type { RecordId } from "../core/kernel/ids";
import type { FilingField } from "../core/records/filing-field";
import type { RetentionPolicy } from "../core/retention/policy";
import {
  bearPolicy,
  createRecord,
  type Deps,
  editArrangement,
  editPolicy,
  editType,
  holdRecord,
  type TrayGrant,
} from "../operations/index.server";

const field = (key: string, label: string, given: Partial<FilingField> = {}): FilingField => ({
  key,
  label,
  kind: "text",
  required: false,
  choices: [],
  start: "",
  remembers: false,
  ...given,
});

// Guarantees are asked about years later, so that more is said of what is filed there.
const GUARANTEE_FIELDS = [
  field("what", "What it is", {
    kind: "choice",
    choices: ["claim", "inspection", "offer", "letter"],
    required: true,
    start: "letter",
    remembers: true,
  }),
  field("instrument", "Part of the instrument", { required: true, remembers: true }),
  field("due", "To be made good by", { kind: "date" }),
];

const POLICIES: readonly (Omit<RetentionPolicy, "id"> & { readonly records: readonly string[] })[] = [
  {
    name: "Guarantee files",
    period: "P10Y",
    countsFrom: "closing",
    endsIn: "review",
    records: ["P-26-012", "P-26-019"],
  },
  { name: "Small repairs", period: "P6M", countsFrom: "closing", endsIn: "review", records: ["P-25-004", "P-24-017"] },
  { name: "Tuning rounds", period: "P2Y", countsFrom: "last-message", endsIn: "disposal", records: ["P-26-044"] },
];

/** A type of records that asks for particulars, how long the office keeps what, and how Ines has her records. */
export async function makeRecordsDemo(
  deps: Deps,
  grant: TrayGrant,
  recordId: (code: string) => RecordId,
): Promise<void> {
  const type = { id: null, name: "Guarantee", codePattern: "G-{yy}-{nn}", fields: GUARANTEE_FIELDS };
  const kept = await editType(deps, grant, type);
  if (!kept.ok) throw new Error(`the demo's type of records was refused: ${kept.error.kind}`);
  const draft = { typeId: kept.value, title: "Sorrel, great bellows", parentId: recordId("C-036"), note: "" };
  await createRecord(deps, grant, { ...draft, responsibleId: null, addresses: "", access: null });
  for (const { records, ...policy } of POLICIES) {
    const made = await editPolicy(deps, grant, { ...policy, id: null });
    if (!made.ok) throw new Error(`the demo's policy was refused: ${made.error.kind}`);
    for (const code of records) await bearPolicy(deps, grant, "record", recordId(code), made.value.id);
  }
  const arranged = (code: string, name = "") => ({ kind: "record", recordId: recordId(code), name }) as const;
  await editArrangement(
    deps,
    grant,
    [
      {
        kind: "folder",
        key: "sorrel",
        name: "Sorrel",
        items: [arranged("P-26-012", "The case"), arranged("P-25-088"), arranged("C-036")],
      },
      {
        kind: "folder",
        key: "winter",
        name: "Before the year ends",
        items: [arranged("P-26-044"), arranged("P-26-027"), arranged("P-26-019", "Quayle’s hum")],
      },
      arranged("C-033"),
    ],
    0,
  );
  await holdRecord(deps, grant, recordId("P-26-019"), "Insurance claim for the old blower");
}
