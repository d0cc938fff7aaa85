import {
  ArrayMaxSize,
  IsArray,
  IsEmail,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  Max,
  MaxLength,
  Min,
} from 'class-validator';
import { isCurrency, NUMBER_STYLES, type NumberStyle, styleOfLocale, USUAL_STYLE } from '@/core/money';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { proposeNumberStyle, type Settings, selectSettings, upsertSettings } from '@/database/settings';
import type { Deps } from './deps';
import { CurrencyCode, readRequest, saidIn } from './validate';

export type { Settings } from '@/database/settings';

import { changing } from './changing';
import { command } from './people/command';

/** What the office has set for the whole program. */
export function officeSettings(deps: Deps): Promise<Settings> {
  return selectSettings(deps.database);
}

export type ShownSettings = Pick<Settings, 'zone' | 'homeCurrency' | 'numberStyle'>;

let lastShown: ShownSettings = { zone: 'UTC', homeCurrency: 'USD', numberStyle: USUAL_STYLE };
let isStyleProposed = false;

/**
 * Zone, currency and number style for the frame: as they were last, while the database is away, so that the frame can say so.
 * `languages` is what the browser prefers (Accept-Language, RFC 9110 section 12.5.4): it proposes the number style once.
 */
export async function shownSettings(deps: Deps, languages: string | null): Promise<ShownSettings> {
  try {
    const [language] = (languages ?? '').split(/[,;]/);
    if (!isStyleProposed && language) {
      await proposeNumberStyle(deps.database, styleOfLocale(language.trim()));
      isStyleProposed = true;
    }
    const settings = await selectSettings(deps.database);
    deps.time.offsetMs = settings.clockOffsetMs;
    lastShown = settings;
  } catch (error) {
    deps.log.warn({ err: error }, 'the settings could not be read');
  }
  return lastShown;
}

/** What the office sets; what is left out stays as it is. */
export class OfficeForm {
  @IsOptional()
  @CurrencyCode()
  homeCurrency?: string;

  @IsOptional()
  @IsString()
  zone?: string;

  @IsOptional()
  @IsIn(NUMBER_STYLES, { message: `Choose one of ${NUMBER_STYLES.join(' or ')}.` })
  numberStyle?: NumberStyle;

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(10, { message: 'Ten alarms at the most.' })
  @IsInt({ each: true, message: 'Write days as whole numbers, like 7, 1.' })
  @Min(0, { each: true, message: 'An alarm comes 0 to 365 days before.' })
  @Max(365, { each: true, message: 'An alarm comes 0 to 365 days before.' })
  alarmDays?: number[];

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(30, { message: 'Thirty reasons at the most.' })
  @IsString({ each: true })
  @MaxLength(200, { each: true, message: 'A reason has 200 letters at most.' })
  dropReasons?: string[];
}

/** Sets home currency, time zone and the calendar's alarms. */
export const saveOffice = command('saveOffice', async (deps: Deps, input: unknown): Promise<true | Refusal> => {
  const form = await readRequest(OfficeForm, input);
  if (isRefusal(form)) return form;
  const wrong = refuseOffice(form);
  if (wrong) return wrong;
  await changing(deps, async (tx) => {
    await upsertSettings(tx, saidIn(form));
  });
  return true;
});

/** The first three answers: how money and figures are written, where days begin, and who is reminded. */
export class FirstAnswers {
  @CurrencyCode()
  homeCurrency!: string;

  @IsIn(NUMBER_STYLES, { message: `Choose one of ${NUMBER_STYLES.join(' or ')}.` })
  numberStyle!: NumberStyle;

  @IsString()
  @MaxLength(100)
  zone!: string;

  @IsOptional()
  @IsEmail({ require_tld: false }, { message: 'Write a mail address like office@harbour.example, or leave it empty.' })
  remindTo?: string;
}

/** Keeps the first three answers; everything else is left for later. */
export const answerFirst = command('answerFirst', async (deps: Deps, input: unknown): Promise<true | Refusal> => {
  const form = await readRequest(FirstAnswers, input);
  if (isRefusal(form)) return form;
  const wrong = refuseOffice(form);
  if (wrong) return wrong;
  const { homeCurrency, numberStyle, zone, remindTo = null } = form;
  await changing(deps, (tx) => upsertSettings(tx, { homeCurrency, numberStyle, zone, remindTo, hasBegun: true }));
  return true;
});

function refuseOffice({ homeCurrency, zone }: Pick<OfficeForm, 'homeCurrency' | 'zone'>): Refusal | null {
  if (homeCurrency !== undefined && !isCurrency(homeCurrency))
    return refuse('currency-unknown', `${homeCurrency} is not a currency code of ISO 4217.`, 'homeCurrency');
  if (zone !== undefined && !isZone(zone))
    return refuse('zone-unknown', `${zone.slice(0, 60)} is not a time zone. Choose one like Europe/Lisbon.`, 'zone');
  return null;
}

function isZone(zone: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone });
    return true;
  } catch {
    return false;
  }
}
