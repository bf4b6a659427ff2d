import type { COMPLAINED_ABOUT } from '@zealous/core';
import type { TakeInDraft } from '../data/draftSlice';

/** For how long the filament was loaded, in weeks; a word stands for what is not known. */
export const WEEKS = [
  { id: '0', label: 'Fresh today' },
  { id: '1', label: 'About a week' },
  { id: '3', label: '2 to 4 weeks' },
  { id: '6', label: 'More than 4 weeks' },
  { id: 'unknown', label: 'Don’t know' },
] as const;
export const HOTTER = [
  { id: 'yes', label: 'Yes, a hotter one' },
  { id: 'no', label: 'No' },
  { id: 'unknown', label: 'Don’t know' },
] as const;
export const WARRANTY = [
  { id: 'yes', label: 'Yes: mending may void it' },
  { id: 'no', label: 'No' },
  { id: 'unknown', label: 'Don’t know' },
] as const;

type Complaint = (typeof COMPLAINED_ABOUT)[number];
export type Question =
  | 'machine'
  | `seen-${Complaint}`
  | 'shows'
  | 'after'
  | 'filament'
  | 'loaded'
  | 'happened'
  | 'tried'
  | 'places'
  | 'rest';

export const SEEN: Readonly<Record<Complaint, string>> = {
  print: 'What is seen of the print? Several may apply',
  filament: 'How does the filament run? Several may apply',
  machine: 'What of the machine: heat, fan, sensors, noise; does it come back?',
};

/** When it began, in two questions that fit a phone: where and when it shows, and what it began after. */
export const BEGAN = [
  ['shows', 'When does it show? Several may apply', 'When it shows'],
  ['after', 'Did it begin after something? Several may apply', 'What it began after'],
] as const;
/** What is known of the time before: what happened to the machine, and what was tried against the fault. */
export const BEFORE = [
  ['happened', 'What happened to it before?', 'Happened before'],
  ['tried', 'What was tried against it?', 'Tried before'],
] as const;

/** What is typed, and may not fit, with the question that it belongs to. */
export const TYPED = [
  ['failedAfterMinutes', 'shows'],
  ['failedAtMm', 'shows'],
  ['note', 'rest'],
] as const satisfies readonly (readonly [keyof TakeInDraft, Question])[];
