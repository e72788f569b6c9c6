// A short tone, as bench tools give. Browsers allow it once the page was touched; without sound what is seen has to do.
let sound = null;

export function tone({ hertz, loud, last, at = [0] }) {
  if (!(navigator.userActivation?.hasBeenActive ?? true)) return;
  try {
    sound ??= new AudioContext();
    for (const begin of at) {
      const voice = sound.createOscillator(), level = sound.createGain(), now = sound.currentTime + begin;
      voice.frequency.value = hertz;
      level.gain.setValueAtTime(loud, now);
      level.gain.exponentialRampToValueAtTime(0.001, now + last);
      voice.connect(level).connect(sound.destination);
      voice.start(now);
      voice.stop(now + last + 0.01);
    }
  } catch {
    // a machine without sound
  }
}
