import { useEffect, useSyncExternalStore } from 'react';
import { api, data, Problem, type Schemas } from '../shared/api/client';

/** What a hand did on this screen, and when. */
interface Deed {
  what: Schemas['LateDeed']['what'];
  bar?: number;
  atMs: number;
}

const storeKey = 'ruddy-late-deeds';
const most = 12_000;

/**
 * What was done while the server was out of reach, in its order: kept here, over a reload too, and sent when it is
 * back, each with the time at which it was done.
 */
export class LateDeeds {
  private deeds: readonly Deed[];
  private sending = false;
  private readonly listeners = new Set<() => void>();

  constructor(
    readonly pullId: string,
    private readonly store: Storage,
    private readonly now: () => number = Date.now,
  ) {
    this.deeds = this.read();
  }

  readonly subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly count = () => this.deeds.length;

  /** How far the pull is once the server has heard of it all. */
  stageAfter(stage: Schemas['PullStage']): Schemas['PullStage'] {
    const did = (what: Deed['what']) => this.deeds.some((d) => d.what === what);
    if (did('stop')) return 'Settling';
    return stage === 'Ready' && did('begin') ? 'Running' : stage;
  }

  /** When the clock was started meanwhile, ms; null where it ran before. */
  get begunAtMs(): number | null {
    return this.deeds.find((d) => d.what === 'begin')?.atMs ?? null;
  }

  add(what: Deed['what'], bar?: number) {
    if (this.deeds.length < most) this.keep([...this.deeds, { what, bar, atMs: this.now() }]);
  }

  /** Sends what waits; what the server does not want is let go of. */
  async send(post: (deeds: Schemas['LateDeed'][]) => Promise<unknown>) {
    if (this.sending || this.deeds.length === 0) return;
    this.sending = true;
    const going = this.deeds;
    const now = this.now();
    try {
      await post(
        going.map(({ what, bar, atMs }) => ({ what, bar: bar ?? null, secondsAgo: Math.max(0, now - atMs) / 1000 })),
      );
      this.keep(this.deeds.slice(going.length));
    } catch (error) {
      const away = error instanceof Problem && error.status === 0;
      if (!away) this.keep(this.deeds.slice(going.length));
      throw error;
    } finally {
      this.sending = false;
    }
  }

  private keep(deeds: readonly Deed[]) {
    this.deeds = deeds;
    try {
      if (deeds.length === 0) this.store.removeItem(storeKey);
      else this.store.setItem(storeKey, JSON.stringify({ pullId: this.pullId, deeds }));
    } catch {
      // a full store: they are still in memory
    }
    for (const listener of this.listeners) listener();
  }

  private read(): readonly Deed[] {
    try {
      const kept = JSON.parse(this.store.getItem(storeKey) ?? 'null') as { pullId: string; deeds: Deed[] } | null;
      return kept?.pullId === this.pullId ? kept.deeds : [];
    } catch {
      return [];
    }
  }
}

let current: LateDeeds | null = null;

/** Those of a pull; a screen has one pull in hand at a time. */
export function lateDeedsOf(pullId: string): LateDeeds {
  if (current?.pullId !== pullId) current = new LateDeeds(pullId, sessionStorage);
  return current;
}

const nothing = () => () => undefined;
const none = () => 0;

const tryEveryMs = 1500;

/** How much waits for the server; it is sent as soon as that is there again. */
export function useLateDeeds(pullId: string | null, failed: (error: unknown) => void): number {
  const late = pullId === null ? null : lateDeedsOf(pullId);
  const waiting = useSyncExternalStore(late?.subscribe ?? nothing, late?.count ?? none);
  const waits = waiting > 0;
  useEffect(() => {
    if (!late || !waits) return;
    const send = () =>
      void late
        .send((deeds) =>
          data(api.POST('/api/pull/late', { params: { query: { pull: late.pullId } }, body: { deeds } })),
        )
        .catch((error: unknown) => {
          if (!(error instanceof Problem && error.status === 0)) failed(error);
        });
    send();
    const timer = setInterval(send, tryEveryMs);
    return () => clearInterval(timer);
  }, [late, waits, failed]);
  return waiting;
}
