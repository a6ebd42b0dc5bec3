/** A picture on its way: piece by piece, so that a dropped connection costs one piece, and goes on where the server says. */
import { client, type Schemas, unwrap } from '../api/client';

const PIECE = 512 * 1024;

async function sent(name: string, at: number, piece: Blob): Promise<number> {
  const answer = await client.POST('/api/pictures/coming/{name}', {
    params: { path: { name }, query: { at } },
    // bytes, which the API's document has no type for
    body: piece as unknown as string,
    bodySerializer: (bytes: unknown) => bytes as Blob,
    headers: { 'Content-Type': 'application/octet-stream' },
  });
  return unwrap(answer).has;
}

/** Sends a picture and has it kept; says how much has gone [share]. */
export async function sendPicture(
  name: string,
  picture: Blob,
  far: (gone: number) => Promise<void>,
): Promise<Schemas['PictureKept']> {
  let at = await sent(name, 0, picture.slice(0, PIECE));
  while (at < picture.size) {
    await far(at / picture.size);
    at = await sent(name, at, picture.slice(at, at + PIECE));
  }
  return unwrap(await client.POST('/api/pictures/coming/{name}/whole', { params: { path: { name } } }));
}

/** Where a picture is looked at. */
export const pictureAt = (digest: string, small = false) => `/api/pictures/${digest}.jpg${small ? '?small=true' : ''}`;
