import { useEffect, useSyncExternalStore } from 'react';

const KEY = 'yosegi.pick.quiet';
const listeners = new Set<() => void>();

const isQuiet = () => localStorage.getItem(KEY) === '1';

/** Whether scans are answered by sound and vibration on this device, and how to turn that on or off. */
export function useQuiet(): [quiet: boolean, set: (quiet: boolean) => void] {
  const quiet = useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => void listeners.delete(listener);
  }, isQuiet);
  const set = (next: boolean) => {
    localStorage.setItem(KEY, next ? '1' : '0');
    for (const listener of listeners) listener();
  };
  return [quiet, set];
}

let sound: AudioContext | null = null;

/** One short high tone for right, two low ones and a shake for wrong. */
export function answerBySound(isRight: boolean): void {
  if (isQuiet()) return;
  navigator.vibrate?.(isRight ? 40 : [120, 60, 120]);
  try {
    sound ??= new AudioContext();
    tone(sound, isRight ? 880 : 220, 0);
    if (!isRight) tone(sound, 196, 0.16);
  } catch {
    // A device without sound is answered by sight.
  }
}

const TONE_SECONDS = 0.11;

function tone(on: AudioContext, hertz: number, later: number): void {
  const at = on.currentTime + later;
  const oscillator = on.createOscillator();
  const volume = on.createGain();
  oscillator.frequency.value = hertz;
  volume.gain.setValueAtTime(0.12, at);
  volume.gain.exponentialRampToValueAtTime(0.001, at + TONE_SECONDS);
  oscillator.connect(volume).connect(on.destination);
  oscillator.start(at);
  oscillator.stop(at + TONE_SECONDS);
}

/** Keeps the screen awake while something is shown, as far as the device lets it. */
export function useAwake(): void {
  useEffect(() => {
    let lock: WakeLockSentinel | null = null;
    let isOver = false;
    const ask = async () => {
      if (document.visibilityState !== 'visible' || !('wakeLock' in navigator)) return;
      const got = await navigator.wakeLock.request('screen').catch(() => null);
      if (isOver) void got?.release();
      else lock = got;
    };
    void ask();
    // A screen that was away has lost its lock.
    document.addEventListener('visibilitychange', ask);
    return () => {
      isOver = true;
      document.removeEventListener('visibilitychange', ask);
      void lock?.release();
    };
  }, []);
}
