import type { EventBodies } from '@zealous/core';
import type { TakeInDraft } from '../data/draftSlice';

/** What is filled in, as the body of the event that takes the machine in; what is not known is left out. */
export const bodyOf = (draft: TakeInDraft, machineId: string, number: string): EventBodies['taken-in'] => ({
  number,
  machineId,
  symptoms: draft.symptoms,
  before: draft.before,
  ...(draft.lane === undefined ? {} : { lane: draft.lane }),
  ...(draft.material === undefined ? {} : { material: draft.material }),
  ...(draft.colour === undefined ? {} : { colour: draft.colour }),
  ...(draft.weeksLoaded === undefined ? {} : { weeksLoaded: draft.weeksLoaded }),
  ...(draft.hotterBefore === undefined ? {} : { hotterBefore: draft.hotterBefore }),
  ...(draft.onset === undefined ? {} : { onset: draft.onset }),
  ...(draft.onsets?.length ? { onsets: draft.onsets } : {}),
  ...(draft.notLooked === undefined ? {} : { notLooked: draft.notLooked.filter((id) => !draft.symptoms.includes(id)) }),
  ...(draft.tried?.some(({ id }) => draft.before.includes(id))
    ? { tried: draft.tried.filter(({ id }) => draft.before.includes(id)) }
    : {}),
  ...(draft.noticedAt === undefined ? {} : { noticedAt: draft.noticedAt }),
  ...(draft.converted?.length ? { converted: draft.converted } : {}),
  ...(draft.failedAfterMinutes === undefined ? {} : { failedAfterMinutes: draft.failedAfterMinutes }),
  ...(draft.failedAtMm === undefined ? {} : { failedAtMm: draft.failedAtMm }),
  ...(draft.warranty === undefined ? {} : { warranty: draft.warranty }),
  ...(draft.note?.trim() ? { note: draft.note.trim() } : {}),
});
