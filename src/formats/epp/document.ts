import { XMLParser } from 'fast-xml-parser';

/** What an element holds: its text, its attributes (`@name`) and its children, every child as a list. */
export interface Node {
  readonly text: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: Readonly<Record<string, readonly Node[]>>;
}

const parser = new XMLParser({
  ignoreAttributes: false,
  attributeNamePrefix: '@',
  removeNSPrefix: true,
  parseTagValue: false,
  parseAttributeValue: false,
  // Character references by number (&#233;) are part of XML, though the parser counts them among HTML's.
  htmlEntities: true,
  alwaysCreateTextNode: true,
  textNodeName: '#',
  isArray: (_name, _path, _leaf, isAttribute) => !isAttribute,
});

type Raw = Record<string, unknown>;

function nodeOf(raw: unknown): Node {
  if (typeof raw !== 'object' || raw === null) return { text: String(raw ?? '').trim(), attributes: {}, children: {} };
  const attributes: Record<string, string> = {};
  const children: Record<string, Node[]> = {};
  let text = '';
  for (const [key, value] of Object.entries(raw as Raw)) {
    if (key === '#') text = String(value).trim();
    else if (key.startsWith('@')) attributes[key.slice(1)] = String(value);
    else children[key] = (Array.isArray(value) ? value : [value]).map(nodeOf);
  }
  return { text, attributes, children };
}

/** Reads one EPP document. Throws on what is none: not XML, a document type, another root. */
export function readDocument(xml: string): Node {
  if (/<!DOCTYPE/i.test(xml)) throw new Error('a document type is not taken');
  const root = nodeOf(parser.parse(xml, true) as Raw).children.epp?.[0];
  if (!root) throw new Error('not an EPP document');
  return root;
}

/** The first child on a path, or `null`. */
export function at(node: Node | null | undefined, ...path: readonly string[]): Node | null {
  let found: Node | null | undefined = node;
  for (const step of path) found = found?.children[step]?.[0];
  return found ?? null;
}

/** The text of the first child on a path, or `null` where there is none. */
export function textAt(node: Node | null | undefined, ...path: readonly string[]): string | null {
  return at(node, ...path)?.text ?? null;
}

const ENTITIES: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&apos;',
};

/** Text as it may stand in XML, in an element or an attribute. */
export function escapeXml(text: string): string {
  return text.replace(/[&<>"']/g, (letter) => ENTITIES[letter] ?? '');
}
