const PARAGRAPH =
  "The committee meets on the third. We still need the drawings of the lower frame, at one to twenty, and a word on how the old fixings will be kept.\r\n";

/** A letter as offices get them: text and HTML, quoted history, a small attachment, about 20 KB. Every fourth answers one before it. */
export function letter(at: number, round: string): Buffer {
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
