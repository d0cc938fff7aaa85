import { Type } from 'class-transformer';
import { IsBoolean, IsIn, IsInt, IsOptional, IsString, Max, MaxLength, Min } from 'class-validator';
import { amount, GREATEST_MINOR } from '@/core/money';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { addYears, type Day, dayOf, FIRST_DAY, type Instant, parseDay, startOfDay } from '@/core/time';
import { lockRegistration, moveRegistrations } from '@/database/registrations';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { OneLine } from '../texts';
import { readRequest, WrittenDay } from '../validate';
import { bookRegistered } from './booking';

/** What a person says of a registration: that it is done, for how much, or that it came to nothing. */
export class TellRegistration {
  @Type(() => Number)
  @IsInt()
  id!: number;

  @IsIn(['registered', 'somebody else', 'not wanted'])
  came!: 'registered' | 'somebody else' | 'not wanted';

  /** What was charged, minor units of the account's currency. */
  @IsOptional()
  @Type(() => Number)
  @IsInt({ message: 'Write the amount like 11.38.' })
  @Min(0)
  @Max(GREATEST_MINOR)
  chargedMinor?: number;

  @IsOptional()
  @WrittenDay()
  chargedOn?: Day;

  @IsOptional()
  @IsString()
  @OneLine()
  @MaxLength(120)
  reference?: string;

  /** Another sum than was shown was charged, and that is right. */
  @IsOptional()
  @IsBoolean()
  isOtherSum?: boolean;
}

/** Takes down what came of a registration by hand, or of one that is in doubt. Told twice, it is written once. */
export const tellRegistration = command(
  'tellRegistration',
  async (deps: Deps, input: unknown): Promise<string | Refusal> => {
    const told = await readRequest(TellRegistration, input);
    if (isRefusal(told)) return told;
    return changing(deps, async (tx, change) => {
      const registration = await lockRegistration(tx, told.id);
      if (!registration)
        return refuse('registration-unknown', 'This registration is no longer there. Load the page again.');
      const { unicode, state, byHand, currency, quotedMinor, years } = registration;
      if (state === 'done' || state === 'refused') return unicode;
      if (!byHand && state !== 'doubt')
        return refuse(
          'registration-under-way',
          `${unicode} is on its way over the link. Wait for what its registrar answers.`,
        );
      if (told.came !== 'registered') {
        const problem =
          told.came === 'somebody else'
            ? 'Somebody else has registered it. Nothing was paid.'
            : 'Not registered after all.';
        await moveRegistrations(tx, [{ id: told.id, state: 'refused', problem }], change.at);
        return unicode;
      }
      const day = told.chargedOn === undefined ? dayOf(change.at) : parseDay(told.chargedOn);
      if (!day || day < FIRST_DAY || day > dayOf(change.at))
        return refuse('date-out-of-range', 'Write the day of the charge: today or before.', 'chargedOn');
      if (told.chargedMinor === undefined) return refuse('amount-missing', 'Write what was charged.', 'chargedMinor');
      if (quotedMinor !== null && told.chargedMinor !== quotedMinor && !told.isOtherSum)
        return refuse(
          'amount-differs',
          `${unicode} was shown for another sum. Say that another one was charged, or correct it.`,
          'chargedMinor',
        );
      const createdAt: Instant = startOfDay(day);
      await bookRegistered(tx, change, [
        {
          registration,
          registered: {
            createdAt,
            paidThrough: addYears(createdAt, years),
            taken: amount(told.chargedMinor, currency),
            balance: null,
            receipt: told.reference ?? null,
            paymentMethod: null,
            problem: null,
          },
        },
      ]);
      return unicode;
    });
  },
);
