/** What a jCard says of a contact (RFC 7095). */
export interface Card {
  readonly name: string | null;
  readonly organisation: string | null;
  readonly mail: string | null;
  readonly phone: string | null;
  readonly country: string | null;
  readonly form: string | null;
}

const text = (value: unknown): string | null => {
  if (typeof value === 'string') return value.trim() === '' ? null : value.trim();
  if (Array.isArray(value)) return text(value.flat().find((part) => typeof part === 'string' && part !== ''));
  return null;
};

/** Reads `["vcard", [[property, parameters, type, value…]…]]`. What is no card says nothing. */
export function readCard(array: unknown): Card {
  const card: { -readonly [K in keyof Card]: Card[K] } = {
    name: null,
    organisation: null,
    mail: null,
    phone: null,
    country: null,
    form: null,
  };
  const properties = Array.isArray(array) && array[0] === 'vcard' && Array.isArray(array[1]) ? array[1] : [];
  for (const property of properties) {
    if (!Array.isArray(property) || typeof property[0] !== 'string') continue;
    const [name, parameters, , value] = property as [string, unknown, unknown, unknown];
    switch (name.toLowerCase()) {
      case 'fn':
        card.name ??= text(value);
        break;
      case 'org':
        card.organisation ??= text(value);
        break;
      case 'email':
        card.mail ??= text(value);
        break;
      case 'tel':
        card.phone ??= text(value)?.replace(/^tel:/i, '') ?? null;
        break;
      case 'contact-uri':
        card.form ??= text(value);
        break;
      case 'adr':
        card.country ??= countryOf(parameters, value);
        break;
      default:
    }
  }
  return card;
}

/** The country of an address: its `cc` parameter (RFC 8605), else the seventh component (RFC 6350 section 6.3.1). */
function countryOf(parameters: unknown, value: unknown): string | null {
  const cc = typeof parameters === 'object' && parameters !== null ? (parameters as { cc?: unknown }).cc : null;
  return text(cc) ?? (Array.isArray(value) ? text(value[6]) : null);
}
