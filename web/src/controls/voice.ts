import { useEffect, useState } from 'react';
import { safeStorage } from '../offline/safe-storage.ts';

const kept = 'fairwatt.voice';

/** The browser's own voice, off until somebody switches it on; this browser remembers. */
export interface Voice {
  /** The browser has none: nothing can be switched on. */
  readonly missing: boolean;
  readonly on: boolean;
  readonly switchTo: (on: boolean) => void;
  /** Says it at once, in place of what is being said. Silent while it is off. */
  readonly say: (text: string) => void;
}

export function useVoice(): Voice {
  const missing = !('speechSynthesis' in window);
  const [wanted, setWanted] = useState(() => safeStorage.get(kept) === 'on');
  const on = wanted && !missing;
  useEffect(() => {
    if (missing) return undefined;
    return () => window.speechSynthesis.cancel();
  }, [missing]);
  return {
    missing,
    on,
    switchTo: (next) => {
      safeStorage.set(kept, next ? 'on' : 'off');
      setWanted(next);
      if (!next && !missing) window.speechSynthesis.cancel();
    },
    say: (text) => {
      if (!on) return;
      const words = new SpeechSynthesisUtterance(text);
      words.lang = 'en';
      window.speechSynthesis.cancel();
      window.speechSynthesis.speak(words);
    },
  };
}
