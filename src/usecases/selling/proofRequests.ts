import { IsIn, IsInt, IsOptional, IsString, MaxLength, MinLength } from 'class-validator';
import { OneLine } from '../texts';

/** A proof that the owner asks to be looked for, or the code that was mailed. */
export class ProveListing {
  @IsInt()
  listingId!: number;

  @IsIn(['txt', 'mail', 'by hand'])
  by!: 'txt' | 'mail' | 'by hand';

  @IsOptional()
  @IsString()
  @MinLength(1, { message: 'Write the code that was mailed.' })
  @MaxLength(100)
  code?: string;
}

/** The text that a marketplace without a link wants to see in the zone of a name. */
export class PlaceProof {
  @IsInt()
  listingId!: number;

  @IsString()
  @MinLength(1, { message: 'Copy the text here as the marketplace shows it.' })
  @MaxLength(255, { message: 'A record holds 255 letters in one text.' })
  @OneLine()
  text!: string;
}
