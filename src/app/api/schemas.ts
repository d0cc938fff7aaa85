import { AUTO_RENEW_SETTINGS } from '@/core/funding';
import { EVENT_KINDS } from '@/core/journal';
import { PHASES } from '@/core/lifecycle';
import { VERDICTS } from '@/core/rescue';

/** A JSON Schema. */
export type Schema = Readonly<Record<string, unknown>>;

/** A reference to a schema by its name. */
export const ref = (name: string): Schema => ({ $ref: `#/components/schemas/${name}` });
export const text: Schema = { type: 'string' };
export const whole: Schema = { type: 'integer' };
export const yesNo: Schema = { type: 'boolean' };
export const instant: Schema = { type: 'string', format: 'date-time' };
export const day: Schema = { type: 'string', format: 'date' };
export const oneOf = (values: readonly string[]): Schema => ({ type: 'string', enum: values });
export const list = (items: Schema): Schema => ({ type: 'array', items });
export const orNull = (schema: Schema): Schema => ({ anyOf: [schema, { type: 'null' }] });
/** An object; members ending in `?` may be left out. */
export const object = (members: Readonly<Record<string, Schema>>): Schema => ({
  type: 'object',
  properties: Object.fromEntries(Object.entries(members).map(([key, schema]) => [key.replace('?', ''), schema])),
  required: Object.keys(members).filter((key) => !key.endsWith('?')),
});

export const SCHEMAS = {
  Money: object({
    amount: { type: 'string', pattern: '^-?\\d+(\\.\\d+)?$' },
    currency: { type: 'string', pattern: '^[A-Z]{3}$' },
  }),
  Problem: object({
    type: text,
    title: text,
    status: whole,
    detail: text,
    code: text,
    'field?': text,
    'fields?': { type: 'object', additionalProperties: text },
  }),
  Marks: object({
    termEnd: instant,
    deletion: instant,
    redemptionEnds: instant,
    release: instant,
    refundableUntil: orNull(instant),
    auction: orNull(instant),
    restoreReportDue: orNull(instant),
  }),
  Deadline: object({
    at: instant,
    kind: oneOf(['charge', 'late-fee', 'restore', 'auction', 'lost']),
    now: orNull(ref('Money')),
    then: orNull(ref('Money')),
  }),
  Name: object({
    name: text,
    unicode: text,
    ending: text,
    account: orNull(text),
    registeredAt: orNull(instant),
    expiresAt: orNull(instant),
    expiresOn: orNull(day),
    autoRenew: object({
      setting: oneOf(AUTO_RENEW_SETTINGS),
      standing: oneOf(['believed', 'requested', 'confirmed']),
      since: orNull(instant),
      requested: orNull(oneOf(['on', 'off'])),
    }),
    purpose: oneOf(['use', 'hold', 'sale', 'drop']),
    neverLost: yesNo,
    lock: orNull(yesNo),
    privacy: orNull(yesNo),
    tags: list(text),
    notes: text,
    asking: orNull(ref('Money')),
    spent: list(ref('Money')),
    asOf: instant,
    projected: yesNo,
    phase: orNull(oneOf(PHASES)),
    marks: orNull(ref('Marks')),
    deadline: orNull(ref('Deadline')),
    comingCharge: orNull(
      object({
        at: instant,
        years: whole,
        cost: orNull(ref('Money')),
        outcome: oneOf(['pass', 'fail']),
        assumed: yesNo,
        paymentMethod: orNull(text),
        cause: orNull(text),
      }),
    ),
    costs: object({
      perYear: orNull(ref('Money')),
      renewal: orNull(ref('Money')),
      restore: orNull(ref('Money')),
      restoreRuleOfThumb: yesNo,
    }),
  }),
  NamePage: object({ names: list(ref('Name')), next: orNull(text), restsOn: list(ref('Ground')) }),
  NameChange: object({
    'purpose?': oneOf(['use', 'hold', 'sale', 'drop']),
    'neverLost?': yesNo,
    'lock?': yesNo,
    'privacy?': yesNo,
    'tags?': list(text),
    'notes?': text,
    'asking?': orNull(ref('Money')),
    'account?': text,
    'expiresAt?': text,
    'transferredAt?': text,
    'holderChangedAt?': text,
    'holderLockWaived?': yesNo,
    'registeredAt?': text,
    'autoRenew?': object({ requested: oneOf(['on', 'off']) }),
  }),
  ImportResult: object({
    new: whole,
    changed: whole,
    unchanged: whole,
    conflicts: whole,
    missing: whole,
    refused: list(object({ line: whole, input: text, code: text, message: text })),
    refusedTotal: whole,
    notes: list(object({ line: whole, name: text, message: text })),
    refusedByCode: { type: 'object', additionalProperties: whole },
  }),
  RenewalQuote: object({
    items: list(
      object({
        name: text,
        years: whole,
        from: orNull(instant),
        to: orNull(instant),
        cost: orNull(ref('Money')),
        lateFee: orNull(ref('Money')),
        refused: orNull(object({ code: text, message: text })),
      }),
    ),
    totals: list(ref('Money')),
  }),
  Renewal: object({
    id: text,
    status: oneOf(['planned', 'requested', 'confirmed', 'dropped']),
    items: list(
      object({
        name: text,
        years: whole,
        from: instant,
        to: orNull(instant),
        charged: orNull(ref('Money')),
        quoted: orNull(ref('Money')),
      }),
    ),
  }),
  Backup: object({
    format: { const: 'name-ledger backup' },
    version: { const: 1 },
    madeAt: instant,
    tables: { type: 'object' },
  }),
  Today: object({
    asOf: instant,
    lost: whole,
    lostBy: orNull(instant),
    wouldSaveThem: list(ref('Money')),
    withoutPrice: whole,
    charges: list(object({ day, names: list(text), amounts: list(ref('Money')) })),
    failing: whole,
    failingFrom: orNull(instant),
    lostNames: list(ref('Name')),
    stopWorking: list(ref('Name')),
    getDearer: list(ref('Name')),
  }),
  Verdicts: object({
    asOf: instant,
    names: list(
      object({
        name: ref('Name'),
        verdict: oneOf(VERDICTS),
        reason: text,
        always: yesNo,
        cost: orNull(ref('Money')),
        value: orNull(ref('Money')),
      }),
    ),
  }),
  TransferPlan: object({
    cost: ref('Money'),
    saved: ref('Money'),
    waves: list(
      object({
        at: instant,
        cost: ref('Money'),
        saved: ref('Money'),
        moves: list(
          object({
            name: text,
            from: text,
            to: text,
            by: orNull(instant),
            cost: ref('Money'),
            saved: ref('Money'),
          }),
        ),
      }),
    ),
    left: list(object({ name: text, why: text })),
  }),
  EventPage: object({
    events: list(
      object({
        id: text,
        at: instant,
        kind: oneOf(EVENT_KINDS),
        subject: text,
        name: orNull(text),
        data: { type: 'object' },
      }),
    ),
    next: text,
  }),
  Health: object({
    isUp: yesNo,
    revision: orNull(whole),
    parts: list(object({ name: text, isUp: orNull(yesNo), ageSeconds: orNull(whole) })),
    failedJobs: list(
      object({ job: text, doneAgoSeconds: orNull(whole), failedAgoSeconds: orNull(whole), problem: orNull(text) }),
    ),
  }),
} as const;
