import { DIFFERENCE_KINDS, RECORD_SOURCES, type RegistrationRecord } from '@/core/records';
import type { CheckProgress } from '@/usecases/records/check';
import type { DifferingName } from '@/usecases/records/compare';
import type { StoredRecord } from '@/usecases/records/records';
import type { WatchRow } from '@/usecases/records/watch';
import { documentOf, from, instant, list, named, oneOf, orNull, termEnd, text, whole, yesNo } from '../kinds';
import type { Ground } from './answers';

export const record = named(
  'RegistrationRecord',
  documentOf<RegistrationRecord>()({
    protocol: from(({ protocol }: RegistrationRecord) => protocol as string, text),
    name: from(({ ascii }: RegistrationRecord) => ascii, text),
    found: yesNo,
    statuses: from(({ statuses }: RegistrationRecord) => statuses as readonly string[], list(text)),
    registered: orNull(instant),
    expires: orNull(termEnd),
    registrarExpires: orNull(termEnd),
    changed: orNull(instant),
    registrar: orNull(text),
    registrarId: orNull(text),
    holder: from(({ holder }: RegistrationRecord) => holder?.organisation ?? holder?.name, orNull(text)),
    nameServers: list(text),
    signed: orNull(yesNo),
    delegation: orNull(oneOf('stands', 'broken')),
    notUnderstood: list(text),
  }),
);

const stored = named(
  'StoredRecord',
  documentOf<StoredRecord>()({
    source: oneOf(...RECORD_SOURCES),
    firstSeenAt: from(({ firstAt }: StoredRecord) => firstAt, instant),
    lastSeenAt: from(({ lastAt }: StoredRecord) => lastAt, instant),
    record,
  }),
);

export const records = documentOf<readonly StoredRecord[]>()({
  records: from((rows: readonly StoredRecord[]) => rows, list(stored)),
});

type Difference = DifferingName['differences'][number];

export const differing = named(
  'DifferingName',
  documentOf<DifferingName>()({
    name: from(({ ascii }: DifferingName) => ascii, text),
    account: text,
    seenAt: instant,
    differences: list(
      documentOf<Difference>()({ kind: oneOf(...DIFFERENCE_KINDS), ledger: text, record: text, fingerprint: text }),
    ),
  }),
);

export const watch = named(
  'Watch',
  documentOf<WatchRow>()({
    name: from(({ ascii }: WatchRow) => ascii, text),
    unicode: text,
    since: instant,
    note: text,
    checkedAt: orNull(instant),
    isFree: yesNo,
    earliest: orNull(instant),
    latest: orNull(instant),
    standing: text,
    changedAt: orNull(instant),
    change: text,
  }),
);

type Problem = CheckProgress['problems'][number];

export const checks = named(
  'Checks',
  documentOf<CheckProgress>()({
    waiting: whole,
    asked: whole,
    names: whole,
    oldestAt: orNull(instant),
    problems: list(documentOf<Problem>()({ name: from(({ ascii }: Problem) => ascii, text), problem: text })),
  }),
);

export const listedRests: readonly Ground[] = [{ what: 'the price lists of the accounts', asOf: null }];
