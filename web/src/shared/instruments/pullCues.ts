import type { LiveFrame } from '../live/live';

/** What is heard; each has its own sound. */
export type Cue = 'begin' | 'drops' | 'phase' | 'ease' | 'soon' | 'stop' | 'trouble' | 'danger' | 'press' | 'back';

const leadEverySeconds = 0.7;

/** The seconds before the hand lets go, or before the pressure is eased, counted down in words; null otherwise. */
export function countdown(frame: LiveFrame): string | null {
  const coach = frame.reading?.coach;
  if (frame.stage !== 'Running' || !coach || coach.advice?.kind === 'Danger' || coach.advice?.kind === 'Stop')
    return null;
  if (coach.secondsLeft !== null && coach.secondsLeft <= 3 && coach.secondsLeft > 0.05)
    return `Stop in ${Math.ceil(coach.secondsLeft)}`;
  return null;
}

/** What of the last frame the ear still has to remember. */
export interface Heard {
  stage: string;
  drops: boolean;
  phase: number;
  seconds: number;
  advice: string | null;
  leadAt: number;
}

export const nothingHeard: Heard = {
  stage: 'Idle',
  drops: false,
  phase: 0,
  seconds: Infinity,
  advice: null,
  leadAt: -1,
};

/**
 * What is to be heard of a frame, and what to remember of it. Outside the plan's band a tone leads the hand up or
 * down, again and again;
 * inside there is silence.
 */
export function cuesOf(frame: LiveFrame, before: Heard, bandBar: number, easing: readonly boolean[]): [Cue[], Heard] {
  const r = frame.reading;
  const coach = r?.coach;
  if (frame.stage !== 'Running' || !r || !coach) return [[], { ...nothingHeard, stage: frame.stage }];
  const cues: Cue[] = [];
  const advice = coach.advice?.kind ?? null;
  if (before.stage !== 'Running') cues.push('begin');
  if (advice !== before.advice && advice !== null)
    cues.push(advice === 'Danger' ? 'danger' : advice === 'Stop' ? 'stop' : 'trouble');
  if (r.dropsSeen && !before.drops) cues.push('drops');
  if (before.stage === 'Running' && r.phaseIndex !== before.phase && advice !== 'Stop')
    cues.push(easing[r.phaseIndex] ? 'ease' : 'phase');
  const left = coach.secondsLeft ?? Infinity;
  if (advice !== 'Stop' && left <= 3 && Math.ceil(left) < Math.ceil(before.seconds) && Math.ceil(left) > 0)
    cues.push('soon');
  let leadAt = before.leadAt;
  const target = coach.advice?.holdBar ?? r.targetBar;
  if (cues.length === 0 && r.pressureBar !== null && target > 0.3 && r.seconds - leadAt >= leadEverySeconds) {
    const off = r.pressureBar - target;
    if (Math.abs(off) > bandBar) {
      cues.push(off < 0 ? 'press' : 'back');
      leadAt = r.seconds;
    }
  }
  return [cues, { stage: frame.stage, drops: r.dropsSeen, phase: r.phaseIndex, seconds: left, advice, leadAt }];
}
