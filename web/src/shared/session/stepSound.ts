import { useEffect, useRef } from 'react';
import type { Schemas } from '../api/client';

const key = 'ruddy-sound';

/** Whether steps are heard, kept on this screen. A browser lets sound begin only after the first touch or key. */
class Sound {
  private context: AudioContext | undefined;
  private readonly listeners = new Set<() => void>();
  private on = localStorage.getItem(key) === 'on';

  readonly isOn = () => this.on;

  readonly subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  set(on: boolean) {
    this.on = on;
    localStorage.setItem(key, on ? 'on' : 'off');
    if (on) this.chime(1);
    for (const listener of this.listeners) listener();
  }

  /** Soft falling tones: one for a step that is due, two for one that is over. */
  chime(tones: number) {
    if (!this.on) return;
    this.context ??= new AudioContext();
    void this.context.resume();
    for (let i = 0; i < tones; i++) {
      const at = this.context.currentTime + i * 0.35;
      const tone = this.context.createOscillator();
      const volume = this.context.createGain();
      tone.frequency.setValueAtTime(i === 0 ? 660 : 495, at);
      volume.gain.setValueAtTime(0.0001, at);
      volume.gain.exponentialRampToValueAtTime(0.25, at + 0.03);
      volume.gain.exponentialRampToValueAtTime(0.0001, at + 0.5);
      tone.connect(volume).connect(this.context.destination);
      tone.start(at);
      tone.stop(at + 0.55);
    }
  }
}

export const sound = new Sound();

interface Cue {
  /** Step and what is said of it; each is heard once. */
  key: string;
  at: number;
  tones: number;
}

/** Moments at which something is due or over, in ms. */
export function cues(session: Schemas['SessionView']): Cue[] {
  const origin = Date.parse(session.originAt);
  return session.steps.flatMap((s) =>
    s.state === 'Due'
      ? [{ key: `${s.key} due`, at: origin + s.startSeconds * 1000, tones: 1 }]
      : s.state === 'UnderWay'
        ? [{ key: `${s.key} over`, at: origin + (s.startSeconds + s.seconds) * 1000, tones: 2 }]
        : [],
  );
}

/**
 * Sounds each step of a session under way once when it is due. The times are the server's, so a reload loses nothing.
 */
export function useStepSound(session: Schemas['SessionView'] | undefined, nowMs: number) {
  const heard = useRef(new Set<string>());
  const began = useRef(nowMs);
  useEffect(() => {
    if (session?.id == null) return;
    for (const cue of cues(session)) {
      if (cue.at > nowMs || heard.current.has(cue.key)) continue;
      heard.current.add(cue.key);
      // what was due before this page was opened is not called out again
      if (cue.at >= began.current) sound.chime(cue.tones);
    }
  }, [session, nowMs]);
}
