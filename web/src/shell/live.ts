import { HubConnectionBuilder, HubConnectionState, LogLevel, type HubConnection } from '@microsoft/signalr';
import { useEffect, useSyncExternalStore } from 'react';
import type { Schemas } from '../shared/api/client';

export type LiveFrame = Schemas['LiveFrame'];

/** What rarely changes and may re-render: stage, devices, notices, whether the connection stands. */
export interface LiveStatus {
  /** Null until the first try has succeeded or failed. */
  connected: boolean | null;
  stage: Schemas['PullStage'];
  pullId: string | null;
  devices: readonly Schemas['DeviceView'][];
  notices: readonly string[];
}

type FrameListener = (frame: LiveFrame) => void;

/**
 * The one connection to the server's live hub. Frames go to listeners that draw straight into the page; only what rarely changes goes
 * through React.
 */
class LiveFeed {
  private hub: HubConnection | undefined;
  private readonly frameListeners = new Set<FrameListener>();
  private readonly statusListeners = new Set<() => void>();
  status: LiveStatus = { connected: null, stage: 'Idle', pullId: null, devices: [], notices: [] };

  start() {
    if (this.hub) return;
    this.hub = new HubConnectionBuilder()
      .withUrl('/live')
      .configureLogging(LogLevel.None)
      .withAutomaticReconnect({ nextRetryDelayInMilliseconds: () => 500 })
      .build();
    this.hub.on('frame', (frame: LiveFrame) => this.hear(frame));
    this.hub.onreconnecting(() => this.update({ connected: false }));
    this.hub.onreconnected(() => this.update({ connected: true }));
    this.hub.onclose(() => this.update({ connected: false }));
    void this.connect();
  }

  onFrame(listener: FrameListener) {
    this.frameListeners.add(listener);
    return () => this.frameListeners.delete(listener);
  }

  readonly subscribe = (listener: () => void) => {
    this.statusListeners.add(listener);
    return () => this.statusListeners.delete(listener);
  };

  readonly snapshot = () => this.status;

  private async connect() {
    while (this.hub && this.hub.state === HubConnectionState.Disconnected) {
      try {
        await this.hub.start();
        this.update({ connected: true });
      } catch {
        this.update({ connected: false });
        await new Promise((later) => setTimeout(later, 500));
      }
    }
  }

  private hear(frame: LiveFrame) {
    const before = this.status;
    if (
      frame.stage !== before.stage ||
      frame.pullId !== before.pullId ||
      frame.devices ||
      frame.notices.length !== before.notices.length ||
      !before.connected
    ) {
      this.update({
        connected: true,
        stage: frame.stage,
        pullId: frame.pullId,
        devices: frame.devices ?? before.devices,
        notices: frame.notices,
      });
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
