import { Type } from 'class-transformer';
import { IsInt, IsOptional, IsString, Matches, Max, MaxLength, Min } from 'class-validator';

/** A link as Setup writes it. Without a password the one that is kept stays. */
export class LinkForm {
  @Type(() => Number)
  @IsInt()
  accountId!: number;

  @Matches(/^[A-Za-z0-9.:-]{1,253}$/, { message: 'Write the registrar’s EPP server like epp.example or 127.0.0.1.' })
  host!: string;

  @Type(() => Number)
  @IsInt({ message: 'Write the port as a number, 700 unless the registrar says otherwise.' })
  @Min(1, { message: 'A port is 1 to 65535.' })
  @Max(65_535, { message: 'A port is 1 to 65535.' })
  port!: number;

  @IsString()
  @MaxLength(64, { message: 'A login has 64 letters at most.' })
  login!: string;

  @IsOptional()
  @IsString()
  @MaxLength(128, { message: 'A password has 128 letters at most.' })
  password?: string;
}
