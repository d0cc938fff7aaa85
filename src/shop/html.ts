const ESCAPED: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&#39;',
};

/** Text that may stand in a page as it is. */
export class Html {
  constructor(readonly text: string) {}
}

type Part = string | number | Html | null | false | readonly Part[];

/** A text as it may stand in the page: whatever somebody has written is text there. */
export function asText(text: string): string {
  return text.replace(/[&<>"']/g, (letter) => ESCAPED[letter] as string);
}

function written(part: Part): string {
  if (part === null || part === false) return '';
  if (part instanceof Html) return part.text;
  return typeof part === 'object' ? part.map(written).join('') : asText(String(part));
}

/** Writes HTML: whatever is put in stands as text, unless it was written so itself. */
export function html(strings: TemplateStringsArray, ...parts: readonly Part[]): Html {
  return new Html(
    strings.reduce((all, string, i) => `${all}${string}${i < parts.length ? written(parts[i] as Part) : ''}`, ''),
  );
}
