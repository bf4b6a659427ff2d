import { MAX_PHOTO_BYTES, MAX_PHOTO_PX } from '@zealous/contracts';
import sharp from 'sharp';
import { Problem } from '../http/problem';
import { Gate } from '../work/gate';

/** A picture as it is kept: decoded once, turned upright, reduced, and written anew as a JPEG with nothing else in it. */
export interface SoundPicture {
  readonly mime: 'image/jpeg';
  readonly widthPx: number;
  readonly heightPx: number;
  readonly bytes: Buffer;
}

/** The longer side of a picture that is kept, px (chosen: a crack is still seen at twice the size of a phone). */
const KEPT_PX = 2400;
const KEPT_QUALITY = 84;
/** Tried after that when a picture full of detail would be larger than the limit. */
const COARSER = [60, 35, 15] as const;
/** More pixels than the sender's own limit allows are not decoded. */
const MOST_PIXELS = MAX_PHOTO_PX * MAX_PHOTO_PX;
/** Seconds after which the decoder gives up. */
const LIMIT_S = 8;

// Only the three decoders that a phone's pictures need; one thread a picture and nothing kept between them.
sharp.block({ operation: ['VipsForeignLoad'] });
sharp.unblock({
  operation: ['VipsForeignLoadJpegBuffer', 'VipsForeignLoadPngBuffer', 'VipsForeignLoadWebpBuffer'],
});
sharp.concurrency(1);
sharp.cache(false);

/** One picture at a time, some waiting; who comes later is told when to come again. */
const gate = new Gate(1, 16);

const SIGNS: readonly (readonly [at: number, bytes: readonly number[]])[][] = [
  [[0, [0xff, 0xd8, 0xff]]],
  [[0, [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]]],
  [
    [0, [0x52, 0x49, 0x46, 0x46]],
    [8, [0x57, 0x45, 0x42, 0x50]],
  ],
];

/** Whether the first bytes are those of a JPEG, PNG or WebP picture (ITU T.81; PNG specification; WebP container, RFC 9649). */
const begins = (bytes: Buffer): boolean =>
  SIGNS.some((sign) => sign.every(([at, wanted]) => wanted.every((byte, i) => bytes[at + i] === byte)));

const notAPicture = (): Problem =>
  new Problem(415, 'Not a picture', 'Send a JPEG, PNG or WebP picture; this is none by its content.');
const damaged = (): Problem =>
  new Problem(422, 'Damaged picture', 'The picture is damaged inside and cannot be read whole. Take it again.');

function refusal(error: unknown): Problem {
  const message = error instanceof Error ? error.message : '';
  if (/pixel limit|dimensions|too large/i.test(message))
    return new Problem(413, 'Too large', `A picture may have ${MAX_PHOTO_PX} pixels a side at most; reduce it first.`);
  if (/unsupported image format/i.test(message)) return notAPicture();
  if (/timeout/i.test(message))
    return new Problem(422, 'Too slow to read', 'The picture takes too long to read. Reduce it, or take it again.');
  return damaged();
}

const decoder = (bytes: Buffer) =>
  sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'error', sequentialRead: true, unlimited: false });

/** As it is kept or printed: upright, reduced, without what is behind it, as a JPEG. */
const upright = (bytes: Buffer, sidePx: number, quality: number) =>
  decoder(bytes)
    .rotate()
    .resize({ width: sidePx, height: sidePx, fit: 'inside', withoutEnlargement: true })
    .flatten({ background: '#ffffff' })
    .jpeg({ quality })
    .timeout({ seconds: LIMIT_S });

/**
 * Decodes a picture and writes it anew, outside the event loop.
 *
 * @throws Problem 415 when it is none, 413 when it is too large, 422 when it is damaged, 503 when too many wait
 */
export async function normalise(bytes: Buffer): Promise<SoundPicture> {
  if (!begins(bytes)) throw notAPicture();
  return gate.through(async () => {
    try {
      const { width, height } = await decoder(bytes).metadata();
      if (width > MAX_PHOTO_PX || height > MAX_PHOTO_PX) throw new Error('pixel limit');
      for (const quality of [KEPT_QUALITY, ...COARSER]) {
        const { data, info } = await upright(bytes, KEPT_PX, quality).toBuffer({ resolveWithObject: true });
        if (data.length <= MAX_PHOTO_BYTES)
          return { mime: 'image/jpeg', widthPx: info.width, heightPx: info.height, bytes: data };
      }
      throw new Error('too large');
    } catch (error) {
      throw error instanceof Problem ? error : refusal(error);
    }
  });
}

/** A small JPEG for print; undefined when the stored bytes cannot be read, as those of an older version may be. */
export async function thumbnail(bytes: Buffer, sidePx: number): Promise<Buffer | undefined> {
  if (!begins(bytes)) return undefined;
  try {
    return await gate.through(() => upright(bytes, sidePx, KEPT_QUALITY).toBuffer());
  } catch (error) {
    if (error instanceof Problem) throw error;
    return undefined;
  }
}
