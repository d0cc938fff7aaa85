import { Type } from 'class-transformer';
import {
  ArrayUnique,
  IsArray,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  Max,
  MaxLength,
  Min,
  MinLength,
} from 'class-validator';
import { AREAS, type Area, ROLES, type Role } from '@/core/people';

const GREATEST_LIMIT = 1_000_000_000_00;

/** What somebody may do, and spend in a month without a second person. */
export class MemberForm {
  @IsIn(ROLES, { message: 'Choose a role.' })
  role!: Role;

  @IsOptional()
  @Type(() => Number)
  @IsInt({ message: 'Write an amount of money.' })
  @Min(0)
  @Max(GREATEST_LIMIT)
  monthlyLimitMinor?: number;
}

export class InviteForm extends MemberForm {
  @IsString()
  @MinLength(1)
  @MaxLength(80)
  name!: string;
}

export class ProgramForm extends InviteForm {
  /** Areas in which it may act; without them, all that its role may. An empty list reads alone. */
  @IsOptional()
  @IsArray()
  @ArrayUnique()
  @IsIn(AREAS, { each: true, message: 'Choose areas from the list.' })
  scope?: Area[];

  @Type(() => Number)
  @IsInt()
  @Min(1)
  @Max(366)
  days!: number;
}

/** A pass phrase with the first code of the app that makes the codes. */
export class PassPhraseForm {
  @IsString()
  @MaxLength(1000)
  passPhrase!: string;

  @IsString()
  @MaxLength(20)
  code!: string;

  /** What the program gave with the picture, sealed. */
  @IsString()
  @MaxLength(600)
  enrolment!: string;
}
