import { IsNumber, IsString, Matches, Max, MaxLength, Min } from 'class-validator';

const CODE = /^[A-Z]{3}$/;
const CODE_WORDS = 'Write the currency as a code like USD.';

export class RateForm {
  @IsString()
  @MaxLength(10)
  from!: string;

  @Matches(CODE, { message: CODE_WORDS })
  currency!: string;

  @Matches(CODE, { message: CODE_WORDS })
  into!: string;

  @IsNumber()
  @Min(0.000_001, { message: 'A rate is more than nothing.' })
  @Max(1_000_000)
  factor!: number;
}

export class RatesFile {
  @IsString()
  @MaxLength(8_000_000, { message: 'This is too long. Bring fewer days at once.' })
  text!: string;

  @Matches(CODE, { message: CODE_WORDS })
  base!: string;
}

export class RatesSourceForm {
  /** Empty to read them no more. */
  @IsString()
  @MaxLength(500)
  url!: string;

  @Matches(CODE, { message: CODE_WORDS })
  base!: string;
}
