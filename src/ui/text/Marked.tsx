'use client';
import { differingParts } from '@/core/text/differingParts';

/** A text with the parts marked that another text does not have. */
export function Marked({ text, other }: { text: string; other: string }) {
  return differingParts(text, other).map(({ text: part, differs }, place) =>
    // biome-ignore lint/suspicious/noArrayIndexKey: a part is known by its place
    differs ? <mark key={place}>{part}</mark> : <span key={place}>{part}</span>,
  );
}
