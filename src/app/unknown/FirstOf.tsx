/** That only the first of many are shown; nothing where all are. */
export function FirstOf({ shown, count }: { shown: number; count: number }) {
  if (shown === 0 || count <= shown) return null;
  return (
    <p className="soft">
      The first {shown.toLocaleString('en')} of {count.toLocaleString('en')}; the next ones come when these are said.
    </p>
  );
}
