/** Changes of an order that the server does not have yet, in the browser's own store, apart for each tab. */
import { z } from 'zod';
import type { Edit } from '../../contracts/edits';
import { editSchema } from '../../contracts/edits';
import type { Kept } from './session';

/** A tab that has not written for this long is not there any more: its changes are anybody's, ms. */
export const FORSAKEN_MS = 8000;

const keptSchema = z.object({ at: z.number(), pending: z.array(z.array(editSchema)) });

export interface Stores {
  /** Shared by all tabs, and the tab's own. */
  readonly shared: Storage;
  readonly tab: Storage;
  readonly now: () => number;
}

/** @param id of the order */
export function keptIn(id: number, { shared, tab, now }: Stores): Kept {
  const prefix = `jam-pan-edits-${id}-`;
  const own = prefix + tabName(tab);
  return {
    read: () => {
      const keys = Array.from({ length: shared.length }, (_, i) => shared.key(i)!);
      const pending = keys
        .filter((key) => key.startsWith(prefix))
        .flatMap((key) => {
          const kept = parsed(shared.getItem(key));
          if (key !== own && kept && now() - kept.at < FORSAKEN_MS) return [];
          shared.removeItem(key);
          return kept ? [kept] : [];
        })
        .sort((a, b) => a.at - b.at)
        .flatMap((kept) => kept.pending as Edit[][]);
      if (pending.length > 0) shared.setItem(own, JSON.stringify({ at: now(), pending }));
      return pending;
    },
    write: (pending) => {
      if (pending.length === 0) shared.removeItem(own);
      else shared.setItem(own, JSON.stringify({ at: now(), pending }));
    },
  };
}

/** What somebody else has written there is nothing. */
function parsed(text: string | null): z.infer<typeof keptSchema> | undefined {
  try {
    return keptSchema.parse(JSON.parse(text ?? ''));
  } catch {
    return undefined;
  }
}

/** A tab keeps its name when it is loaded anew. */
function tabName(tab: Storage): string {
  const KEY = 'jam-pan-tab';
  const name = tab.getItem(KEY) ?? Math.random().toString(36).slice(2);
  tab.setItem(KEY, name);
  return name;
}
