/** The tick of a unit as a meter hears it: the higher the volts, the higher its note. */
export function beep(volts: number): void {
  try {
    const audio = new AudioContext();
    const note = audio.createOscillator();
    const gain = audio.createGain();
    note.frequency.value = 200 + volts / 10;
    gain.gain.value = 0.2;
    note.connect(gain).connect(audio.destination);
    note.start();
    note.stop(audio.currentTime + 0.08);
    note.onended = () => void audio.close();
  } catch {
    // A browser without sound is no reason to stop.
  }
}
