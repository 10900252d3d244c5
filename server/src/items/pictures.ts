import type { Saved } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import sharp from 'sharp';
import { type Doing, found, required } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { saved } from '../db/versions.ts';
import { itemRow } from './sql.ts';

// One picture takes one core, however many the machine has.
sharp.concurrency(1);

/** Large enough for the sharpest screen that shows one, small enough to keep thousands. */
const LONGEST_SIDE = 480;
/** A picture of more pixels is refused before it is unpacked. */
const MOST_PIXELS = 60_000_000;
const FORMATS = new Set(['jpeg', 'png', 'webp', 'gif', 'avif', 'heif', 'tiff']);

/**
 * A picture as it is kept: turned upright, at most so many pixels on its longer side, 480 where it is not said, WebP, without what cameras write into
 * it. The type is told from the content, never from a name.
 * @throws Refusal `picture-unreadable` or `picture-too-large`
 */
export async function shrinkPicture(content: Buffer, longestSide: number = LONGEST_SIDE): Promise<Buffer> {
  const format = await formatOf(content);
  if (!format || !FORMATS.has(format)) throw new Refusal('picture-unreadable');
  try {
    return await sharp(content, { limitInputPixels: MOST_PIXELS, failOn: 'error' })
      .rotate()
      .resize(longestSide, longestSide, { fit: 'inside', withoutEnlargement: true })
      .webp({ quality: 82 })
      .toBuffer();
  } catch (error) {
    if (/pixel limit/i.test(String(error))) throw new Refusal('picture-too-large');
    throw new Refusal('picture-unreadable');
  }
}

async function formatOf(content: Buffer): Promise<string | undefined> {
  try {
    return (await sharp(content, { limitInputPixels: false }).metadata()).format;
  } catch {
    return undefined;
  }
}

/** A picture as it is kept, and the name of its content. */
export interface KeptPicture {
  readonly content: Buffer;
  readonly hash: string;
}

/** Keeps a picture that {@link shrinkPicture} has made. */
export async function setPicture(doing: Doing, itemId: number, { hash, content }: KeptPicture): Promise<Saved> {
  const { tx } = doing;
  found(await itemRow(tx, itemId));
  await tx.models.picture.destroy({ where: { item_id: itemId } });
  await tx.models.picture.create({ item_id: itemId, hash, content });
  doing.changed('items', 'pictures');
  return saved(tx, 'item', itemId);
}

export async function removePicture(doing: Doing, itemId: number): Promise<Saved> {
  await doing.tx.models.picture.destroy({ where: { item_id: itemId } });
  doing.changed('items', 'pictures');
  return saved(doing.tx, 'item', itemId);
}

export async function readPicture(db: Reader, itemId: number): Promise<Buffer> {
  return required(await db.models.picture.findByPk(itemId)).content;
}
