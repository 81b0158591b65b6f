/**
 * Photos on their way to the server: made small here, named by the hash of their content, kept in this browser's own
 * database until the server has them. What was taken is shown from here meanwhile.
 */
import { create } from 'zustand';
import { openOutbox, type Outbox } from './outbox.js';
import { lookAtRoom } from './reach.js';
import { again, putPhoto } from './server.js';
import { mayNot } from './visitor.js';
import { url, useSession } from './state.js';

/** The longer side of a photo as it is kept, pixels; and how large it may become, bytes. */
const SIDE = 1600;
const ROOM = 700_000;

interface Photos {
  /** By hash, those that wait, as addresses within this tab. */
  readonly waiting: Readonly<Record<string, string>>;
  /** Why the server does not take one; the photo stays here. */
  readonly refused: string | null;
}

export const usePhotos = create<Photos>(() => ({ waiting: {}, refused: null }));

/** A photo's content as it is kept: upright by its own note of rotation, small, without that note or where it was taken. */
export async function shrunk(file: Blob): Promise<Blob> {
  const picture = await createImageBitmap(file, { imageOrientation: 'from-image' }).catch(() => {
    throw new Error('This is no picture that the browser can read.');
  });
  try {
    for (let side = SIDE; ; side = Math.round(side * 0.75)) {
      const scale = Math.min(1, side / Math.max(picture.width, picture.height));
      const canvas = document.createElement('canvas');
      canvas.width = Math.max(1, Math.round(picture.width * scale));
      canvas.height = Math.max(1, Math.round(picture.height * scale));
      canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height);
      const made = await new Promise<Blob | null>((done) =>
        canvas.toBlob(done, 'image/jpeg', 0.82),
      );
      if (made && (made.size <= ROOM || side < 400)) return made;
    }
  } finally {
    picture.close();
  }
}

const hex = (bytes: ArrayBuffer) =>
  [...new Uint8Array(bytes)].map((b) => b.toString(16).padStart(2, '0')).join('');

let box: { readonly property: string; readonly out: Outbox } | null = null;

/** The box of the property that is open; what an earlier tab left in it is sent. */
function boxNow(): Outbox {
  const property = useSession.getState().id;
  if (box?.property === property) return box.out;
  box = { property, out: openOutbox(`photos.${property}`) };
  usePhotos.setState({ waiting: {}, refused: null });
  return box.out;
}

/** Sends what an earlier tab left. */
export async function sendPhotosLeft(): Promise<void> {
  const out = boxNow();
  for (const { id, body } of await out.left<ArrayBuffer>('records')) show(id, new Blob([body]));
  void flush();
}

const show = (hash: string, content: Blob): void =>
  usePhotos.setState((s) => ({
    waiting: { ...s.waiting, [hash]: s.waiting[hash] ?? URL.createObjectURL(content) },
  }));

/**
 * Takes a photo in. @returns its hash, once it is kept in this browser
 * @throws Error in words when it is no picture, or this browser has no room to keep it
 */
export async function takePhoto(file: Blob): Promise<string> {
  const why = mayNot();
  if (why) throw new Error(why);
  const small = await shrunk(file);
  const bytes = await small.arrayBuffer();
  const hash = hex(await crypto.subtle.digest('SHA-256', bytes));
  if (!(await boxNow().keep('records', hash, bytes)))
    throw new Error('This browser has no room to keep the photo: make room, then take it again.');
  show(hash, small);
  void flush();
  void lookAtRoom();
  return hash;
}

let flushing = false;
async function flush(): Promise<void> {
  if (flushing) return;
  flushing = true;
  try {
    const out = boxNow();
    const refused = new Set<string>();
    // Looked at anew each time: another may have been taken while one was on its way.
    for (;;) {
      const next = (await out.left<ArrayBuffer>('records')).find((w) => !refused.has(w.id));
      if (!next) return;
      const hash = next.id;
      const answer = await again(() => putPhoto(hash, next.body));
      if (!answer.taken) {
        refused.add(hash);
        usePhotos.setState({ refused: answer.reason });
        continue;
      }
      await out.forget('records', hash);
      usePhotos.setState(({ waiting: { [hash]: gone, ...waiting } }) => {
        if (gone) setTimeout(() => URL.revokeObjectURL(gone), 60_000);
        return { waiting };
      });
    }
  } finally {
    flushing = false;
  }
}

/** Where a photo is to be had: in this tab while it waits, else from the server. */
export const photoAt = (hash: string, waiting: Photos['waiting']): string =>
  waiting[hash] ?? url(`/photos/${hash}`);
