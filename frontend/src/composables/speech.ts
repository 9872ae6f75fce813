/** Read-out by the device's own voice; silent where there is none. */
export function readOut(text: string): void {
  if (!('speechSynthesis' in window)) return
  window.speechSynthesis.cancel()
  window.speechSynthesis.speak(new SpeechSynthesisUtterance(text))
}
