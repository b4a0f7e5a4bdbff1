import { data } from "react-router";
import { MOST_FORM_BYTES } from "./body-limits";
import { speak } from "./say.server";

// More than any form of ours has; a decision names each conversation that it is about.
const MOST_FIELDS = 25_000;
const MOST_NAME_CHARACTERS = 200;
const FORM = /^(?:application\/x-www-form-urlencoded|multipart\/form-data)\s*(?:;|$)/i;

const refused = (problem: string, status: number) => data({ ok: false, problem, problems: {} }, { status });

/**
 * The form that a request carries: the one place where bodies are read. What is too large, no form, or has what no form
 * of ours sends is thrown as an answer with a status of 4xx and a sentence.
 */
export async function readForm(request: Request, mostBytes = MOST_FORM_BYTES): Promise<FormData> {
  const contentType = request.headers.get("content-type") ?? "";
  const body = await readBytes(request, mostBytes);
  if (body.byteLength === 0 && contentType === "") return new FormData();
  if (!FORM.test(contentType)) throw refused(speak("server.whatWasSentIsNo"), 415);
  const form = await new Response(new Uint8Array(body), { headers: { "content-type": contentType } })
    .formData()
    .catch(() => null);
  if (form === null) throw refused(speak("server.whatWasSentIsCut"), 400);
  const problem = problemOf(form);
  if (problem !== null) throw refused(problem, 400);
  return form;
}

/** The bytes that a request carries, counted as they come. */
async function readBytes(request: Request, mostBytes: number): Promise<Uint8Array> {
  const tooLarge = () => refused(speak("server.thatIsTooLargeAt", { most: Math.floor(mostBytes / 1024) }), 413);
  if (Number(request.headers.get("content-length")) > mostBytes) throw tooLarge();
  const chunks: Uint8Array[] = [];
  let size = 0;
  // Not cancelled where it is too large: that would close the connection before the answer is on it.
  const reader = request.body?.getReader();
  for (let read = await reader?.read(); read?.done === false; read = await reader?.read()) {
    size += read.value.byteLength;
    if (size > mostBytes) throw tooLarge();
    chunks.push(read.value);
  }
  return Buffer.concat(chunks);
}

// What is to be done is said once: whoever reads the first and whoever reads the last must not read two things.
const SAID_ONCE = ["do", "kind"];

// PostgreSQL keeps no NUL in a text, and a field of this name would be the prototype of what is read into an object.
function problemOf(form: FormData): string | null {
  if (SAID_ONCE.some((name) => form.getAll(name).length > 1)) return speak("server.thatSaysMoreThanOnce");
  let count = 0;
  for (const [name, value] of form) {
    count += 1;
    if (count > MOST_FIELDS) return speak("server.thatHasMoreFieldsThan");
    if (name === "__proto__" || name.length > MOST_NAME_CHARACTERS || name.includes("\0"))
      return speak("server.thatHasAFieldThat");
    const text = typeof value === "string" ? value : value.name;
    if (text.includes("\0")) return speak("server.aTextCannotHaveA");
  }
  return null;
}
