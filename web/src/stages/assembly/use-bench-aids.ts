// What a browser may do for a bench: keep the screen awake, read a step out.
import { useEffect, useState } from 'react'

/** Keeps the screen awake while the bench is open; false where the browser does not. */
export function useAwake(): boolean {
  const [isAwake, setAwake] = useState(false)
  useEffect(() => {
    if (!('wakeLock' in navigator)) return
    let lock: WakeLockSentinel | null = null
    let gone = false
    const ask = () => {
      if (document.visibilityState !== 'visible') return
      navigator.wakeLock.request('screen').then(
        (held) => {
          if (gone) return void held.release()
          lock = held
          setAwake(true)
          held.addEventListener('release', () => setAwake(false))
        },
        () => setAwake(false),
      )
    }
    ask()
    // The browser lets go of it when the page is hidden.
    document.addEventListener('visibilitychange', ask)
    return () => {
      gone = true
      document.removeEventListener('visibilitychange', ask)
      void lock?.release()
    }
  }, [])
  return isAwake
}

/** Whether this browser has a voice. */
export const canSpeak = (): boolean => typeof window !== 'undefined' && 'speechSynthesis' in window

/** Reads words out as they change, while it is asked to. */
export function useSpoken(words: string, isOn: boolean): void {
  useEffect(() => {
    if (!isOn || !canSpeak()) return
    const said = new SpeechSynthesisUtterance(words)
    said.lang = 'en'
    window.speechSynthesis.cancel()
    window.speechSynthesis.speak(said)
    return () => window.speechSynthesis.cancel()
  }, [words, isOn])
}
