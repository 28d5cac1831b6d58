import type { SpotlightActionData, SpotlightActionGroupData } from '@mantine/spotlight';

type Action = SpotlightActionData | SpotlightActionGroupData;

/** How well a query names an action, the best first; null: not at all. */
function rank(query: string, label: string, description: string): number | null {
  if (label === query) return 0;
  if (label.startsWith(query)) return 1;
  if (label.split(/[\s·,]+/).includes(query)) return 2;
  if (label.includes(query)) return 3;
  const words = query.split(/\s+/);
  if (words.every((word) => label.includes(word))) return 4;
  return words.every((word) => label.includes(word) || description.includes(word)) ? 5 : null;
}

/** What a query finds: a thing of that name before what speaks of it, so that a typed wire number and Enter go to the wire. */
export function rankActions(query: string, actions: Action[]): Action[] {
  const wanted = query.trim().toLowerCase();
  if (wanted === '') return actions;
  return actions
    .flatMap((action) => {
      if ('actions' in action) return [];
      const { label = '', description = '' } = action;
      const place = rank(wanted, label.toLowerCase(), description.toLowerCase());
      return place === null ? [] : [{ action, place }];
    })
    .sort((a, b) => a.place - b.place)
    .map(({ action }) => action);
}
