import { XMLBuilder, XMLParser, XMLValidator } from 'fast-xml-parser';
import { isDay } from '../days/index.ts';
import { currencyText, decimalsOf, formatDecimal, type Money, parseDecimal, type Quantity } from '../number/index.ts';
import { Refusal } from '../refusal/index.ts';
import { isPrintable } from '../text/index.ts';

/**
 * An element: its children by name, in the order of the schema; text with attributes stands under `#text`, attributes
 * under `@name`. What is undefined is left out.
 */
export interface Element {
  readonly [name: string]: string | Element | readonly Element[] | undefined;
}

const NAMESPACES = {
  '@xmlns:cac': 'urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2',
  '@xmlns:cbc': 'urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2',
};
const names = {
  Order: 'Order-2',
  OrderChange: 'OrderChange-2',
  OrderCancellation: 'OrderCancellation-2',
  OrderResponse: 'OrderResponse-2',
  DespatchAdvice: 'DespatchAdvice-2',
} as const;
export type UblKind = keyof typeof names;

/** A UBL 2.3 document as XML text. */
export function writeUbl(kind: UblKind, content: Element): string {
  const builder = new XMLBuilder({
    format: true,
    indentBy: '  ',
    ignoreAttributes: false,
    attributeNamePrefix: '@',
    suppressEmptyNode: true,
  });
  const root = {
    '@xmlns': `urn:oasis:names:specification:ubl:schema:xsd:${names[kind]}`,
    ...NAMESPACES,
    'cbc:UBLVersionID': '2.3',
    ...content,
  };
  return `<?xml version="1.0" encoding="UTF-8"?>\n${builder.build({ [kind]: root })}`;
}

/** Which UBL document a text is; null when it is none that we read. */
export function ublKind(xml: string): UblKind | null {
  const [, name] = /<(?:\w+:)?(OrderResponse|OrderChange|OrderCancellation|DespatchAdvice|Order)[\s>]/.exec(xml) ?? [];
  return (name as UblKind | undefined) ?? null;
}

/**
 * The content of a UBL document, whatever prefixes its sender uses.
 * @throws Refusal `ubl-unreadable` (with `why`) for anything else
 */
