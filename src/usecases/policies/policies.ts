import { Type } from 'class-transformer';
import { IsBoolean, IsIn, IsInt, IsOptional, IsString, Max, MaxLength, Min } from 'class-validator';
import type { Policy, RegistryFee, RuleSource } from '@/core/lifecycle';
import { parseDomainName } from '@/core/names';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { type Day, parseDay } from '@/core/time';
import {
  deletePolicy,
  selectPolicies,
  selectRegistryFees,
  upsertPolicies,
  upsertRegistryFees,
} from '@/database/policies';
import type { Transaction } from '@/database/pool';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { readRequest, WrittenDay } from '../validate';

const SOURCES: readonly RuleSource[] = ['standard', 'contract', 'common practice', 'memory'];
const PERIOD = { message: 'A period has 0 to 400 days.' };

/** A policy as Setup writes it. Terms hold for registering and renewing. */
export class PolicyForm {
  @IsString() @MaxLength(253) ending!: string;
  @Type(() => Number) @IsInt() @Min(0) @Max(400, PERIOD) lateDays!: number;
  @Type(() => Number) @IsInt() @Min(0) @Max(400, PERIOD) redemptionDays!: number;
  @Type(() => Number)
  @IsInt()
  @Min(0)
  @Max(60, { message: 'A restore report is due within 60 days at the most.' })
  pendingRestoreDays!: number;
  @Type(() => Number)
  @IsInt()
  @Min(0)
  @Max(60, { message: 'Deletion takes 60 days at the most.' })
  pendingDeleteDays!: number;
  @Type(() => Number)
  @IsInt()
  @Min(0)
  @Max(60, { message: 'A refund lasts 60 days at the most.' })
  refundableDays!: number;
  @Type(() => Number)
  @IsInt()
  @Min(1)
  @Max(10, { message: 'The least term has 1 to 10 years.' })
  leastYears!: number;
  @Type(() => Number)
  @IsInt()
  @Min(1)
  @Max(100, { message: 'The greatest term has 1 to 100 years.' })
  greatestYears!: number;
  @Type(() => Number)
  @IsInt()
  @Min(1)
  @Max(10, { message: 'Terms go in steps of 1 to 10 years.' })
  stepYears!: number;
  @Type(() => Number) @IsInt() @Min(0) @Max(10) transferYears!: number;
  @Type(() => Number) @IsInt() @Min(0) @Max(400, PERIOD) transferLockDays!: number;
  @Type(() => Number) @IsInt() @Min(0) @Max(400, PERIOD) holderLockDays!: number;
  @Type(() => Number) @IsInt() @Min(1) @Max(100) ceilingYears!: number;
  @IsBoolean() yearlyFee!: boolean;
  /** Letters beyond a-z that its registry takes; left out where that is not known. */
  @IsOptional() @IsString() @MaxLength(2000) letters?: string;
  @IsIn(SOURCES) source!: RuleSource;
  @IsOptional() @IsString() @MaxLength(400) sourceNote?: string;
  @WrittenDay() sourceDate!: Day;
  @IsBoolean() verified!: boolean;
}

export async function policies(deps: Deps): Promise<{ policies: Policy[]; fees: RegistryFee[] }> {
  const [rows, fees] = await Promise.all([selectPolicies(deps.database), selectRegistryFees(deps.database)]);
  return { policies: rows, fees };
}

/** Writes the policy of an ending; `*` is the rule for every ending without one of its own. */
export const savePolicy = command('savePolicy', async (deps: Deps, input: unknown): Promise<true | Refusal> => {
  const form = await readRequest(PolicyForm, input);
  if (isRefusal(form)) return form;
  const ending = form.ending.trim().toLowerCase().replace(/^\./, '');
  const probe = ending === '*' ? { ending } : parseDomainName(`seaholly.${ending}`);
  if (isRefusal(probe)) return refuse('ending-unknown', 'Write an ending like com or co.uk.', 'ending');
  if (!parseDay(form.sourceDate)) return refuse('date-does-not-exist', 'Write the day like 2027-09-21.', 'sourceDate');
  if (form.greatestYears < form.leastYears)
    return refuse('terms-reversed', 'The greatest term is shorter than the least.', 'greatestYears');
  const {
    leastYears: least,
    greatestYears: greatest,
    stepYears: step,
    sourceNote = '',
    letters: written,
    ...rest
  } = form;
  const letters = written === undefined ? null : written.trim().toLowerCase() === 'none' ? '' : lettersIn(written);
  const one = { least: 1, greatest: 1, step: 1 };
  const terms = {
    register: { least, greatest, step },
    renew: { least, greatest, step },
    transfer: one,
    restore: one,
  };
  await write(deps, (tx) => upsertPolicies(tx, [{ ...rest, ending: probe.ending, terms, sourceNote, letters }]));
  return true;
});

/** Letters as they are typed, with or without anything between them. */
function lettersIn(text: string): string {
  return [...new Set(text.normalize('NFC').toLowerCase())].filter((letter) => letter > '\u007f').join('');
}

/** Removes an ending's own policy: the generic rule serves it from then on. */
export const removePolicy = command('removePolicy', async (deps: Deps, ending: string): Promise<true> => {
  await write(deps, (tx) => deletePolicy(tx, ending));
  return true;
});

/** Writes the yearly registry fee in force from a day on. */
export const saveRegistryFee = command(
  'saveRegistryFee',
  async (deps: Deps, from: string, minor: number, currency: string): Promise<true | Refusal> => {
    const day = parseDay(from);
    if (!day) return refuse('date-does-not-exist', 'Write the day like 2027-09-21.', 'from');
    if (!Number.isInteger(minor) || minor < 0 || minor > 100_000)
      return refuse('fee-invalid', 'Write the fee like 0.20.', 'minor');
    await write(deps, (tx) => upsertRegistryFees(tx, [{ from: day, minor, currency, source: 'memory' }]));
    return true;
  },
);

async function write(deps: Deps, work: (tx: Transaction) => Promise<void>): Promise<void> {
  await changing(deps, async (tx) => {
    await work(tx);
  });
}
