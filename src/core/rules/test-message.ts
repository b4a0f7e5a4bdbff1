import { assertNever } from "../kernel/assert-never";
import { domainOf, type EmailAddress, looseAddress, withoutSubaddress } from "../kernel/email-address";
import type { Instant } from "../kernel/instant";
import { mailDate } from "../message/mail-date";
import { headerValue } from "../message/mail-message";
import { zonedDay } from "../time/zoned-day";
import type {
  AddressMatch,
  AddressPart,
  AddressPlace,
  FieldMatch,
  Reach,
  Test,
  TestKind,
  TestOf,
  TextPlace,
} from "./condition";
import { type DatePart, datePart } from "./date-parts";
import { type Finder, finderOf, lowerAscii, relates, type SearchedText, searchedText } from "./find-text";
import type { Correspondent, RuledMessage } from "./ruled-message";

/** A message made ready to be tested many times: what tests ask for in another form is made once, when it is asked for. */
export type TestedMessage = RuledMessage & { readonly texts: (place: TextPlace) => readonly SearchedText[] };

/** A message made ready for tests. */
export function testedMessage(message: RuledMessage): TestedMessage {
  const made = new Map<TextPlace, readonly SearchedText[]>();
  const texts = (place: TextPlace) => {
    const known = made.get(place) ?? textsAt(message, place).map((text) => searchedText(text));
    made.set(place, known);
    return known;
  };
  return { ...message, texts };
}

function textsAt(message: RuledMessage, place: TextPlace): readonly string[] {
  switch (place) {
    case "subject":
      return [message.subject];
    case "text":
      return [message.ownText];
    case "body":
      return [bodyOf(message)];
    case "parts":
      return [bodyOf(message), ...message.otherTexts()];
    case "file":
      return message.attachments.map(({ fileName }) => fileName);
    default:
      return assertNever(place);
  }
}

const bodyOf = ({ ownText, restText }: RuledMessage) => (restText === "" ? ownText : `${ownText}\n${restText}`);

/** What made a test hold, empty where there is nothing to name; null where it does not hold. */
export type Found = string | null;

/** A test made ready for many messages. */
export type Tester = (message: TestedMessage) => Found;

const testers = new WeakMap<Test, Tester>();

/** A test made ready; once for each test that there is, since patterns are dear to make. */
export function testerOf(test: Test): Tester {
  const known = testers.get(test) ?? newTester(test);
  testers.set(test, known);
  return known;
}

function newTester<Kind extends TestKind>(test: TestOf<Kind>): Tester {
  // The table's type ties each test to its kind; an index by a union loses that tie.
  return (TESTERS[test.kind as Kind] as (test: TestOf<Kind>) => Tester)(test);
}

const when = (holds: boolean): Found => (holds ? "" : null);
const first = <T>(all: readonly T[], holds: (one: T) => boolean, said: (one: T) => string = String): Found => {
  const one = all.find(holds);
  return one === undefined ? null : said(one);
};
/** Whether one of several things that are asked for is the one that there is. */
const oneOf =
  <T>(of: readonly T[], is: (message: TestedMessage) => T): Tester =>
  (message) => {
    const there = is(message);
    return of.includes(there) ? String(there ?? "") : null;
  };

