import { useEffect, useRef } from 'react';
import type { Instrument } from './instrument';
import { cuesOf, nothingHeard, type Cue } from './pullCues';

export type Loudness = 'off' | 'quiet' | 'full';
const soundKey = 'ruddy-pull-sound';
const speechKey = 'ruddy-pull-speech';

/**
 * A note: from one pitch to another, after a pause, for so long. Low enough to be heard over a kettle, soft enough for
 * a sleeping house.
 */
interface Note {
  from: number;
  to?: number;
  after?: number;
  seconds: number;
}

// up leads the hand up, down leads it down; the rest differ by rhythm as well as by pitch, for those who hear pitch
// badly
const score: Record<Cue, Note[]> = {
  begin: [{ from: 440, seconds: 0.12 }],
  drops: [
    { from: 880, seconds: 0.08 },
    { from: 880, after: 0.14, seconds: 0.08 },
  ],
  phase: [{ from: 587, seconds: 0.16 }],
  ease: [{ from: 660, to: 392, seconds: 0.5 }],
  soon: [{ from: 523, seconds: 0.1 }],
  stop: [
    { from: 784, seconds: 0.16 },
    { from: 784, after: 0.22, seconds: 0.16 },
    { from: 784, after: 0.44, seconds: 0.6 },
  ],
  trouble: [
    { from: 330, seconds: 0.18 },
    { from: 415, after: 0.22, seconds: 0.18 },
  ],
  danger: [
    { from: 220, seconds: 0.22 },
    { from: 220, after: 0.3, seconds: 0.22 },
    { from: 220, after: 0.6, seconds: 0.22 },
  ],
  press: [{ from: 349, to: 523, seconds: 0.22 }],
  back: [{ from: 523, to: 349, seconds: 0.22 }],
};

/**
 * Tones, ticks and speech of a pull, kept on this screen. A browser lets sound begin only after the first touch or key.
 */
class PullSound {
  private context: AudioContext | undefined;
  loudness: Loudness = (localStorage.getItem(soundKey) as Loudness | null) ?? 'off';
  speech = localStorage.getItem(speechKey) === 'on';
  private readonly listeners = new Set<() => void>();

  readonly subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly snapshot = () => `${this.loudness} ${this.speech}`;

  set(loudness: Loudness, speech: boolean) {
    this.loudness = loudness;
    this.speech = speech;
    localStorage.setItem(soundKey, loudness);
    localStorage.setItem(speechKey, speech ? 'on' : 'off');
    this.play('phase');
    for (const listener of this.listeners) listener();
  }

  play(cue: Cue) {
    for (const note of score[cue]) this.note(note, cue === 'press' || cue === 'back' ? 0.5 : 1);
  }

  tick() {
    this.note({ from: 1200, seconds: 0.03 }, 0.5);
  }

  say(sentence: string) {
    if (!this.speech || !('speechSynthesis' in window)) return;
    speechSynthesis.cancel();
    const words = new SpeechSynthesisUtterance(sentence);
    words.lang = 'en';
    words.rate = 1.1;
    speechSynthesis.speak(words);
  }

  private note({ from, to, after = 0, seconds }: Note, share: number) {
    if (this.loudness === 'off') return;
    this.context ??= new AudioContext();
    void this.context.resume();
    const at = this.context.currentTime + after;
    const tone = this.context.createOscillator();
    const volume = this.context.createGain();
    const most = (this.loudness === 'quiet' ? 0.06 : 0.28) * share;
    tone.type = 'triangle';
    tone.frequency.setValueAtTime(from, at);
    if (to) tone.frequency.exponentialRampToValueAtTime(to, at + seconds);
    volume.gain.setValueAtTime(0.0001, at);
    volume.gain.exponentialRampToValueAtTime(most, at + 0.015);
    volume.gain.setValueAtTime(most, at + Math.max(0.016, seconds - 0.05));
    volume.gain.exponentialRampToValueAtTime(0.0001, at + seconds);
    tone.connect(volume).connect(this.context.destination);
    tone.start(at);
    tone.stop(at + seconds + 0.02);
  }
}

export const pullSound = new PullSound();

/** Makes a pull heard: what is due, where the hand should go, and the rhythm of its strokes. */
export function usePullSound(view: Instrument | null, tickSeconds: number | null) {
  // what was heard of a pull stays heard when its view is asked for again
  const kept = useRef({ pull: '', memory: nothingHeard });
  useEffect(() => {
    if (!view) return;
    const pull = view.frame.pullId ?? '';
    if (kept.current.pull !== pull) kept.current = { pull, memory: nothingHeard };
    let spoken = '';
    let ticked = -1;
    return view.listen((frame) => {
      const [cues, after] = cuesOf(frame, kept.current.memory, view.plan.bandBar, view.easing);
      kept.current.memory = after;
      for (const cue of cues) pullSound.play(cue);
      const r = frame.reading;
      if (frame.stage !== 'Running' || !r) return;
      const sentence = r.coach?.advice?.sentence ?? r.sentence;
      if (sentence !== spoken) pullSound.say((spoken = sentence));
      const beat = tickSeconds ? Math.floor(r.seconds / tickSeconds) : -1;
      if (beat !== ticked && r.targetBar > 0.3) pullSound.tick();
      ticked = beat;
    });
  }, [view, tickSeconds]);
}
