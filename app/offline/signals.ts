/** Sound and vibration of a tablet: a gym is loud, and nobody looks at a clock. */
const MUTED_KEY = "sprezza-muted";

let audio: AudioContext | undefined;

export function isMuted(): boolean {
  try {
    return localStorage.getItem(MUTED_KEY) === "yes";
  } catch {
    return false;
  }
}

/** Stays on this tablet. */
export function setMuted(muted: boolean): void {
  try {
    localStorage.setItem(MUTED_KEY, muted ? "yes" : "no");
  } catch {
    // A browser that keeps nothing asks again the next time.
  }
}

/** A tap of a person lets the page make sounds: browsers wait for one. */
export function readySound(): void {
  if (isMuted()) return;
  audio ??= "AudioContext" in globalThis ? new AudioContext() : undefined;
  if (audio?.state === "suspended") void audio.resume().catch(() => {});
}

export type Signal = "soon" | "now" | "tick" | "turn";

/** Pitch, Hz, and how often. */
const TONES: Record<Signal, { hz: number; times: number; ms: number }> = {
  soon: { hz: 660, times: 1, ms: 140 },
  now: { hz: 880, times: 2, ms: 180 },
  tick: { hz: 520, times: 1, ms: 40 },
  turn: { hz: 990, times: 1, ms: 90 },
};
const GAP_MS = 90;
const BUZZ: Partial<Record<Signal, number[]>> = { soon: [120], now: [250, 100, 250] };

/** Says it by sound and, where the tablet can, by vibration; nothing where it is muted. */
export function signal(what: Signal): void {
  if (isMuted()) return;
  const buzz = BUZZ[what];
  if (buzz && "vibrate" in navigator) navigator.vibrate(buzz);
  if (audio?.state !== "running") return;
  const { hz, times, ms } = TONES[what];
  for (let i = 0; i < times; i++) {
    const at = audio.currentTime + (i * (ms + GAP_MS)) / 1000;
    const tone = audio.createOscillator();
    const loud = audio.createGain();
    tone.frequency.value = hz;
    loud.gain.setValueAtTime(0.25, at);
    loud.gain.exponentialRampToValueAtTime(0.001, at + ms / 1000);
    tone.connect(loud).connect(audio.destination);
    tone.start(at);
    tone.stop(at + ms / 1000);
  }
}
