/** Ticks that quicken, for who looks at the ground and not at the screen; a phone shakes with them at the place. */

export interface Ticks {
  /** Seconds between two ticks from now on, and whether this is the place; null: silence. */
  set(every_s: number | null, here?: boolean): void;
  stop(): void;
}

/** Starts them; must be called by a press, else browsers give no sound. */
export function startTicks(): Ticks {
  let audio: AudioContext | null = null;
  try {
    audio = new AudioContext();
  } catch {
    // Without sound the screen says it all, and the phone shakes.
  }
  let every: number | null = null;
  let here = false;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const tick = () => {
    if (every === null) return;
    if (audio) {
      const note = audio.createOscillator();
      const gain = audio.createGain();
      note.frequency.value = here ? 1320 : 660;
      gain.gain.value = 0.2;
      note.connect(gain).connect(audio.destination);
      note.start();
      note.stop(audio.currentTime + 0.05);
    }
    if (here) navigator.vibrate?.(40);
    timer = setTimeout(tick, every * 1000);
  };
  return {
    set(every_s, now = false) {
      const silent = every === null;
      every = every_s;
      here = now;
      if (silent && every !== null) tick();
    },
    stop() {
      every = null;
      clearTimeout(timer);
      void audio?.close();
    },
  };
}
