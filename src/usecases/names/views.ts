import { queryFromView, viewFromQuery } from '@/core/ledger';
import { type Refusal, refuse } from '@/core/refusal';
import { isOneLine, refuseText } from '@/core/text/plainText';
import { deleteView, type SavedView, selectViews, upsertView } from '@/database/views';
import type { Deps } from '../deps';
import { command } from '../people/command';

export type { SavedView } from '@/database/views';

export function savedViews(deps: Deps): Promise<SavedView[]> {
  return selectViews(deps.database);
}

/** Keeps a view under a name; the same name again replaces it. */
export const saveView = command(
  'saveView',
  async (deps: Deps, label: string, query: string, columns: readonly string[]): Promise<SavedView[] | Refusal> => {
    const name = label.trim();
    if (name === '' || name.length > 60)
      return refuse('view-label', 'Give the view a name of 1 to 60 letters.', 'label');
    if (!isOneLine(name)) return refuse('view-label', 'Write the name of the view in one line.', 'label');
    const bad = refuseText(name, 'label');
    if (bad) return bad;
    await upsertView(deps.database, name, queryFromView(viewFromQuery(new URLSearchParams(query))).toString(), columns);
    return selectViews(deps.database);
  },
);

export const dropView = command('dropView', async (deps: Deps, id: number): Promise<SavedView[]> => {
  await deleteView(deps.database, id);
  return selectViews(deps.database);
});
