/** Files that wait in this browser until they are taken, so that a reload does not ask for them again. */

const at = (key: string, i: number) => `/kept/${key}/${i}`;

/** Keeps files under a key in place of those before; a browser that cannot is no reason to stop. */
export async function keepFiles(key: string, files: readonly File[]): Promise<void> {
  try {
    await forgetFiles(key);
    if (files.length === 0) return;
    const cache = await caches.open(`anabatic.${key}`);
    await Promise.all(
      files.map((file, i) =>
        cache.put(
          at(key, i),
          new Response(file, { headers: { 'x-name': encodeURIComponent(file.name) } }),
        ),
      ),
    );
  } catch {
    // Then they are asked for again.
  }
}

/** The files kept under a key. */
export async function keptFiles(key: string): Promise<File[]> {
  try {
    const cache = await caches.open(`anabatic.${key}`);
    const out: File[] = [];
    for (;;) {
      const kept = await cache.match(at(key, out.length));
      if (!kept) return out;
      out.push(
        new File([await kept.blob()], decodeURIComponent(kept.headers.get('x-name') ?? 'file')),
      );
    }
  } catch {
    return [];
  }
}

export async function forgetFiles(key: string): Promise<void> {
  try {
    await caches.delete(`anabatic.${key}`);
  } catch {
    // Nothing was kept then.
  }
}
