import { Type } from 'class-transformer';
import { ArrayMaxSize, ArrayNotEmpty, IsArray, IsOptional, IsString, MaxLength, ValidateNested } from 'class-validator';
import { letterNotInIdna2008, parseDomainName } from '@/core/names';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { transaction } from '@/database/pool';
import { deleteWanted, insertWanted, selectWanted, type WantedRow } from '@/database/wanted';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { OneLine } from '../texts';
import { readRequest } from '../validate';

export type { WantedRow } from '@/database/wanted';

/** A name for the shortlist, with what was typed before it. */
export class WantedName {
  @IsString()
  @MaxLength(300)
  name!: string;

  @IsOptional()
  @IsString()
  @MaxLength(300)
  typed?: string;
}

/** Names for the shortlist. */
export class WantNames {
  @IsArray()
  @ArrayNotEmpty({ message: 'Choose a name.' })
  @ArrayMaxSize(500, { message: 'Put 500 names on the shortlist at a time, at most.' })
  @ValidateNested({ each: true })
  @Type(() => WantedName)
  names!: WantedName[];

  @IsOptional()
  @IsString()
  @OneLine()
  @MaxLength(120)
  purpose?: string;

  @IsOptional()
  @IsString()
  @MaxLength(2000)
  note?: string;
}

/** The shortlist: names that one means to register, by purpose. */
export function shortlist(deps: Deps): Promise<WantedRow[]> {
  return selectWanted(deps.database);
}

/** Puts names on the shortlist. One that is no name, or that no registry takes any more, refuses them all. Answers how many. */
export const wantNames = command('wantNames', async (deps: Deps, input: unknown): Promise<number | Refusal> => {
  const request = await readRequest(WantNames, input);
  if (isRefusal(request)) return request;
  const names: Parameters<typeof insertWanted>[1][number][] = [];
  for (const { name: written, typed } of request.names) {
    const name = parseDomainName(written);
    if (isRefusal(name)) return name;
    const letter = letterNotInIdna2008(name.unicode.slice(0, name.unicode.indexOf('.')));
    if (letter !== null && letter > '\u007f')
      return refuse(
        'letter-not-registrable',
        `${name.unicode} holds “${letter}”, which no registry takes any more.`,
        'name',
      );
    const { ascii, unicode, ending } = name;
    names.push({
      ascii,
      unicode,
      ending,
      typed: (typed ?? written).trim(),
      purpose: request.purpose ?? '',
      note: request.note ?? '',
    });
  }
  await transaction(deps.database, (tx) => insertWanted(tx, names, deps.clock()));
  return names.length;
});

/** Takes names off the shortlist. */
export const unwantNames = command('unwantNames', async (deps: Deps, ascii: readonly string[]): Promise<true> => {
  await deleteWanted(deps.database, ascii);
  return true;
});
