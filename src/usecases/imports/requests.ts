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
  MaxLength,
  ValidateNested,
} from 'class-validator';
import type { DateOrder, FoundOrder } from '@/formats/csv/dateCells';
import { PORTFOLIO_FIELDS, type PortfolioField } from '@/formats/portfolio/columns';

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