const TESTERS: { readonly [Kind in TestKind]: (test: TestOf<Kind>) => Tester } = {
  every: () => () => "",
  address: ({ where, of }) => {
    return (message) => {
      for (const address of addressesAt(message, where)) {
        const found = of.find((one) => belongs(address, one, message.correspondents.get(address)));
        if (found !== undefined) return found.kind === "domain" ? `@${found.domain}` : address;
      }
      return null;
    };
  },
  reach: ({ of }) => oneOf(of, reachOf),
  "message-kind": ({ of }) => oneOf(of, ({ kind }) => kind),
  opening:
    (test) =>
    ({ isFirst }) =>
      when(isFirst === test.isFirst),
  text: ({ where, match }) => {
    const find = finderOf(match);
    return (message) => firstFound(message.texts(where), find);
  },
  list: ({ of }) => oneOf<string | null>(of, ({ list }) => list),
  attachment: ({ types = [], name, over = -1, under = Number.POSITIVE_INFINITY }) => {
    const find = name === undefined ? () => "" : finderOf(name);
    const isOfType = (type: string) =>
      types.length === 0 ||
      types.some((one) => one === type || (one.endsWith("/*") && type.startsWith(one.slice(0, -1))));
    return ({ attachments }) =>
      first(
        attachments,
        ({ fileName, contentType, size }) =>
          size > over && size < under && isOfType(contentType.toLowerCase()) && find(searchedText(fileName)) !== null,
        ({ fileName }) => fileName,
      );
  },
  size:
    ({ over = -1, under = Number.POSITIVE_INFINITY }) =>
    ({ size }) =>
      when(size > over && size < under),
  header: ({ names, match }) => {
    const find = fieldFinder(match);
    return ({ headers }) => find(headers.filter(({ name }) => names.includes(name)).map(({ value }) => value));
  },
  "address-part": ({ names, part, match }) => {
    const find = fieldFinder(match);
    return (message) =>
      find(names.flatMap((name) => addressesIn(message, name)).flatMap((one) => partOf(one, part) ?? []));
  },
  verified:
    ({ is }) =>
    ({ isVerified }) =>
      when(isVerified === is),
  open:
    ({ is }) =>
    ({ arrived }) =>
      when(arrived.isOpen === is),
  weekday: ({ of }) => oneOf(of, ({ arrived }) => zonedDay(arrived.at, arrived.zone).weekday),
  days:
    ({ from, until }) =>
    ({ arrived }) => {
      const day = datePart(arrived.at, arrived.zone, "date");
      return when((from === null || from <= day) && (until === null || day <= until));
    },
  "date-part": ({ field, zone, part, match }) => {
    const find = fieldFinder(match);
    return (message) =>
      find(momentsIn(message, field, zone).map(([at, clock]) => datePart(at, clock, part as DatePart)));
  },
  reference:
    ({ of }) =>
    ({ references }) =>
      first(references, (id) => of.length === 0 || of.includes(id)),
  template: ({ of }) => oneOf<string | null>(of, ({ templateId }) => templateId),
  standing: ({ of }) => inConversation(({ standing }) => first(of, (one) => one === standing)),
  owner: ({ of }) =>
    inConversation(({ ownerId }) =>
      first(
        of,
        (one) => one === ownerId,
        (one) => one ?? "",
      ),
    ),
  "owner-away": () => inConversation(({ isOwnerAway }) => when(isOwnerAway)),
  category: ({ of }) => inConversation(({ categoryIds }) => first(of, (one) => categoryIds.includes(one))),
  record: ({ of }) => inConversation(({ recordIds }) => first(of, (one) => recordIds.includes(one))),
  urgency: ({ of }) => inConversation(({ urgency }) => first(of, (one) => one === urgency)),
  age: ({ hours }) => inConversation(({ age }) => when(age >= hours)),
  "standing-for": ({ hours }) => inConversation(({ standingFor }) => when(standingFor >= hours)),
  due: ({ hours }) => inConversation(({ dueIn }) => when(dueIn !== null && dueIn <= hours)),
};

function inConversation(find: (conversation: NonNullable<RuledMessage["conversation"]>) => Found): Tester {
  return ({ conversation }) => (conversation === null ? null : find(conversation));
}

/** The addresses that stand in a place of a message. */
export function addressesAt(
  message: Pick<RuledMessage, "from" | "to" | "cc" | "addressFields">,
  where: AddressPlace,
): readonly EmailAddress[] {
  const { to, cc } = message;
  switch (where) {
    case "from":
      return authorsOf(message);
    case "to":
      return to;
    case "cc":
      return cc;
    case "recipient":
      return [...to, ...cc];
    case "any":
      return [...authorsOf(message), ...to, ...cc];
    default:
      return assertNever(where);
  }
}

