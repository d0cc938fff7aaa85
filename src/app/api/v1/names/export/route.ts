import { dayOf } from '@/core/time';
import { compute } from '@/usecases/computing';
import { deps } from '@/usecases/deps';
import { answer, written } from '../../../../http/problem';

interface Format {
  readonly computation: 'exportCsv' | 'exportJson' | 'exportXlsx';
  readonly ending: string;
  readonly type: string;
}

const FORMATS: { readonly [name: string]: Format | undefined; readonly csv: Format } = {
  csv: { computation: 'exportCsv', ending: 'csv', type: 'text/csv; charset=utf-8' },
  json: { computation: 'exportJson', ending: 'json', type: 'application/json' },
  // ISO/IEC 29500, as IANA has registered it.
  xlsx: {
    computation: 'exportXlsx',
    ending: 'xlsx',
    type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  },
};

/** The view on screen as a file to keep: CSV, JSON or a workbook. */
export function GET(request: Request): Promise<Response> {
  return answer(async () => {
    const query = new URL(request.url).searchParams;
    const format = FORMATS[query.get('format') ?? 'csv'] ?? FORMATS.csv;
    const { computation, ending, type } = format;
    const body = await compute(deps(), computation, query.toString());
    const name = `names-${dayOf(deps().clock())}.${ending}`;
    return written(body, type, `attachment; filename="${name}"`);
  });
}
