import { data } from "react-router";
import { readId, type ZipExportId } from "../../../core/kernel/ids";
import {
  getZipExports,
  orderZipExport,
  putZipExportAway,
  recordOfCode,
  stopZipExport,
} from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { speak } from "../../server/base/say.server";
import { readZipExportOrder, zipExportView } from "../../server/records/zip-export-view.server";
import type { Route } from "./+types/zip-exports";

/** What the server said to an order, or to a step of it. */
export type ZipExportOutcome = { readonly ok: true } | { readonly ok: false; readonly problem: string };

const refused = (problem: string, status: number) => data<ZipExportOutcome>({ ok: false, problem }, { status });

/** What she takes out, and how far each is. */
export async function loader({ context }: Route.LoaderArgs) {
  return { zipExports: (await getZipExports(context.get(depsContext), context.get(grantContext))).map(zipExportView) };
}

/** Orders a ZIP export, stops one, or puts one away. */
export async function action({ request, context }: Route.ActionArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const form = await readForm(request);
  if (form.get("do") === "order") return ordered(deps, grant, form);
  const id = readId<ZipExportId>(String(form.get("zipExport") ?? ""));
  if (!id.ok) return refused(refusalSaid({ kind: "no-such", what: "zip" }), 404);
  if (form.get("do") === "stop") {
    const stopped = await stopZipExport(deps, grant, id.value);
    return stopped.ok ? data<ZipExportOutcome>({ ok: true }) : refused(refusalSaid(stopped.error), 409);
  }
  await putZipExportAway(deps, grant, id.value);
  return data<ZipExportOutcome>({ ok: true });
}

async function ordered(
  deps: Parameters<typeof orderZipExport>[0],
  grant: Parameters<typeof orderZipExport>[1],
  form: FormData,
) {
  const order = readZipExportOrder(form);
  if (order === null) return refused(speak("records.thatIsNothingThatCan"), 400);
  const { code, text, everywhere, ...how } = order;
  const record = code === "" ? null : await recordOfCode(deps, grant, code);
  if (code !== "" && record === null) return refused(speak("records.thereIsNoRecordOf"), 404);
  const what = { recordId: record?.id ?? null, text, everywhere };
  const made = await orderZipExport(deps, grant, what, how);
  return made.ok ? data<ZipExportOutcome>({ ok: true }) : refused(refusalSaid(made.error), 409);
}
