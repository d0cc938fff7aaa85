import { ENTRY_KINDS } from '@/core/journal';
import type { EntryRow, HistoryRow, NameDetail } from '@/usecases/names/detail';
import type { HistoryLine } from '@/usecases/names/history';
import type { SavedView } from '@/usecases/names/views';
import type { DropRow, Hanging } from '@/usecases/rescue/drop';
import { amountOf, day, documentOf, from, instant, list, named, oneOf, orNull, text, whole, yesNo } from '../kinds';

export const history = documentOf<HistoryRow>()({
  at: instant,
  by: oneOf('office', 'program'),
  person: orNull(text),
  kind: text,
  summary: text,
  before: { schema: { anyOf: [{ type: 'object' }, { type: 'null' }] }, write: (value) => value },
  after: { schema: { type: 'object' }, write: (value) => value },
  evidence: orNull(text),
  batchId: whole,
  undone: yesNo,
});

export const entry = documentOf<EntryRow>()({
  id: whole,
  onDay: day,
  kind: oneOf(...ENTRY_KINDS),
  amount: amountOf(({ minor, currency }: EntryRow) => ({ minor, currency })),
  paymentMethod: from(({ paymentMethod }: EntryRow) => paymentMethod || null, orNull(text)),
  reference: from(({ reference }: EntryRow) => reference || null, orNull(text)),
  note: from(({ note }: EntryRow) => note || null, orNull(text)),
  corrects: orNull(whole),
  correctedBy: orNull(whole),
  person: orNull(text),
});

export const detail = named(
  'NameHistory',
  documentOf<NameDetail>()({
    name: from(({ ascii }: NameDetail) => ascii, text),
    unicode: text,
    nameServers: from(({ extras }: NameDetail) => extras.nameServers, list(text)),
    addedAt: from(({ extras }: NameDetail) => extras.addedAt, instant),
    goneAt: from(({ extras }: NameDetail) => extras.goneAt, orNull(instant)),
    entries: list(entry),
    history: list(history),
  }),
);

export const line = named(
  'HistoryLine',
  documentOf<HistoryLine>()({
    id: whole,
    at: instant,
    by: oneOf('office', 'program'),
    person: orNull(text),
    kind: text,
    summary: text,
    names: whole,
    undoneBy: orNull(whole),
    undoes: orNull(whole),
  }),
);

export const drop = named(
  'Drop',
  documentOf<DropRow>()({
    name: from(({ ascii }: DropRow) => ascii, text),
    begunAt: instant,
    reason: text,
    hasZone: yesNo,
    checked: list(text),
    setting: from(({ setting }: DropRow) => setting as string, text),
  }),
);

export const hanging = documentOf<Hanging>()({
  name: from(({ ascii }: Hanging) => ascii, text),
  nameServers: list(text),
  runs: whole,
  site: from(({ live }: Hanging) => live?.site, orNull(list(text))),
  mail: from(({ live }: Hanging) => live?.mail, orNull(list(text))),
});

export const views = documentOf<SavedView[]>()({
  views: from(
    (rows: SavedView[]) => rows,
    list(documentOf<SavedView>()({ id: whole, label: text, query: text, columns: list(text) })),
  ),
});
