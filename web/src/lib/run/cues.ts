/** Sounds for the window and keeping the screen awake. Both are a help, never a need: failures are silent. */

export interface CueSettings {
  muted: boolean;
  /** 0 to 1. */
  volume: number;
  /** What is told is spoken as well, with whatever voice the browser has. */
  spoken: boolean;
}

const KEY = 'orthos.cues';

export function loadCues(): CueSettings {
  try {
    const { muted, volume, spoken } = JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<CueSettings>;
    const loud = typeof volume === 'number' ? Math.min(1, Math.max(0, volume)) : 0.5;
    return { muted: muted === true, volume: loud, spoken: spoken === true };
  } catch {
    return { muted: false, volume: 0.5, spoken: false };
  }
}

export function saveCues(settings: CueSettings): void {
  try {
    localStorage.setItem(KEY, JSON.stringify(settings));
  } catch {
    // kept for this visit only
  }
}

/** The window opens, is about to close, is over; the joint whose turn it is should be done; something is to be changed. */
export type Cue = 'opens' | 'closing' | 'over' | 'turn';
/** Tones of each cue: pitch in Hz, start and length in s. */
const TONES: Record<Cue, [number, number, number][]> = {
  opens: [
    [660, 0, 0.12],
    [880, 0.15, 0.18],
  ],
  closing: [
    [880, 0, 0.08],
    [880, 0.14, 0.08],
    [880, 0.28, 0.08],
  ],
  over: [[220, 0, 0.6]],
  turn: [[740, 0, 0.09]],
};

/** Says words aloud, over what is being said; nothing where the browser has no voice. */
export function speak(words: string, { muted, volume, spoken }: CueSettings): void {
  if (!spoken || muted || volume === 0 || !('speechSynthesis' in globalThis)) return;
  try {
    const said = new SpeechSynthesisUtterance(words);
    said.lang = 'en';
    said.volume = volume;
    speechSynthesis.cancel();
    speechSynthesis.speak(said);
  } catch {
    // no voice
  }
}

let audio: AudioContext | undefined;

export function sound(cue: Cue, { muted, volume }: Pick<CueSettings, 'muted' | 'volume'>): void {
  if (muted || volume === 0) return;
  try {
    audio ??= new AudioContext();
    const now = audio.currentTime;
    for (const [pitch, start, length] of TONES[cue]) {
      const tone = audio.createOscillator();
      const gain = audio.createGain();
      tone.frequency.value = pitch;
      gain.gain.setValueAtTime(0, now + start);
      gain.gain.linearRampToValueAtTime(volume * 0.4, now + start + 0.01);
      gain.gain.setValueAtTime(volume * 0.4, now + start + length - 0.02);
      gain.gain.linearRampToValueAtTime(0, now + start + length);
      tone.connect(gain).connect(audio.destination);
      tone.start(now + start);
      tone.stop(now + start + length);
    }
  } catch {
    // no sound device
  }
}

/** Keeps the screen on until the returned function is called; asked again when the page comes back to sight. */
export function keepAwake(): () => void {
  let lock: WakeLockSentinel | undefined;
  let done = false;
  const ask = async () => {
    if (document.visibilityState !== 'visible' || done) return;
    try {
      lock = await navigator.wakeLock.request('screen');
    } catch {
      // not allowed here
    }
  };
  const again = () => void ask();
  document.addEventListener('visibilitychange', again);
  void ask();
  return () => {
    done = true;
    document.removeEventListener('visibilitychange', again);
    void lock?.release();
  };
}
