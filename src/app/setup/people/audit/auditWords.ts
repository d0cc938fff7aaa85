import { COMMANDS, type Command } from '@/core/people';
import type { AuditTold } from '@/usecases/people/audit';

/** What a line says, in a sentence; what it was done with stands behind it as it is. */
export function auditWords({ action, detail }: Pick<AuditTold, 'action' | 'detail'>): string {
  const { command, ...rest } = detail as { command?: string };
  const says = command !== undefined && command in COMMANDS ? COMMANDS[command as Command].says : command;
  const what = action === 'command' ? (says ?? action) : says === undefined ? action : `${action}: ${says}`;
  const said = Object.entries(rest).filter(([, value]) => value !== null && value !== '');
  return said.length === 0 ? what : `${what} · ${said.map(([name, value]) => `${name} ${plainly(value)}`).join(' · ')}`;
}

function plainly(value: unknown): string {
  return typeof value === 'string' ? value : JSON.stringify(value);
}
