/** Photos as ground for a drawing: made small enough to work with, kept in this browser's own memory until the draft is handed in. */
import { type DBSchema, openDB } from 'idb';

export interface Ground {
  /** The photo itself, as a data URL. */
  href: string;
  width: number;
  height: number;
}

interface Photos extends DBSchema {
  ground: { key: string; value: Ground };
}

const LARGEST_BYTES = 60_000_000;
const LONGEST_PX = 2400;
const QUALITY = 0.85;

const database = () =>
  openDB<Photos>('gurvo-photos', 1, { upgrade: (fresh) => void fresh.createObjectStore('ground') });

export async function groundOf(draft: string): Promise<Ground | null> {
  return (await (await database()).get('ground', draft)) ?? null;
}

export async function forgetGround(draft: string): Promise<void> {
  await (await database()).delete('ground', draft);
}

/** Keeps a photo for a draft, no larger than it needs to be; says in one sentence why it cannot be. */
export async function keepGround(draft: string, file: File): Promise<Ground> {
  if (file.size > LARGEST_BYTES)
    throw new Error(`This file has ${Math.round(file.size / 1e6)} MB; a photo of up to 60 MB will do.`);
  const picture = await createImageBitmap(file).catch(() => {
    throw new Error('This is no photo that the browser can read; take JPEG or PNG.');
  });
  const scale = Math.min(1, LONGEST_PX / Math.max(picture.width, picture.height));
  const ground = { width: Math.round(picture.width * scale), height: Math.round(picture.height * scale) };
  const canvas = Object.assign(document.createElement('canvas'), ground);
  canvas.getContext('2d')?.drawImage(picture, 0, 0, ground.width, ground.height);
  picture.close();
  const kept = { ...ground, href: canvas.toDataURL('image/jpeg', QUALITY) };
  await (await database()).put('ground', kept, draft);
  return kept;
}