// RFC 5322 3.6.2: From may name several, where one of them sent it.
function authorsOf({ from, addressFields }: Pick<RuledMessage, "from" | "addressFields">): readonly EmailAddress[] {
  if (from === null) return [];
  const all = addressFields.get("from") ?? [];
  return all.length < 2 ? [from] : [...new Set([from, ...all.map(looseAddress)])];
}

function belongs(address: EmailAddress, match: AddressMatch, known: Correspondent | undefined): boolean {
  switch (match.kind) {
    case "address":
      return address === match.address;
    case "domain":
      return domainOf(address) === match.domain;
    case "contact":
      return known?.contactId === match.contactId;
    case "contact-category":
      return known?.categoryIds.includes(match.categoryId) ?? false;
    case "organisation":
      return known !== undefined && known.organisation.toLowerCase() === match.name.toLowerCase();
    case "colleague":
      return known?.isColleague ?? false;
    case "known":
      return known?.isKnown ?? false;
    case "unknown":
      return !(known?.isKnown ?? false);
    default:
      return assertNever(match);
  }
}

function reachOf({ list, to, cc, ours }: RuledMessage): Reach | null {
  if (list !== null) return "list";
  const isOurs = (one: EmailAddress) => ours.includes(one) || ours.includes(withoutSubaddress(one));
  if (to.some(isOurs)) return "direct";
  return cc.some(isOurs) ? "copied" : null;
}

function firstFound(texts: readonly SearchedText[], find: Finder): Found {
  for (const text of texts) {
    const found = find(text);
    if (found !== null) return found;
  }
  return null;
}

/** A comparison with the values of a field, made ready; it gives what of them matched. */
export function fieldFinder(match: FieldMatch): (values: readonly string[]) => Found {
  switch (match.how) {
    case "exists":
      return (values) => when(values.length > 0);
    case "count":
      return (values) =>
        when(match.values.some((value) => relates(String(values.length), match.relation, value, true)));
    case "value":
      return (values) =>
        first(values, (one) =>
          match.values.some((value) => relates(one.trim(), match.relation, value, match.isNumber)),
        );
    default: {
      // RFC 4790 9.2.1: in fields only the letters of ASCII have no case.
      const find = finderOf(match, lowerAscii);
      // RFC 5228 5.7: white space around a value is none of it.
      return (values) =>
        firstFound(
          values.map((value) => searchedText(value.trim(), lowerAscii)),
          find,
        );
    }
  }
}

function addressesIn({ envelope, addressFields }: RuledMessage, name: string): readonly string[] {
  if (name === "envelope-from") return envelope.from === null ? [] : [envelope.from];
  return name === "envelope-to" ? envelope.to : (addressFields.get(name) ?? []);
}

function partOf(address: string, part: AddressPart): string | null {
  const at = address.lastIndexOf("@");
  const local = at < 0 ? address : address.slice(0, at);
  const plus = local.indexOf("+");
  switch (part) {
    case "all":
      return address;
    case "localpart":
      return local;
    case "domain":
      return at < 0 ? "" : address.slice(at + 1);
    case "user":
      return plus < 0 ? local : local.slice(0, plus);
    case "detail":
      return plus < 0 ? null : local.slice(plus + 1);
    default:
      return assertNever(part);
  }
}

// A field's date keeps its own offset where the test asks for that ("original"); its moment is read once.
function momentsIn({ arrived, headers }: RuledMessage, field: string | null, zone: string | null): [Instant, string][] {
  if (field === null) return [[arrived.at, zone ?? arrived.zone]];
  const value = headerValue(headers, field);
  const at = value === null ? null : mailDate(field === "received" ? value.slice(value.lastIndexOf(";") + 1) : value);
  if (at === null || value === null) return [];
  const own = /[+-]\d{4}(?=\s*(?:\(|$))/.exec(value.trim())?.[0] ?? "+0000";
  return [[at, zone === "original" ? own : (zone ?? arrived.zone)]];
}
