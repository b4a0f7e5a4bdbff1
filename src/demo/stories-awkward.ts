import { assign, bin, d, m, type Script, settle, tell, they, we } from "./script";

const LIST = {
  "List-Id": "Rolling Guild <rolling.tinguild.example>",
  "List-Unsubscribe": "<mailto:leave@tinguild.example>, <https://tinguild.example/leave>",
  "List-Post": "<mailto:rolling@tinguild.example>",
  Precedence: "list",
};
const NEWSLETTER = {
  "List-Unsubscribe": "<https://reedreview.example/leave?n=4411>",
  "List-Unsubscribe-Post": "List-Unsubscribe=One-Click",
  "List-Id": "<winter.reedreview.example>",
};

const NEWSLETTER_HTML = `<html><head><style>body{background:#123}</style><script>document.title = "taken"; fetch("https://count.reedreview.example/s");</script></head>
<body onload="alert('loaded')"><h1 style="color:#774063">The winter number</h1>
<img src="https://count.reedreview.example/open.gif?n=4411" width="1" height="1" alt="">
<p>This quarter: <b>leathering pallets</b> by lamplight, a visit to four village organs, and letters.</p>
<p style="position:fixed;top:0;left:0;width:100%;background:url(https://count.reedreview.example/bg.png)">Read it by the fire.</p>
<form action="https://reedreview.example/subscribe"><input name="mail"><button>Subscribe for a friend</button></form>
<p><a href="https://reedreview.example/winter" onclick="alert(1)">The whole number</a> · <a href="javascript:alert(2)">Terms</a></p>
<svg onload="alert(3)"><script>alert(4)</script></svg></body></html>`;

/** Newsletters, lists, machines, junk, and mail that is not as it should be. */
export const AWKWARD_STORIES: readonly Script[] = [
  tell(
    "office",
    "review",
    "Your copy of the winter number",
    they(m(300), "This quarter: leathering pallets by lamplight, a visit to four village organs, and letters.", {
      headers: NEWSLETTER,
      html: NEWSLETTER_HTML,
    }),
  ),
  tell(
    "office",
    "guild",
    "[rolling] Melt temperatures for 70 % spotted metal",
    they(d(1, "20:14"), "I would not go above 340 with that much tin. What do others do about the dross?", {
      headers: LIST,
    }),
    they(m(420), "We skim twice and wait. 345 at most.", { by: "tin", headers: LIST }),
  ),
  tell(
    "office",
    "bank",
    "A payment has reached your account",
    they(m(130), "A payment of 1,240.00 with the reference ST BRANNOC STAGE 1 has reached your account.", {
      headers: { "Auto-Submitted": "auto-generated" },
    }),
  ),
  tell(
    "office",
    "dean",
    "Invitation: visit of the diocesan adviser",
    they(m(350), "The adviser would like to see the workshop.", {
      whole: ({ messageId, date, to }) =>
        `From: Dean Rook, Westmere <dean@westmere.example>\r\nTo: ${to}\r\nSubject: Invitation: visit of the diocesan adviser\r\nDate: ${date}\r\nMessage-ID: <${messageId}>\r\nMIME-Version: 1.0\r\nContent-Type: multipart/alternative; boundary=cal\r\n\r\n--cal\r\nContent-Type: text/plain\r\n\r\nThe adviser would like to see the workshop on Thursday week at ten.\r\n--cal\r\nContent-Type: text/calendar; method=REQUEST; charset=utf-8\r\n\r\nBEGIN:VCALENDAR\r\nMETHOD:REQUEST\r\nBEGIN:VEVENT\r\nUID:visit-1@westmere.example\r\nSUMMARY:Visit of the diocesan adviser\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n--cal--\r\n`,
    }),
  ),
  tell(
    "office",
    "moravec",
    "Grüße aus Längenfeld: Orgelmöbel",
    they(m(480), "Ein Otter auf Messing.", {
      whole: ({ messageId, date, to }) =>
        `From: =?utf-8?Q?In=C3=A9s_Moravec?= <i.moravec@longacre.example>\r\nTo: ${to}\r\nSubject: =?utf-8?B?R3LDvMOfZSBhdXMgTMOkbmdlbmZlbGQ6IE9yZ2VsbcO2YmVs?=\r\nDate: ${date}\r\nMessage-ID: <${messageId}>\r\nContent-Type: text/plain; charset=iso-8859-1\r\nContent-Transfer-Encoding: quoted-printable\r\n\r\nEin M=F6bel mit Otter auf Messing, siehe auch die Stra=DFe hinter dem Pfarrhaus.\r\n`,
    }),
  ),
  tell(
    "office",
    "prize",
    "(damaged)",
    they(d(1, "03:12"), "x", {
      whole: () =>
        'From winner\r\nSubject: you have been chosen\r\nContent-Type: multipart/mixed; boundary="\r\n\r\n--\r\nthis message never ends and has no date, no sender that can be read and no id\r\n',
    }),
  ),
  tell(
    "office",
    "prize",
    "Dear winner, your organ",
    they(d(2, "02:20"), "You have won an organ. Send your bank details to receive it."),
    bin(d(2, "08:05"), "sunniva"),
  ),
  tell(
    "office",
    "prize",
    "Cheap pipes cheap pipes",
    they(d(7, "04:44"), "All pipes must go. All of them."),
    bin(d(7, "08:02"), "ines"),
  ),
  tell(
    "office",
    "review",
    "Your copy of the autumn number",
    they(d(60, "07:00"), "This quarter: how a bellows breathes, and the letters.", { headers: NEWSLETTER }),
    settle(d(60, "09:00"), "sunniva"),
  ),
  tell(
    "office",
    "guild",
    "[rolling] Who still casts on sand?",
    they(d(30, "21:00"), "Three of us, it seems. Who else?", { headers: LIST }),
    they(d(29, "08:00"), "Four.", { by: "ambrose", headers: LIST }),
    settle(d(29, "09:10"), "mattis"),
  ),
  tell(
    "office",
    "bank",
    "Your statement is ready",
    they(d(17, "05:00"), "Your statement for the last month is ready.", {
      headers: { "Auto-Submitted": "auto-generated" },
    }),
    settle(d(17, "08:30"), "mattis"),
  ),
  tell(
    "parts",
    "guild",
    "[rolling] Foot hole sizes, a table",
    they(d(3, "22:10"), "The table that some asked for is below. Corrections are welcome.", { headers: LIST }),
  ),
  tell(
    "parts",
    "felt",
    "Out of office: Northmill",
    they(d(4, "12:00"), "The mill is closed for the holiday of the town and opens again on Thursday.", {
      headers: { "Auto-Submitted": "auto-replied" },
    }),
    settle(d(4, "13:00"), "mattis"),
  ),
  tell(
    "parts",
    "prize",
    "Re: your invoice (urgent)",
    they(d(1, "01:01"), "Open the enclosed at once.", {
      attachment: { name: "../../invoice.pdf.exe", type: "application/octet-stream", content: "not a program" },
    }),
  ),
  tell("office", "quayle", "", they(m(520), "Forgot to say: the dog bites, but not tuners.")),
  tell(
    "office",
    "thrane",
    "Listed organs, yearly return",
    they(d(40, "10:00"), "The yearly return is due at the end of the month."),
    assign(d(40, "11:00"), "ines", "ines"),
    we(d(39, "10:00"), "ines", "Enclosed in spirit: nothing was altered this year but the Sorrel case.", "settle"),
    they(d(38, "09:00"), "Received with thanks. The file for this year is closed.\n\nLeocadia Thrane"),
    settle(d(38, "09:30"), "ines"),
  ),
];
