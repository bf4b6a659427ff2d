import { createStore, del, get, keys, set } from 'idb-keyval';

/** Pictures wait on the device until the server has them; nothing is lost when it is away or the page is left. */
const waiting = createStore('zt-photos', 'waiting');
const LONGEST_PX = 1600;
const QUALITY = 0.82;
const RETRY_MS = 5000;

export interface Reduced {
  readonly blob: Blob;
  readonly widthPx: number;
  readonly heightPx: number;
}

export const photoUrl = (orderId: string, photoId: string): string => `/api/orders/${orderId}/photos/${photoId}`;

/** Reduces a picture on the device. @throws Error when the file is no picture. */
export async function reducePhoto(file: Blob): Promise<Reduced> {
  const bitmap = await createImageBitmap(file).catch(() => {
    throw new Error('This file is no picture that can be read. Take a JPEG, PNG or WebP.');
  });
  const scale = Math.min(1, LONGEST_PX / Math.max(bitmap.width, bitmap.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(bitmap.width * scale));
  canvas.height = Math.max(1, Math.round(bitmap.height * scale));
  canvas.getContext('2d')?.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/jpeg', QUALITY));
  if (!blob) throw new Error('The picture could not be reduced.');
  return { blob, widthPx: canvas.width, heightPx: canvas.height };
}

/** Lets the person take or choose a picture. Undefined when none was chosen. */
export function pickPhoto(): Promise<Blob | undefined> {
  return new Promise((resolve) => {
    const input = document.createElement('input');
    input.type = 'file';
    input.accept = 'image/jpeg,image/png,image/webp';
    input.setAttribute('capture', 'environment');
    input.addEventListener('change', () => resolve(input.files?.[0]));
    input.addEventListener('cancel', () => resolve(undefined));
    input.click();
  });
}

const keyOf = (orderId: string, photoId: string): string => `${orderId}/${photoId}`;

export async function keepPhoto(orderId: string, photoId: string, blob: Blob): Promise<void> {
  await set(keyOf(orderId, photoId), blob, waiting);
  wake?.();
}

/** The picture as this device has it, while the server does not. */
export const waitingPhoto = (orderId: string, photoId: string): Promise<Blob | undefined> =>
  get<Blob>(keyOf(orderId, photoId), waiting);

/** Why the server will not have a picture: asking again would not change it. It stays on this device. */
const refused = createStore('zt-photos-refused', 'why');
export const whyRefused = (orderId: string, photoId: string): Promise<string | undefined> =>
  get<string>(keyOf(orderId, photoId), refused);

/** 404 is not among them: the order itself may still wait to be sent. */
const NEVER = [400, 409, 413, 415, 422];

/** Sends one picture. True when nothing of it is left to be done. */
async function send(key: string): Promise<boolean> {
  const blob = await get<Blob>(key, waiting);
  if (!blob || (await get<string>(key, refused)) !== undefined) return true;
  const [orderId = '', photoId = ''] = key.split('/');
  const answer = await fetch(photoUrl(orderId, photoId), { method: 'PUT', body: blob }).catch(() => undefined);
  if (answer?.ok) await del(key, waiting);
  else if (answer && NEVER.includes(answer.status)) {
    const problem = (await answer.json().catch(() => ({}))) as { readonly detail?: string };
    await set(key, problem.detail ?? `The server answered ${answer.status}.`, refused);
  } else return false;
  return true;
}

let wake: (() => void) | undefined;

/** Sends what waits, one after the other, for as long as it takes; asks again only while something waits. */
export function runPhotoOutbox(): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let stopped = false;
  let busy = false;
  let asked = false;
  const round = async (): Promise<void> => {
    clearTimeout(timer);
    asked = busy;
    if (busy || stopped) return;
    busy = true;
    let left = false;
    for (const key of await keys<string>(waiting).catch(() => [])) left = !(await send(key).catch(() => false)) || left;
    busy = false;
    // One that came during the round goes at once, one that could not be sent a little later.
    if ((left || asked) && !stopped) timer = setTimeout(() => void round(), asked ? 0 : RETRY_MS);
  };
  wake = () => void round();
  wake();
  return () => {
    stopped = true;
    wake = undefined;
    clearTimeout(timer);
  };
}
