import { SaxesParser } from 'saxes';

/** What an element holds: its text, its attributes and its children, every child as a list. */
export interface Node {
  readonly text: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: Readonly<Record<string, readonly Node[]>>;
}

/** A node while it is read. */
interface Open {
  text: string;
  attributes: Record<string, string>;
  children: Record<string, Open[]>;
}

/** Without a prototype: an element may be called whatever it likes. */
const opened = (): Open => ({ text: '', attributes: Object.create(null), children: Object.create(null) });

/** A name without its namespace prefix: the EPP schemas have no two elements that only differ by that. */
const local = (name: string) => name.slice(name.indexOf(':') + 1);

/** Reads one EPP document, element by element. Throws on what is none: not XML, a document type, another root. */
export function readDocument(xml: string): Node {
  const top = opened();
  const path: Open[] = [top];
  const parser = new SaxesParser();
  const add = (text: string) => {
    const last = path.at(-1);
    if (last) last.text += text;
  };
  parser.on('error', (error) => {
    throw error;
  });
  parser.on('doctype', () => {
    throw new Error('a document type is not taken');
  });
  parser.on('opentag', (tag) => {
    const node = opened();
    for (const [name, value] of Object.entries(tag.attributes)) node.attributes[local(name)] = value;
    const { children } = path.at(-1) ?? top;
    const name = local(tag.name);
    const list = children[name];
    if (list) list.push(node);
    else children[name] = [node];
    path.push(node);
  });
  parser.on('text', add);
  parser.on('cdata', add);
  parser.on('closetag', () => {
    const done = path.pop();
    if (done) done.text = done.text.trim();
  });
  parser.write(xml).close();
  const root = top.children.epp?.[0];
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
