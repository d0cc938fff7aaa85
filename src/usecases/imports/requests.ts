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
import type { DateOrder, FoundOrder } from '@/formats/csv/dateCells';
import { PORTFOLIO_FIELDS, type PortfolioField } from '@/formats/portfolio/columns';
import { OneLine } from '../texts';

const ORDERS: readonly DateOrder[] = ['day first', 'month first'];
const FOUND: readonly FoundOrder[] = [...ORDERS, 'either', 'not needed', 'contradictory'];

class ColumnForm {
  @IsOptional()
  @IsString()
  @MaxLength(10_000)
  heading: string = '';

  @IsOptional()
  @IsIn(PORTFOLIO_FIELDS)
  field: PortfolioField | null = null;

  @IsOptional()
  @IsIn(ORDERS)
  order: DateOrder | null = null;

  @IsIn(FOUND)
  foundOrder!: FoundOrder;
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
}