export function readUbl(xml: string, kind: UblKind): Node {
  // Entities of its own are nothing that a business document needs, and a way to make it explode.
  if (/<!DOCTYPE/i.test(xml)) throw unreadable('it declares a document type');
  if (!isPrintable(xml)) throw unreadable('it holds characters that XML does not allow');
  if (standsMore(/<[^/!?]/g, xml, MOST_ELEMENTS)) throw unreadable('it has more elements than any such document');
  if (standsMore(/=\s*["']/g, xml, MOST_ATTRIBUTES)) throw unreadable('it has more attributes than any such document');
  if (XMLValidator.validate(xml) !== true) throw unreadable('it is not well-formed XML');
  const parser = new XMLParser({
    ignoreAttributes: false,
    attributeNamePrefix: '@',
    removeNSPrefix: true,
    parseTagValue: false,
    parseAttributeValue: false,
    // The parser counts what stands around an element.
    maxNestedTags: DEEPEST - 1,
  });
  const root = childOf(parsed(parser, xml), kind);
  if (root === null || typeof root !== 'object') throw unreadable(`it is not of the kind ${kind}`);
  return new Node(root as Record<string, unknown>, kind);
}

/** More levels, elements and attributes than any document we read has. */
const DEEPEST = 60;
const MOST_ELEMENTS = 20_000;
const MOST_ATTRIBUTES = 20_000;

/** Whether a pattern, which looks at no character twice, stands in a text more often than that. */
function standsMore(pattern: RegExp, text: string, most: number): boolean {
  let times = 0;
  for (const _ of text.matchAll(pattern)) {
    times += 1;
    if (times > most) return true;
  }
  return false;
}

function parsed(parser: XMLParser, xml: string): unknown {
  try {
    return parser.parse(xml);
  } catch (error) {
    if (/nested/i.test(String(error))) throw unreadable('it is nested deeper than any such document');
    throw unreadable('its XML is not that of a business document');
  }
}

/** A child by its name, which may be the name of something that every object has. */
const childOf = (element: unknown, name: string): unknown =>
  typeof element === 'object' && element !== null && Object.hasOwn(element, name)
    ? (element as Record<string, unknown>)[name]
    : undefined;

const unreadable = (why: string) => new Refusal('ubl-unreadable', { why });

/** Reads an element by paths of names. */
export class Node {
  constructor(
    private readonly element: unknown,
    private readonly name: string,
  ) {}

  /** All children of a name, in their order. */
  all(name: string): Node[] {
    const child = childOf(this.element, name);
    const list = child === undefined ? [] : Array.isArray(child) ? child : [child];
    return list.map((one) => new Node(one, name));
  }

  /** The first at the end of a path like "LineItem/ID"; undefined when there is none. */
  at(path: string): Node | undefined {
    let node: Node | undefined = this;
    for (const name of path.split('/')) node = node?.all(name)[0];
    return node;
  }

  /** Text at the end of a path; null when there is none. */
  text(path: string): string | null {
    const found = this.at(path)?.element;
    const text = typeof found === 'object' && found !== null ? childOf(found, '#text') : found;
    return text === undefined || text === null || text === '' ? null : String(text).slice(0, 2000);
  }

  /** @throws Refusal `ubl-unreadable` when it is missing */
  needed(path: string): string {
    const text = this.text(path);
    if (text === null) throw unreadable(`${this.name} has no ${path}`);
    return text;
  }

  attribute(path: string, name: string): string | null {
    const value = childOf(this.at(path)?.element, `@${name}`);
    return typeof value === 'string' ? value : null;
  }

  quantity(path: string): Quantity {
    const text = this.needed(path);
    try {
      return parseDecimal(text) as Quantity;
    } catch {
      throw unreadable(`${path} is not a number: ${text.slice(0, 40)}`);
    }
  }

  /** An ISO day, or null. @throws Refusal `ubl-unreadable` for anything else */
  day(path: string): string | null {
    const text = this.text(path);
    if (text === null) return null;
    // Whatever follows is a time or a zone, of which a day on paper has none.
    const [day = ''] = /^\d{4}-\d{2}-\d{2}/.exec(text) ?? [];
    if (!isDay(day)) throw unreadable(`${path} is not a date: ${text.slice(0, 40)}`);
    return day;
  }
}

/** An amount with the decimals of its currency; a price may have more. */
export const amountOf = (amount: Money | bigint, currency: string): Element => ({
  '#text': currencyText(amount, decimalsOf(currency)),
  '@currencyID': currency,
});
export const quantityOf = (quantity: Quantity, unitCode: string | null): Element => ({
  '#text': formatDecimal(quantity),
  ...(unitCode === null ? {} : { '@unitCode': unitCode }),
});

/** UN/ECE Recommendation 20 codes of the units that have one. */
const UNIT_CODES: Record<string, string> = {
  each: 'EA',
  kg: 'KGM',
  g: 'GRM',
  l: 'LTR',
  ml: 'MLT',
  m: 'MTR',
  cm: 'CMT',
  mm: 'MMT',
  h: 'HUR',
  'm²': 'MTK',
  'm³': 'MTQ',
};
/** The standard's code of a unit; null for one the owner made up. */
export const unitCodeOf = (unit: string): string | null => UNIT_CODES[unit.toLowerCase()] ?? null;

export interface TradeParty {
  readonly name: string;
  /** Lines of the address as printed. */
  readonly address: readonly string[];
  readonly email: string | null;
}

/** A party in the order of the standard: name, address, contact. */
export const partyOf = ({ name, address, email }: TradeParty): Element => ({
  'cac:PartyName': { 'cbc:Name': name },
  'cac:PostalAddress':
    address.length === 0 ? undefined : { 'cac:AddressLine': address.map((line) => ({ 'cbc:Line': line })) },
  'cac:Contact': email === null ? undefined : { 'cbc:ElectronicMail': email },
});

export const readParty = (node: Node | undefined): TradeParty => ({
  name: node?.text('PartyName/Name') ?? '',
  address:
    node
      ?.at('PostalAddress')
      ?.all('AddressLine')
      .flatMap((line) => line.text('Line') ?? []) ?? [],
  email: node?.text('Contact/ElectronicMail') ?? null,
});
