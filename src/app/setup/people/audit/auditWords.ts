import { COMMANDS, type Command } from '@/core/people';
import type { AuditTold } from '@/usecases/people/audit';

/** `monthlyLimitMinor` as words. */
const spaced = (name: string): string => name.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);

/** A value as a person reads it: members with their names, lists with commas, nothing where nothing was said. */
function plainly(value: unknown): string {
  if (value === null || value === undefined) return '';
  if (Array.isArray(value)) return value.map(plainly).filter(Boolean).join(', ');
  if (typeof value !== 'object') return String(value);
  return Object.entries(value)
    .map(([name, member]) => [spaced(name), plainly(member)])
    .filter(([, said]) => said !== '')
    .map(([name, said]) => `${name} ${said}`)
    .join(', ');
}

/** What a line says, in a sentence; what it was done with stands behind it. */
export function auditWords({ action, detail }: Pick<AuditTold, 'action' | 'detail'>): string {
  const { command, arguments: asked, ...rest } = detail as { command?: string; arguments?: unknown };
  const says = command !== undefined && command in COMMANDS ? COMMANDS[command as Command].says : command;
  const what = action === 'command' ? (says ?? action) : says === undefined ? action : `${action}: ${says}`;
  return [what, plainly(asked), plainly(rest)].filter(Boolean).join(' · ');
}
