import { data } from "react-router";
import { readId } from "../../../core/kernel/ids";
import type { Result } from "../../../core/kernel/result";
import { addDocument, addMail, type Refusal, recordOfCode, removeDocument } from "../../../operations/index.server";
import { recordsTexts } from "../../../texts/en/records";
import { mostBytesTo } from "../../server/base/body-limits";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { speak } from "../../server/base/say.server";
import { sayHere } from "../../ui/texts/say-here";
import type { Route } from "./+types/record-documents";

/** What became of a file that was brought to a record, or taken off it. */
export type DocumentOutcome =
  | { readonly ok: true; readonly said: string }
  | { readonly ok: false; readonly problem: string };

const MAX_BYTES = 50_000_000;

const refused = (problem: string, status: number) => data<DocumentOutcome>({ ok: false, problem }, { status });

function outcomeOf<T>(done: Result<T, Refusal>, said: (value: T) => string) {
  return done.ok ? data<DocumentOutcome>({ ok: true, said: said(done.value) }) : refused(refusalSaid(done.error), 409);
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  if (Number(request.headers.get("content-length")) > MAX_BYTES) return refused(speak("records.aFileOnARecord"), 413);
  const record = await recordOfCode(deps, grant, params.code);
  if (record === null) throw data(speak("records.thereIsNoRecordOf"), { status: 404 });
  const form = await readForm(request, mostBytesTo("routes/records/record-documents"));
  if (form.get("do") === "remove") {
    const id = readId(String(form.get("document") ?? ""));
    if (!id.ok) return refused(refusalSaid({ kind: "no-such", what: "document" }), 404);
    return outcomeOf(await removeDocument(deps, grant, record, id.value), () => speak("records.removedFromTheRecord"));
  }
  const file = form.get("file");
  if (!(file instanceof File) || file.size === 0) return refused(speak("records.chooseAFileThatHas"), 400);
  const content = new Uint8Array(await file.arrayBuffer());
  if (/\.eml$/i.test(file.name) || file.type === "message/rfc822")
    return outcomeOf(await addMail(deps, grant, record, content), () =>
      speak("records.isFiledAsAMessage", { name: file.name }),
    );
  const brought = { name: file.name, contentType: file.type || "application/octet-stream", content };
  const added = await addDocument(deps, grant, context.get(memberContext), record, brought);
  return outcomeOf(
    added,
    (document) =>
      `${file.name} ${document === null ? speak("records.wasHereAlready") : speak("records.isOnTheRecord")}`,
  );
}

// A line that goes down while a file is on its way is no page to lose.
export async function clientAction({ serverAction }: Route.ClientActionArgs): Promise<DocumentOutcome> {
  try {
    return await serverAction();
  } catch {
    return { ok: false, problem: sayHere(recordsTexts, "records.theFileDidNotArrive") };
  }
}
