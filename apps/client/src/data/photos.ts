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

export const keepPhoto = (orderId: string, photoId: string, blob: Blob): Promise<void> =>
  set(keyOf(orderId, photoId), blob, waiting);

/** The picture as this device has it, while the server does not. */
export const waitingPhoto = (orderId: string, photoId: string): Promise<Blob | undefined> =>
  get<Blob>(keyOf(orderId, photoId), waiting);

const final = (status: number): boolean => status === 200 || status === 201 || status === 413 || status === 415;

/** Sends what waits, one after the other, for as long as it takes. */
export function runPhotoOutbox(): () => void {
  let stopped = false;
  const round = async (): Promise<void> => {
    for (const key of await keys<string>(waiting).catch(() => [])) {
      if (stopped) return;
      const blob = await get<Blob>(key, waiting);
      const [orderId = '', photoId = ''] = key.split('/');
      const answer =
        blob && (await fetch(photoUrl(orderId, photoId), { method: 'PUT', body: blob }).catch(() => undefined));
      if (answer && final(answer.status)) await del(key, waiting);
    }
  };
  const timer = setInterval(() => void round(), RETRY_MS);
  void round();
  return () => {
    stopped = true;
    clearInterval(timer);
  };
}
