/** What makes somebody with their hands full look: vibration, a sound, and a notice of the device where it is allowed. */

/** Milliseconds on, off, on; and hertz of each tone. Rising where time is short, falling where it is over. */
const PATTERNS = {
  soon: { vibration: [200, 100, 200], tones: [660, 880] },
  over: { vibration: [400, 150, 400, 150, 400], tones: [880, 660, 440, 880, 660, 440] },
};
const TONE_S = 0.28;
const LOUDNESS = 0.4;

let speaker: AudioContext | null = null;

function sound(tones: readonly number[]) {
  if (typeof AudioContext === "undefined") return;
  speaker ??= new AudioContext();
  void speaker.resume();
  tones.forEach((hertz, i) => {
    if (!speaker) return;
    const tone = speaker.createOscillator();
    const volume = speaker.createGain();
    const from = speaker.currentTime + i * TONE_S;
    tone.type = "square";
    tone.frequency.value = hertz;
    volume.gain.setValueAtTime(LOUDNESS, from);
    volume.gain.exponentialRampToValueAtTime(0.01, from + TONE_S);
    tone.connect(volume).connect(speaker.destination);
    tone.start(from);
    tone.stop(from + TONE_S);
  });
}

export function callAttention(kind: keyof typeof PATTERNS, title: string, body: string, tag: string) {
  const { vibration, tones } = PATTERNS[kind];
  navigator.vibrate?.(vibration);
  sound(tones);
  if (typeof Notification !== "undefined" && Notification.permission === "granted") {
    try {
      new Notification(title, { body, tag, requireInteraction: kind === "over" });
    } catch {
      // Some phones give notices to service workers only; what is on the page is told all the same.
    }
  }
}

/** Whether the device could still be asked for notices of its own. */
export const mayAskForNotices = () =>
  typeof Notification !== "undefined" && Notification.permission === "default";

export const askForNotices = () => Notification.requestPermission();
