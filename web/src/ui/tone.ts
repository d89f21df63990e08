let context: AudioContext | null = null;

/** Two tones in turn, heard over a workshop; the browser may hold it back until somebody has touched the page. @param length ms */
export function soundTone(length: number): void {
  try {
    context ??= new AudioContext();
    void context.resume();
    const gain = context.createGain();
    gain.connect(context.destination);
    const start = context.currentTime;
    const tone = context.createOscillator();
    tone.type = 'square';
    for (let at = 0; at < length / 1000; at += 0.5) {
      tone.frequency.setValueAtTime(880, start + at);
      tone.frequency.setValueAtTime(660, start + at + 0.25);
    }
    gain.gain.setValueAtTime(0.25, start);
    gain.gain.setValueAtTime(0, start + length / 1000);
    tone.connect(gain);
    tone.start(start);
    tone.stop(start + length / 1000);
    navigator.vibrate?.([400, 200, 400]);
  } catch {
    // A machine without sound still shows it over the whole screen.
  }
}
