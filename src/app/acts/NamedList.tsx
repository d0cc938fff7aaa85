'use client';

const SHOWN = 12;

/** The names that something is about to be done with: the first of them spelled out, and how many more there are. */
export function NamedList({ names, count }: { names: readonly string[]; count: number }) {
  const shown = names.slice(0, SHOWN);
  return (
    <p>
      {shown.map((name, place) => (
        <span key={name}>
          {place > 0 && ', '}
          <span className="name">{name}</span>
        </span>
      ))}
      {count > shown.length && <span className="soft"> and {(count - shown.length).toLocaleString('en')} more</span>}
    </p>
  );
}
