/** A plain message as bytes; what is not said is plausible. */
export function aMessage(fields: {
  from?: string;
  to?: string;
  subject?: string;
  id?: string;
  date?: string;
  inReplyTo?: string;
  references?: string;
  headers?: Readonly<Record<string, string>>;
  body?: string;
}): Uint8Array {
  const head: Record<string, string | undefined> = {
    From: fields.from ?? "Perpetua Vane <perpetua.vane@vanehouse.example>",
    To: fields.to ?? "office@ottermoor.example",
    Subject: fields.subject ?? "Middle C sticks",
    Date: fields.date ?? "Tue, 24 Nov 2026 08:30:00 +0000",
    "Message-ID": fields.id === undefined ? "<m1@vanehouse.example>" : fields.id === "" ? undefined : `<${fields.id}>`,
    "In-Reply-To": fields.inReplyTo === undefined ? undefined : `<${fields.inReplyTo}>`,
    References: fields.references,
    ...fields.headers,
  };
  const lines = Object.entries(head).flatMap(([name, value]) => (value === undefined ? [] : [`${name}: ${value}`]));
  return new TextEncoder().encode(`${[...lines, "", fields.body ?? "Would a Tuesday be possible?", ""].join("\r\n")}`);
}

/** The headers and the body of a message that carries text files of these names, each with its name in it. */
export function withFiles(fileNames: readonly string[]): {
  readonly headers: Readonly<Record<string, string>>;
  readonly body: string;
} {
  const files = fileNames.map((name) =>
    [
      "--cut",
      `Content-Type: text/plain; name=${name}`,
      `Content-Disposition: attachment; filename=${name}`,
      "",
      `This is ${name}.`,
    ].join("\r\n"),
  );
  const body = ["--cut", "Content-Type: text/plain", "", "Here they are.", ...files, "--cut--"].join("\r\n");
  return { headers: { "MIME-Version": "1.0", "Content-Type": "multipart/mixed; boundary=cut" }, body };
}

/** Such a message as bytes. */
export function aMessageWithFiles(
  fields: Pick<Parameters<typeof aMessage>[0], "from" | "id" | "subject">,
  fileNames: readonly string[],
): Uint8Array {
  return aMessage({ ...fields, ...withFiles(fileNames) });
}

/** A bounce by RFC 3464 of a message of ours. */
export function aBounce(fields: {
  of: string;
  recipient: string;
  action?: string;
  status?: string;
  id?: string;
}): Uint8Array {
  return new TextEncoder().encode(
    [
      "From: Mail system <mailer-daemon@oldwyke.example>",
      "To: office@ottermoor.example",
      "Subject: Undelivered mail returned to sender",
      "Date: Tue, 24 Nov 2026 09:30:00 +0000",
      `Message-ID: <${fields.id ?? "bounce1@oldwyke.example"}>`,
      `References: <${fields.of}>`,
      "MIME-Version: 1.0",
      'Content-Type: multipart/report; report-type=delivery-status; boundary="r"',
      "",
      "--r",
      "Content-Type: text/plain",
      "",
      "It could not be delivered.",
      "--r",
      "Content-Type: message/delivery-status",
      "",
      "Reporting-MTA: dns; oldwyke.example",
      "",
      `Final-Recipient: rfc822; ${fields.recipient}`,
      `Action: ${fields.action ?? "failed"}`,
      `Status: ${fields.status ?? "5.1.1"}`,
      "Diagnostic-Code: smtp; 550 5.1.1 no such mailbox",
      "--r--",
      "",
    ].join("\r\n"),
  );
}
