import { useEffect } from 'react';

/**
 * Keeps the screen awake while a pull is on, where the system allows it; asks again after the page was hidden, which
 * ends the lock.
 */
export function useWakeLock(wanted: boolean) {
  useEffect(() => {
    if (!wanted || !('wakeLock' in navigator)) return;
    let lock: WakeLockSentinel | undefined;
    let over = false;
    const ask = () => {
      if (document.visibilityState !== 'visible') return;
      void navigator.wakeLock.request('screen').then(
        (got) => {
          lock = got;
          if (over) void got.release();
        },
        () => undefined,
      );
    };
    ask();
    document.addEventListener('visibilitychange', ask);
    return () => {
      over = true;
      document.removeEventListener('visibilitychange', ask);
      void lock?.release();
    };
  }, [wanted]);
}
