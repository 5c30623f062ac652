import type { Schemas } from '../shared/api/client';

/** What a score is made of, in the trade's words. */
export const scoreWords: Record<Schemas['ScoreOf'], string> = {
  Phases: 'Phases of the plan',
  Steadiness: 'Steadiness',
  Easing: 'Easing',
  Cup: 'Cup',
  Drops: 'First drops',
  Flow: 'Flow',
  Time: 'Time',
  Channel: 'Channel',
  Rhythm: 'Rhythm',
};

/** How the hand moves the virtual lever, by mouse or finger and by keys. */
export const controlWords: Record<Schemas['LeverControl'], { hand: string; keys: string }> = {
  Press: {
    hand: 'Hold the pad: the lower, the harder you press. Let go and the hand is off.',
    keys: 'Down arrow presses harder, up arrow eases.',
  },
  PressOrLift: {
    hand: 'Hold the pad: the lower, the harder you press. Let go and the lever goes up: the group fills.',
    keys: 'Down arrow presses harder, up arrow eases; all the way up the group fills.',
  },
  HoldBack: {
    hand:
      'All the way down the lever is held and the group fills; higher up the spring takes ' +
      'over, the hand holding back what is left.',
    keys: 'Down arrow holds the lever down, up arrow lets the spring rise.',
  },
  Pump: {
    hand: 'Move up and down on the pad, or hold and release: each way down is a stroke.',
    keys: 'Space pumps: down while held, up when released.',
  },
};
