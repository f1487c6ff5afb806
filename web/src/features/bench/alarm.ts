import { useEffect, useRef, useState } from "react";

/** What has to be heard with the back turned: an edge of the window, the end of a rest. */
const KEY = "bench-sound";
const TONES: Record<Alarm, readonly number[]> = {
  reached: [659, 880],
  leaving: [880, 659, 880, 659],
  up: [784, 784],
};
const TONE_S = 0.18;
const LOUDNESS = 0.25;

export type Alarm = "reached" | "leaving" | "up";

/** A browser lets no page be heard or felt before somebody has touched it, as after a reload. */
const mayBeHeard = (): boolean => navigator.userActivation?.hasBeenActive ?? true;

function ring(alarm: Alarm): void {
  if (!mayBeHeard()) return;
  navigator.vibrate?.([200, 100, 200]);
  try {
    const context = new AudioContext();
    for (const [index, pitch] of TONES[alarm].entries()) {
      const tone = context.createOscillator();
      const volume = context.createGain();
      const at = context.currentTime + index * TONE_S * 1.4;
      tone.frequency.value = pitch;
      volume.gain.setValueAtTime(LOUDNESS, at);
      volume.gain.exponentialRampToValueAtTime(0.001, at + TONE_S);
      tone.connect(volume).connect(context.destination);
      tone.start(at);
      tone.stop(at + TONE_S);
    }
    setTimeout(() => void context.close(), 4000);
  } catch {
    // A browser without sound: the words on the screen say the same.
  }
}

/** Rings once when an edge is crossed or the time is up; the side a step begins on is no crossing. */
export function useAlarm(alarm: Alarm | null): void {
  const before = useRef<Alarm | null>(alarm);
  useEffect(() => {
    const crossed = alarm !== before.current && (before.current !== null || alarm === "up");
    if (alarm && crossed && soundOn()) ring(alarm);
    before.current = alarm;
  }, [alarm]);
}

const soundOn = (): boolean => {
  try {
    return localStorage.getItem(KEY) !== "off";
  } catch {
    return true;
  }
};

/** Whether the page has been touched, and so may be heard. */
export function useTouched(): boolean {
  const [touched, setTouched] = useState(mayBeHeard);
  useEffect(() => {
    if (touched) return;
    const look = () => setTouched(mayBeHeard());
    const touches = ["pointerup", "click", "keyup"];
    for (const touch of touches) addEventListener(touch, look);
    return () => {
      for (const touch of touches) removeEventListener(touch, look);
    };
  }, [touched]);
  return touched;
}

/** Whether the bench may be heard; kept on this device. */
export function useSound(): [boolean, () => void] {
  const [on, setOn] = useState(soundOn);
  const turn = () => {
    setOn(!on);
    try {
      localStorage.setItem(KEY, on ? "off" : "on");
    } catch {
      // Not kept; it holds as long as the page is open.
    }
  };
  return [on, turn];
}
