/** The note of a bay, by the microphone: the wire is plucked at mid-bay, and what it sings is found. */
import { useEffect, useRef, useState } from 'react';
import { pitchOf } from '../../core/wire/pitch.js';
import { say } from '../../core/base/units.js';
import { Button } from '../../ui/parts/Button.js';
import { useUnits } from '../../ui/parts/Num.js';

/** Below this it is noise, and no note. */
const CLEAR = 0.6;
/** Notes that agree, one after another, before one is taken. */
const AGREE = 3;

interface Listening {
  stop(): void;
}

/** @param range_Hz where the note of the bay can lie */
export function NoteFinder({
  range_Hz,
  onNote,
}: {
  range_Hz: readonly [number, number];
  onNote: (hertz: number) => void;
}) {
  const units = useUnits();
  const [state, setState] = useState<{ on: boolean; words: string }>({ on: false, words: '' });
  const listening = useRef<Listening | null>(null);
  const range = useRef(range_Hz);
  useEffect(() => {
    range.current = range_Hz;
  });
  useEffect(() => () => listening.current?.stop(), []);

  const begin = async () => {
    if (!navigator.mediaDevices?.getUserMedia) {
      setState({
        on: false,
        words: 'This browser gives no microphone here: type the note, or use another tool.',
      });
      return;
    }
    try {
      const stream = await navigator.mediaDevices.getUserMedia({
        // What makes speech clearer takes the low notes away.
        audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
      });
      const context = new AudioContext();
      await context.resume();
      const ear = new AnalyserNode(context, { fftSize: 32_768 });
      context.createMediaStreamSource(stream).connect(ear);
      const samples = new Float32Array(ear.fftSize);
      const heard: number[] = [];
      const timer = setInterval(() => {
        ear.getFloatTimeDomainData(samples);
        const found = loud(samples) ? pitchOf(samples, context.sampleRate, range.current) : null;
        if (!found || found.clarity < CLEAR) {
          setState({ on: true, words: 'listening …' });
          return;
        }
        heard.push(found.hertz);
        const last = heard.slice(-AGREE);
        const mid = [...last].sort((a, b) => a - b)[last.length >> 1]!;
        const agree = last.length === AGREE && last.every((h) => Math.abs(h - mid) < 0.02 * mid);
        setState({
          on: true,
          words: `${say(found.hertz, 'hertz', units)}${agree ? ', taken' : ''}`,
        });
        if (agree) onNote(mid);
      }, 250);
      listening.current = {
        stop() {
          clearInterval(timer);
          for (const track of stream.getTracks()) track.stop();
          void context.close();
        },
      };
      setState({ on: true, words: 'listening …' });
    } catch (fault) {
      const denied = fault instanceof DOMException && fault.name === 'NotAllowedError';
      setState({ on: false, words: denied ? 'The microphone was not allowed: type the note, or use another tool.' : 'No microphone was found: type the note, or use another tool.' }); // prettier-ignore
    }
  };
  const end = () => {
    listening.current?.stop();
    listening.current = null;
    setState({ on: false, words: '' });
  };
  return (
    <span className="flex flex-wrap items-center gap-3">
      <Button onClick={() => (state.on ? end() : void begin())}>
        {state.on ? 'Stop listening' : 'Listen with the microphone'}
      </Button>
      <span aria-live="polite" data-heard>
        {state.words}
      </span>
    </span>
  );
}

/** Whether there is more than silence. */
const loud = (samples: Float32Array): boolean => {
  let sum = 0;
  for (const x of samples) sum += x * x;
  return Math.sqrt(sum / samples.length) > 1e-4;
};
