/** What browsers that recognise speech have of it (Web Speech API, W3C Community Group report). */
interface Recognition extends EventTarget {
  continuous: boolean;
  interimResults: boolean;
  lang: string;
  start(): void;
  stop(): void;
}
interface Heard extends Event {
  results: ArrayLike<ArrayLike<{ transcript: string }>>;
}
type RecognitionKind = new () => Recognition;

/** How long the last words are waited for once it was stopped, in milliseconds. */
const LAST = 1_500;

/**
 * Hears what is spoken with the browser’s own recognition, where it has one, and tells all words so far as they come. `end` stops it
 * and gives the words; none where nothing was heard or the browser cannot.
 */
export function hear(heard: (words: string) => void): { end: () => Promise<string> } {
  const own = window as { SpeechRecognition?: RecognitionKind; webkitSpeechRecognition?: RecognitionKind };
  const Kind = own.SpeechRecognition ?? own.webkitSpeechRecognition;
  let words = '';
  if (!Kind) return { end: () => Promise.resolve(words) };
  const recognition = new Kind();
  let over = false;
  const ended = new Promise<void>((resolve) => {
    for (const what of ['end', 'error'])
      recognition.addEventListener(what, () => {
        over = true;
        resolve();
      });
  });
  Object.assign(recognition, { continuous: true, interimResults: true, lang: navigator.language });
  recognition.addEventListener('result', (event) => {
    words = Array.from((event as Heard).results, (result) => result[0]?.transcript ?? '').join(' ');
    heard(words);
  });
  try {
    recognition.start();
  } catch {
    over = true;
  }
  return {
    async end() {
      if (over) return words;
      recognition.stop();
      await Promise.race([ended, new Promise((resolve) => setTimeout(resolve, LAST))]);
      return words;
    },
  };
}
