import { data } from "react-router";
import { type DraftAttachment, MOST_ENCLOSED_BYTES } from "../../../core/writing/draft-attachment";
import { attachDocument, attachFile, documentsToAttach } from "../../../operations/index.server";
import { writingTexts } from "../../../texts/en/writing";
import { mostBytesTo } from "../../server/base/body-limits";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { readingOf } from "../../server/base/row-view.server";
import { speak } from "../../server/base/say.server";
import { documentChoices } from "../../server/records/record-view.server";
import { readDocumentToAttach } from "../../server/writing/draft-attachments-form.server";
import { sayHere } from "../../ui/texts/say-here";
import type { Route } from "./+types/draft-attachments";

/** What became of a file that was brought for a message. */
export type AttachOutcome =
  | { readonly ok: true; readonly enclosure: DraftAttachment }
  | { readonly ok: false; readonly problem: string };

const MOST_RECORDS = 20;
// The form around a file takes some room of its own.
const FORM_BYTES = 10_000;

const refused = (problem: string, status: number) => data<AttachOutcome>({ ok: false, problem }, { status });

/** The documents of some records that can go with a message, the newest version of each first. */
export async function loader({ request, context }: Route.LoaderArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const codes = new URL(request.url).searchParams.getAll("record").slice(0, MOST_RECORDS);
  const documents = await documentsToAttach(deps, grant, codes);
  return { documents: documentChoices(documents, readingOf(context.get(memberContext), deps.now())) };
}

/** Keeps a file for a message that is being written: one from her device, or a document of a record. */
export async function action({ request, context }: Route.ActionArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const tooLarge = refusalSaid({ kind: "too-large", mostBytes: MOST_ENCLOSED_BYTES });
  if (Number(request.headers.get("content-length")) > MOST_ENCLOSED_BYTES + FORM_BYTES) return refused(tooLarge, 413);
  const form = await readForm(request, mostBytesTo("routes/writing/draft-attachments"));
  const file = form.get("file");
  if (file instanceof File) {
    if (file.size > MOST_ENCLOSED_BYTES) return refused(tooLarge, 413);
    const content = new Uint8Array(await file.arrayBuffer());
    const contentType = file.type || "application/octet-stream";
    return outcomeOf(await attachFile(deps, grant, { name: file.name, contentType, content }));
  }
  const document = readDocumentToAttach(form);
  if (document === null) return refused(speak("writing.chooseAFileFirst"), 400);
  return outcomeOf(await attachDocument(deps, grant, document));
}

function outcomeOf(kept: Awaited<ReturnType<typeof attachFile>>) {
  return kept.ok ? data<AttachOutcome>({ ok: true, enclosure: kept.value }) : refused(refusalSaid(kept.error), 409);
}

// A line that goes down while a file is on its way is no page to lose.
export async function clientAction({ serverAction }: Route.ClientActionArgs): Promise<AttachOutcome> {
  try {
    return await serverAction();
  } catch {
    return { ok: false, problem: sayHere(writingTexts, "writing.itDidNotArriveThe") };
  }
}

/** Nothing on the page is other than before. */
export function shouldRevalidate() {
  return false;
}
