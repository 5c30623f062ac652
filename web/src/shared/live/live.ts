import type { HubConnection } from '@microsoft/signalr';
import { useEffect, useSyncExternalStore } from 'react';
import { untilShown } from '../api/firstPaint';
import { markSignedOut } from '../access/signedOut';
import type { Schemas } from '../api/client';

export type LiveFrame = Schemas['LiveFrame'];

/** A pull under way as the screens know it. */
export interface LivePull {
  id: string;
  machineId: number | null;
  machineName: string;
  stage: Schemas['PullStage'];
  notices: readonly string[];
  /** Names of the instruments that tell of it. */
  devices: readonly string[];
}

/** A device that is there, without what it says at the moment. */
type PresentDevice = Pick<Schemas['DeviceView'], 'name' | 'channels' | 'silent'>;

/** What rarely changes and may re-render: the pulls, which devices are there, whether the connection stands. */
export interface LiveStatus {
  /** Null until the first try has succeeded or failed. */
  connected: boolean | null;
  pulls: readonly LivePull[];
  present: readonly PresentDevice[];
  /** The newest pull that became a shot. */
  kept: Schemas['KeptPull'] | null;
  /** What went wrong behind the screens. */
  troubles: readonly string[];
}

const silentMs = 5000;

type FrameListener = (frame: LiveFrame) => void;
type MessageListener = (...words: unknown[]) => void;

/** Between two tries to reach the server, ms. */
const againMs = 500;
const later = () => new Promise((then) => setTimeout(then, againMs));

/** The pulls after a frame; the same list where nothing changed. */
export function pullsAfter(before: readonly LivePull[], frame: LiveFrame): readonly LivePull[] {
  let after = before;
  if (frame.pullId === null) {
    if (before.length > 0) after = [];
  } else if (!before.some((p) => p.id === frame.pullId)) {
    after = [
      ...before,
      { id: frame.pullId, machineId: null, machineName: '', stage: frame.stage, notices: [], devices: [] },
    ];
  }
  const told = frame.pulls;
  if (told) {
    const same =
      told.length === after.length &&
      told.every(
        (t, i) =>
          after[i]!.id === t.id && after[i]!.machineId === t.machineId && `${after[i]!.devices}` === `${t.devices}`,
      );
    if (!same) {
      after = told.map((t) => ({
        ...t,
        stage: after.find((p) => p.id === t.id)?.stage ?? t.stage,
        notices: after.find((p) => p.id === t.id)?.notices ?? [],
      }));
    }
  }
  const mine = after.find((p) => p.id === frame.pullId);
  if (mine && (mine.stage !== frame.stage || mine.notices.length !== frame.notices.length))
    after = after.map((p) => (p === mine ? { ...p, stage: frame.stage, notices: frame.notices } : p));
  return after;
}

/** The devices that are there after a frame; the same list where only their readings changed. */
export function presentAfter(
  before: readonly PresentDevice[],
  told: readonly PresentDevice[],
): readonly PresentDevice[] {
  const same =
    told.length === before.length &&
    told.every(
      (d, i) =>
        before[i]!.name === d.name && before[i]!.silent === d.silent && `${before[i]!.channels}` === `${d.channels}`,
    );
  return same ? before : told.map(({ name, channels, silent }) => ({ name, channels, silent }));
}

/**
 * The one connection to the server's live hub. Frames go to listeners that draw straight into the page; only what
 * rarely changes goes
 * through React.
 */
class LiveFeed {
  private begun = false;
  private hub: HubConnection | undefined;
  private readonly messageListeners: [string, MessageListener][] = [];
  private readonly frameListeners = new Set<FrameListener>();
  private readonly statusListeners = new Set<() => void>();
  private readonly deviceListeners = new Set<() => void>();
  private devices: readonly Schemas['DeviceView'][] = [];
  status: LiveStatus = { connected: null, pulls: [], present: [], kept: null, troubles: [] };

  start() {
    if (this.begun) return;
    this.begun = true;
    void this.begin();
  }

