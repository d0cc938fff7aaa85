import { IsNumber, IsOptional, IsString, Max, MaxLength, Min } from 'class-validator';
import { CurrencyCode } from '../validate';

export class RateForm {
  @IsString()
  @MaxLength(10)
  from!: string;

  @CurrencyCode()
  currency!: string;

  @CurrencyCode()
  into!: string;

  @IsNumber()
  @Min(0.000_001, { message: 'A rate is more than nothing.' })
  @Max(1_000_000)
  factor!: number;
}

export class RatesFile {
  @MaxLength(8_000_000, { message: 'This is too long. Bring fewer days at once.' })
  @IsString({ message: 'Paste the rates here, or choose a file.' })
  text!: string;

  @CurrencyCode()
  base!: string;
}

export class RatesSourceForm {
  /** Left out to read them no more. */
  @IsOptional()
  @IsString()
  @MaxLength(500)
  url?: string;

  @CurrencyCode()
  base!: string;
}
