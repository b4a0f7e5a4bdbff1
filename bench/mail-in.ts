import { createTransport } from "nodemailer";
import { listenForMail, parseMessage } from "~/mail/index";
import type { Wired } from "~/main/wiring";
import { knowsAddress, receiveMessage } from "~/operations/index.server";
import type { Figure } from "./measure";

const CONNECTIONS = 4;
const MESSAGES = 1_200;
const PARSED = 600;
const LEAST = 0.25;
const PARAGRAPH =
  "The committee meets on the third. We still need the drawings of the lower frame, at one to twenty, and a word on how the old fixings will be kept.\r\n";

/** A letter as offices get them: text and HTML, quoted history, a small attachment, about 20 KB. Every fourth answers one before it. */
function letter(at: number, round: string): Buffer {
  const quoted = `> ${PARAGRAPH}`.repeat(20);
  const parent =
    at % 4 === 3
      ? `In-Reply-To: <${round}-${at - 3}@bench.example>\r\nReferences: <${round}-${at - 3}@bench.example>\r\n`
      : "";
  const attachment = Buffer.from(`page ${at} of a plan `.repeat(280)).toString("base64").replace(/.{76}/g, "$&\r\n");
  return Buffer.from(
    `From: Person ${at % 300} <person${at % 300}@bench.example>\r\nTo: office@ottermoor.example\r\nSubject: Letter ${at}\r\nDate: Tue, 24 Nov 2026 08:00:00 +0000\r\nMessage-ID: <${round}-${at}@bench.example>\r\n${parent}MIME-Version: 1.0\r\nContent-Type: multipart/mixed; boundary=m\r\n\r\n--m\r\nContent-Type: multipart/alternative; boundary=a\r\n\r\n--a\r\nContent-Type: text/plain; charset=utf-8\r\n\r\nLetter ${at}\r\n${PARAGRAPH.repeat(12)}\r\nOn Monday, Ines wrote:\r\n${quoted}\r\n--a\r\nContent-Type: text/html; charset=utf-8\r\n\r\n<p>Letter ${at}</p><p>${PARAGRAPH.repeat(12)}</p><blockquote>${PARAGRAPH.repeat(20)}</blockquote>\r\n--a--\r\n--m\r\nContent-Type: application/pdf; name=plan.pdf\r\nContent-Disposition: attachment; filename=plan.pdf\r\nContent-Transfer-Encoding: base64\r\n\r\n${attachment}\r\n--m--\r\n`,
  );
}

async function parsedPerSecond(): Promise<number> {
  const letters = Array.from({ length: PARSED }, (_, at) => letter(at, "parse"));
  for (const raw of letters.slice(0, 100)) await parseMessage(raw, "a@bench.example");
  const start = performance.now();
  for (const raw of letters) await parseMessage(raw, "a@bench.example");
  return PARSED / ((performance.now() - start) / 1_000);
}

async function deliveredPerSecond(port: number, round: string, count: number): Promise<number> {
  const letters = Array.from({ length: count }, (_, at) => letter(at, round));
  let next = 0;
  const start = performance.now();
  const connection = async () => {
    const transport = createTransport({
      host: "127.0.0.1",
      port,
      ignoreTLS: true,
      pool: true,
      maxConnections: 1,
      maxMessages: Infinity,
    });
    for (let at = next++; at < count; at = next++) {
      const raw = letters[at] ?? Buffer.alloc(0);
      await transport.sendMail({ envelope: { from: "a@bench.example", to: "office@ottermoor.example" }, raw });
    }
    transport.close();
  };
  await Promise.all(Array.from({ length: CONNECTIONS }, connection));
  return count / ((performance.now() - start) / 1_000);
}

/**
 * Messages in per second over SMTP, durable, with 4 connections, against parsing alone with the same library. Sender and
 * receiver share this process and its one core for JavaScript, so the real figure is rather better.
 */
export async function mailIn({ deps }: Wired): Promise<Figure> {
  const listener = await listenForMail(
    { host: "127.0.0.1", port: 0, maxBytes: 10_000_000 },
    {
      knows: (address) => knowsAddress(deps, address),
      accept: async (mail) => void (await receiveMessage(deps, mail)),
      onProblem: (problem) => console.error(problem),
    },
  );
  await deliveredPerSecond(listener.port, "warm", 200);
  const floor = await parsedPerSecond();
  const measured = await deliveredPerSecond(listener.port, "timed", MESSAGES);
  await listener.close();
  const ratio = measured / floor;
  return {
    name: `messages in over SMTP, ${CONNECTIONS} connections, durable`,
    unit: "messages/s",
    measured,
    floor,
    floorName: "parsing alone",
    ratio,
    asked: `at least ${LEAST}`,
    holds: ratio >= LEAST,
  };
}
