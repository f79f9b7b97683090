/** How an alarm sounds: two tones, so often, as loud as so much of what the device can. Ours alone, and no standard's. */
const TONES_Hz = [740, 988] as const;
const TONE_s = 0.22;
const EVERY_MS = 4000;
const LOUD = 0.25;

/** What is to be heard: alarms that nobody has silenced here. A new one sounds though others were silenced. */
export function isHeard(alarms: readonly string[], silenced: readonly string[]): boolean {
  return alarms.some((alarm) => !silenced.includes(alarm));
}

/**
 * Sounds at once and again and again, until the function that it gives back is called. A browser that wants a touch first
 * stays silent until it was touched; the alarm is on the screen in any case.
 */
export function sound(): () => void {
  let context: AudioContext | null = null;
  const beep = () => {
    try {
      context ??= new AudioContext();
      void context.resume().catch(() => undefined);
      const begins_s = context.currentTime;
      TONES_Hz.forEach((tone, i) => {
        const gain = context!.createGain();
        gain.gain.setValueAtTime(LOUD, begins_s + i * TONE_s);
        gain.connect(context!.destination);
        const voice = context!.createOscillator();
        voice.frequency.value = tone;
        voice.connect(gain);
        voice.start(begins_s + i * TONE_s);
        voice.stop(begins_s + (i + 1) * TONE_s);
      });
    } catch {
      // No sound here: the alarm is on the screen.
    }
  };
  beep();
  const again = setInterval(beep, EVERY_MS);
  return () => {
    clearInterval(again);
    void context?.close().catch(() => undefined);
  };
}
