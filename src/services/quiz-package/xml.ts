/** XML as it comes in a package: read whole, without document types and what they could bring in. */
import { XMLParser, XMLValidator } from 'fast-xml-parser';

export type XmlNode =
  | { readonly kind: 'text'; readonly text: string }
  | {
      readonly kind: 'element';
      /** Without its prefix. */
      readonly name: string;
      readonly attributes: Readonly<Record<string, string>>;
      readonly children: readonly XmlNode[];
    };

export type XmlElement = Extract<XmlNode, { kind: 'element' }>;

/** More than any item needs. */
const DEEPEST = 60;

const parser = new XMLParser({
  preserveOrder: true,
  ignoreAttributes: false,
  attributeNamePrefix: '',
  trimValues: false,
  parseTagValue: false,
  parseAttributeValue: false,
  processEntities: false,
  removeNSPrefix: true,
  ignoreDeclaration: true,
  ignorePiTags: true,
});

type Parsed = Readonly<Record<string, unknown>>;

/** The root of an XML document, or why it can't be read, in words. */
export function readXml(text: string): XmlElement | { readonly problem: string } {
  if (/<!(?:DOCTYPE|ENTITY)/i.test(text))
    return { problem: 'it brings a document type, which is not read. Leave that out' };
  const depth = depthOf(text);
  if (depth > DEEPEST) return { problem: `its elements are more than ${DEEPEST} deep` };
  const valid = XMLValidator.validate(text);
  if (valid !== true) return { problem: `line ${valid.err.line} is no XML: ${valid.err.msg}` };
  const [root] = (parser.parse(text) as Parsed[]).flatMap((one) => nodeOf(one));
  return root?.kind === 'element' ? root : { problem: 'there is nothing in it' };
}

/** How deep elements stand in each other, at most: counted without reading them. */
function depthOf(text: string): number {
  let depth = 0;
  let most = 0;
  for (const [tag] of text.matchAll(/<\/?[a-z][^<>]*>/gi)) {
    if (tag.startsWith('</')) depth -= 1;
    else if (!tag.endsWith('/>')) most = Math.max(most, ++depth);
  }
  return most;
}

function nodeOf(parsed: Parsed): readonly XmlNode[] {
  const { ':@': attributes = {}, ...rest } = parsed;
  return Object.entries(rest).map(
    ([name, value]): XmlNode =>
      name === '#text'
        ? { kind: 'text', text: unescaped(String(value)) }
        : {
            kind: 'element',
            name,
            attributes: Object.fromEntries(
              Object.entries(attributes as Parsed).map(([key, text]) => [key, unescaped(String(text))]),
            ),
            children: (value as Parsed[]).flatMap(nodeOf),
          },
  );
}

const NAMED: Readonly<Record<string, string>> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" };

/** A text with its character references (XML 1.0, §4.1 and §4.6) as the characters that they mean. */
const unescaped = (text: string): string =>
  text.replace(/&(?:#(\d{1,7})|#x([\da-f]{1,6})|(\w{2,4}));/gi, (whole, decimal, hex, name) => {
    if (name !== undefined) return NAMED[name] ?? whole;
    const code = decimal === undefined ? Number.parseInt(hex, 16) : Number(decimal);
    return code > 0 && code <= 0x10ffff && !(code >= 0xd800 && code <= 0xdfff)
      ? String.fromCodePoint(code)
      : whole;
  });

/** Every element of some names beneath one, in their order. */
export const elementsIn = (root: XmlElement, ...names: readonly string[]): readonly XmlElement[] =>
  root.children.flatMap((child) =>
    child.kind === 'text'
      ? []
      : [...(names.includes(child.name) ? [child] : []), ...elementsIn(child, ...names)],
  );

/** The elements of a name right beneath one. */
export const childrenOf = (root: XmlElement, name: string): readonly XmlElement[] =>
  root.children.filter((child): child is XmlElement => child.kind === 'element' && child.name === name);

/** A text within an element or an attribute. */
export const escaped = (text: string): string =>
  text.replace(/[&<>"]/g, (letter) => `&#${letter.codePointAt(0)};`);
