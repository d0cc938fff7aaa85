'use server';
import type { Refusal } from '@/core/refusal';
import { isRefusal } from '@/core/refusal';
import { compute } from '@/usecases/computing';
import { deps } from '@/usecases/deps';
import {
  chooseRows,
  dropImport,
  type ImportSummary,
  importRows,
  importSummary,
  type PreviewRow,
  type RowOutcome,
} from '@/usecases/imports/preview';
import { ImportForm } from '@/usecases/imports/requests';
import { type WrittenImport, writeImport } from '@/usecases/imports/writeImport';
import { orImportFails } from '@/usecases/tookTooLong';
import { readRequest } from '@/usecases/validate';

/** Reads the whole list by these options. Answers what came of it, or what has to be said first. */
export async function readImportAction(id: string, options: unknown): Promise<ImportSummary | Refusal> {
  const checked = await readRequest(ImportForm, options);
  if (isRefusal(checked)) return checked;
  const own = deps();
  const read = await orImportFails(own, id, compute(own, 'readImport', id, checked));
  return isRefusal(read) ? read : importSummary(deps(), id);
}

/** Reads one refused row anew, as it was mended, or in the place of another of the same name. */
export async function mendRowAction(id: string, row: unknown): Promise<ImportSummary | Refusal> {
  const own = deps();
  const mended = await compute(own, 'mendRow', id, row);
  return isRefusal(mended) ? mended : importSummary(own, id);
}

export async function importSummaryAction(id: string): Promise<ImportSummary | Refusal> {
  return importSummary(deps(), id);
}

export async function importRowsAction(id: string, outcome: RowOutcome, offset: number): Promise<PreviewRow[]> {
  return importRows(deps(), id, outcome, 100, offset);
}

export async function chooseRowsAction(
  id: string,
  outcome: RowOutcome,
  names: readonly string[] | null,
  taken: boolean,
): Promise<ImportSummary | Refusal> {
  const chosen = await chooseRows(deps(), id, outcome, names, taken);
  return isRefusal(chosen) ? chosen : importSummary(deps(), id);
}

export async function writeImportAction(id: string): Promise<WrittenImport | Refusal> {
  return writeImport(deps(), id);
}

export async function dropImportAction(id: string): Promise<true | Refusal> {
  return dropImport(deps(), id);
}
