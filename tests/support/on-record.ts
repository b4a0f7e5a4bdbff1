import { buffer } from "node:stream/consumers";
import { err, type Result } from "~/core/kernel/result";
import { openZip } from "~/mail/index";
import {
  buildZipExport,
  correspondenceOn,
  type Deps,
  type ImportedRecord,
  importRecord,
  type OnRecord,
  recordOfCode,
  type TrayGrant,
  type ZipExportForm,
} from "~/operations/index.server";
import { inEnglish } from "./english";

/** What a member finds on a record, all of it or what has some words; null when she may know of no record of that code. */
export async function onRecordOf(deps: Deps, grant: TrayGrant, code: string, text = ""): Promise<OnRecord | null> {
  const record = await recordOfCode(deps, grant, code);
  return record === null ? null : correspondenceOn(deps, grant, record, { text, most: 1_000 });
}

/** The zip of a record, all of it or what has some words; null when she may know of no record of that code. */
export async function zipOfRecord(
  deps: Deps,
  grant: TrayGrant,
  code: string,
  { text = "", ...form }: ZipExportForm & { readonly text?: string },
): Promise<Buffer | null> {
  const record = await recordOfCode(deps, grant, code);
  if (record === null) return null;
  const packed = await buildZipExport(deps, grant, { recordId: record.id, text, everywhere: false }, form);
  return packed === null ? null : buffer(packed.content);
}

/** Takes a record in from its zip. */
export async function takeRecordIn(
  deps: Deps,
  grant: TrayGrant,
  content: Uint8Array,
): Promise<Result<ImportedRecord, string>> {
  const zip = await openZip(content);
  if (zip === null) return err("That is no zip.");
  try {
    const restored = await importRecord(deps, grant, zip);
    return restored.ok ? restored : err(inEnglish(restored.error));
  } finally {
    zip.close();
  }
}