  /** Frames of one pull. */
  onFrame(pullId: string | null, listener: FrameListener) {
    const heard = (frame: LiveFrame) => {
      if (frame.pullId === pullId) listener(frame);
    };
    this.frameListeners.add(heard);
    return () => {
      this.frameListeners.delete(heard);
    };
  }

  /** Says something to the server; lost while there is no connection. */
  say(method: string, ...words: unknown[]) {
    if (this.status.connected) void this.hub?.send(method, ...words).catch(() => undefined);
  }

  /** Hears a message that is not a frame. */
  on(message: string, listener: (...words: never[]) => void) {
    const entry: [string, MessageListener] = [message, listener as MessageListener];
    this.messageListeners.push(entry);
    this.hub?.on(...entry);
    this.start();
    return () => {
      this.messageListeners.splice(this.messageListeners.indexOf(entry), 1);
      this.hub?.off(...entry);
    };
  }

  readonly subscribe = (listener: () => void) => {
    this.statusListeners.add(listener);
    return () => this.statusListeners.delete(listener);
  };

  readonly snapshot = () => this.status;

  readonly subscribeToDevices = (listener: () => void) => {
    this.deviceListeners.add(listener);
    return () => this.deviceListeners.delete(listener);
  };

  readonly devicesNow = () => this.devices;

  /** Fetches what the connection is made with, which the page is drawn without, and connects. */
  private async begin() {
    for (;;) {
      try {
        await untilShown();
        const { HubConnectionBuilder, LogLevel } = await import('@microsoft/signalr');
        const hub = new HubConnectionBuilder()
          .withUrl('/live')
          .configureLogging(LogLevel.None)
          // frames come several times a second even at rest: what says nothing for so long is gone
          .withServerTimeout(silentMs)
          .withAutomaticReconnect({ nextRetryDelayInMilliseconds: () => againMs })
          .build();
        this.hub = hub;
        break;
      } catch {
        this.update({ connected: false });
        await later();
      }
    }

    this.hub.on('frame', (frame: LiveFrame) => this.hear(frame));
    // a backup took the store's place: what is on the screen is of another store
    this.hub.on('restored', () => location.reload());
    for (const entry of this.messageListeners) this.hub.on(...entry);
    this.hub.onreconnecting(() => this.update({ connected: false }));
    this.hub.onreconnected(() => this.update({ connected: true }));
    this.hub.onclose(() => this.update({ connected: false }));
    while (!this.status.connected) {
      try {
        await this.hub.start();
        this.update({ connected: true });
      } catch (error) {
        this.update({ connected: false });
        if ((error as { statusCode?: number }).statusCode === 401) {
          markSignedOut();
          return;
        }
        await later();
      }
    }
  }

  private hear(frame: LiveFrame) {
    const before = this.status;
    const pulls = pullsAfter(before.pulls, frame);
    const present = frame.devices ? presentAfter(before.present, frame.devices) : before.present;
    const kept = frame.kept ?? before.kept;
    const troubles = frame.troubles && `${frame.troubles}` !== `${before.troubles}` ? frame.troubles : before.troubles;
    if (
      pulls !== before.pulls ||
      present !== before.present ||
      kept?.pullId !== before.kept?.pullId ||
      troubles !== before.troubles ||
      !before.connected
    )
      this.update({ connected: true, pulls, present, kept, troubles });
    if (frame.devices) {
      this.devices = frame.devices;
      for (const listener of this.deviceListeners) listener();
    }
    for (const listener of this.frameListeners) listener(frame);
  }

  private update(change: Partial<LiveStatus>) {
    this.status = { ...this.status, ...change };
    for (const listener of this.statusListeners) listener();
  }
}

export const live = new LiveFeed();

export function useLiveStatus(): LiveStatus {
  useEffect(() => live.start(), []);
  return useSyncExternalStore(live.subscribe, live.snapshot);
}

/** The devices with what they say at the moment: re-renders several times a second, so only what shows it asks. */
export function useDevices(): readonly Schemas['DeviceView'][] {
  useEffect(() => live.start(), []);
  return useSyncExternalStore(live.subscribeToDevices, live.devicesNow);
}
