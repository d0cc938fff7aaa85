import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayNotEmpty,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { NUMBER_STYLES, type NumberStyle } from '@/core/money';
import { DATE_ORDERS, type DateOrder, type FoundOrder } from '@/core/time';
import { FOUND_NUMBERS, type FoundNumbers } from '@/formats/csv/numberCells';
import { PORTFOLIO_FIELDS, type PortfolioField } from '@/formats/portfolio/columns';
import { OneLine } from '../texts';

const FOUND: readonly FoundOrder[] = [...DATE_ORDERS, 'either', 'not needed', 'contradictory'];

class ColumnForm {
  @IsOptional()
  @IsString()
  @MaxLength(10_000)
  heading: string = '';

  @IsOptional()
  @IsIn(PORTFOLIO_FIELDS)
  field: PortfolioField | null = null;

  @IsOptional()
  @IsIn(DATE_ORDERS)
  order: DateOrder | null = null;

  @IsIn(FOUND)
  foundOrder!: FoundOrder;

  @IsOptional()
  @IsIn(NUMBER_STYLES)
  numbers: NumberStyle | null = null;

  @IsOptional()
  @IsIn(FOUND_NUMBERS)
  foundNumbers?: FoundNumbers;

  @IsOptional()
  @IsBoolean()
  isFilled?: boolean;
}

class MappingForm {
  @IsBoolean()
  hasHeadings!: boolean;

  @IsArray()
  @ArrayNotEmpty()
  @ArrayMaxSize(500)
  @ValidateNested({ each: true })
  @Type(() => ColumnForm)
  columns!: ColumnForm[];
}

/** Where a list comes from, and whose names it holds. */
export class BroughtList {
  @IsString()
  @OneLine()
  @MaxLength(200, { message: 'The name of the file has 200 letters at most.' })
  source!: string;

  @IsOptional()
  @IsInt({ message: 'This account is none.' })
  @Min(1)
  @Max(2_147_483_647, { message: 'This account is none.' })
  accountId?: number;

  @IsOptional()
  @IsString()
  @OneLine()
  @MaxLength(60, { message: 'A label has 60 letters at most.' })
  accountLabel?: string;
}

/** How an import is to be read, as the person has corrected it. */
export class ImportForm {
  @ValidateNested()
  @Type(() => MappingForm)
  mapping!: MappingForm;

  @IsOptional()
  @Type(() => Number)
  @IsInt()
  accountId: number | null = null;

  @IsBoolean()
  fullList!: boolean;

  @IsBoolean()
  allowPrivateEndings!: boolean;

  /** A new account for rows that name none, made when the list is written. */
  @IsOptional()
  @IsString()
  @OneLine()
  @MaxLength(60, { message: 'A label has 60 letters at most.' })
  accountLabel: string | null = null;

  /** The sheet of a workbook. */
  @IsOptional()
  @IsString()
  @MaxLength(200)
  sheet?: string;
}

/** A refused row as a person has mended it. */
export class MendedRow {
  @IsInt()
  @Min(1)
  line!: number;

  @IsArray()
  @ArrayMaxSize(500)
  @IsString({ each: true })
  @MaxLength(10_000, { each: true })
  cells!: string[];

  /** It takes the place of the other row of the same name. */
  @IsBoolean()
  isInstead!: boolean;
}
