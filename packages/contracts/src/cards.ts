import type { OrderSummary } from './messages';

/** What the card of an order on the bench says, wherever it is drawn: by the application, or by the server before it is there. */
export interface CardWords {
  readonly name: string;
  /** What is done with it, and for how long it has waited. */
  readonly state: string;
  readonly number: string;
  /** The leading suspicion, or the cause once it is chosen. */
  readonly lead?: string;
  readonly next: string;
  /** All of it that a screen reader says first. */
  readonly label: string;
}

const PHASE_WORDS = { trace: 'tracing', plan: 'at work', prove: 'proving', record: 'to be closed' } as const;

/** @param age how long it has waited, in words */
export function cardWords({ machineName, phase, number, lead, next }: OrderSummary, age: string): CardWords {
  const doing = PHASE_WORDS[phase];
  return {
    name: machineName,
    state: `${doing} · ${age}`,
    number: `Order ${number}`,
    ...(lead
      ? {
          lead:
            lead.share === undefined
              ? `Cause: ${lead.name}`
              : `Likeliest: ${lead.name}, ${Math.round(lead.share * 100)} %`,
        }
      : {}),
    next,
    label: `${machineName}, ${doing}. Next: ${next} Order ${number}.`,
  };
}

/** The screen on which an order goes on. */
export const orderPath = ({ id, phase }: Pick<OrderSummary, 'id' | 'phase'>): string => `/order/${id}/${phase}`;

/** The places of the application, at its foot or its side. */
export const PLACES = [
  { href: '/', label: 'Bench' },
  { href: '/machines', label: 'Machines' },
  { href: '/tools', label: 'Tools' },
  { href: '/catalogue', label: 'Catalogue' },
  { href: '/settings', label: 'Settings' },
] as const;

/** Where the server puts the open orders that it drew, for the application to go on from. */
export const FIRST_ORDERS = 'first-orders';

/** Colours of filament by the word for them; what is not known is drawn in plain grey. */
const FILAMENT: readonly (readonly [RegExp, string])[] = [
  [/orange/i, '#E8772E'],
  [/kelp|green/i, '#4F8A4C'],
  [/red/i, '#C2332F'],
  [/blue/i, '#3B73B9'],
  [/yellow/i, '#E2B92C'],
  [/white|clear/i, '#F1EFE8'],
  [/black/i, '#33373A'],
  [/grey|silver/i, '#9AA0A2'],
];
export const filamentColour = (word: string | undefined): string =>
  FILAMENT.find(([pattern]) => pattern.test(word ?? ''))?.[1] ?? '#A8A296';
export const FILAMENT_WORDS = ['black', 'white', 'grey', 'red', 'orange', 'yellow', 'green', 'blue'] as const;
