import type { Level } from '@zealous/core/practice';

/** The levels of the practice bench, easiest first. */
export const LEVELS: readonly { readonly id: Level; readonly label: string; readonly says: string }[] = [
  {
    id: 'signs',
    label: 'One fault',
    says: 'One thing is wrong. The bench is made ready for you; choose what to look at and what to repair.',
  },
  {
    id: 'several',
    label: 'More than one thing',
    says: 'Two or three things may be wrong, some finds are innocent, and repairs before you were in vain. Now and then it is on no list.',
  },
  {
    id: 'hands',
    label: 'Your own hands',
    says: 'You heat, cool, switch off, unplug and open it yourself. What would hurt is stopped and explained.',
  },
];
