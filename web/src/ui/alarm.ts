/** Heard and felt where the device can, for a second; the words are there in any case. */
export function soundAlarm() {
  navigator.vibrate?.([300, 150, 300])
  if (!('AudioContext' in window)) return
  const context = new AudioContext()
  const [tone, volume] = [context.createOscillator(), context.createGain()]
  tone.frequency.value = 1100
  tone.connect(volume).connect(context.destination)
  for (const [k, loud] of [0.4, 0, 0.4, 0].entries())
    volume.gain.setValueAtTime(loud, context.currentTime + k * 0.2)
  tone.start()
  tone.stop(context.currentTime + 0.8)
  tone.onended = () => void context.close()
}
