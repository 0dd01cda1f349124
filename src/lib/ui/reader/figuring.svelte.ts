import type { FigurePlace, FigureWords } from '$lib/core/figures';
import type { PassageWords } from '$lib/server/passages';
import { drafts } from '../frame/drafts';
import { boxing, framePictures, type Boxing, type FreshFigure } from './boxing';

/** What is said of a figure in its sheet: its words, where it is cut out, and its caption. */
export interface FigureSaid extends FigureWords {
  place: FigurePlace;
}

/** A figure that was begun and not kept, with what was typed of it. */
export interface BegunFigure {
  place: FigurePlace;
  said: PassageWords;
  caption: string;
  figure: FigureSaid;
}

/** Where in the address a box of a copy is shown as a picture. */
export const cutAddress = (copyId: string, place: FigurePlace): string =>
  `/copies/${copyId}/cut?place=${encodeURIComponent(JSON.stringify(place))}`;

/** Cutting figures out of the document that is read: whether boxes are being drawn, and the figure that was drawn last. */
export function figuring(copyId: () => string, drew: () => void) {
  let on = $state(false);
  let fresh = $state.raw<FreshFigure | undefined>();
  /** The sheet is there for what was drawn; else it waits in the margin. */
  let open = $state(false);
  let waiting = $state.raw<BegunFigure | undefined>();
  let boxes: Boxing | undefined = $state.raw();
  const name = $derived(`figure ${copyId()}`);
  $effect(() => {
    waiting = drafts.find<BegunFigure>(name);
  });

  function stop(): void {
    boxes?.end();
    on = false;
  }

  return {
    get on() {
      return on;
    },
    /** The figure at hand. */
    get fresh() {
      return open ? fresh : undefined;
    },
    /** One that was begun and waits. */
    get waiting() {
      return open ? undefined : waiting;
    },
    /** Takes a document over. */
    ready(doc: Document) {
      framePictures(doc);
      boxes = boxing(doc, (figure) => {
        stop();
        [fresh, open] = [figure, true];
        drew();
      });
    },
    /** Whether there is anything a figure can be cut out of. */
    get possible() {
      return (boxes?.grounds ?? 0) > 0;
    },
    toggle() {
      if (on) return stop();
      boxes?.begin();
      on = boxes !== undefined;
    },
    stop,
    leave() {
      stop();
      open = false;
    },
    resume() {
      if (!waiting) return;
      const { place, figure, caption, said } = waiting;
      fresh = { place, caption, number: figure.number, alt: figure.alt, locator: said.locator };
      open = true;
      drew();
    },
    /** What was typed of the figure at hand before. */
    saidOf: (figure: FreshFigure): BegunFigure | undefined =>
      waiting && JSON.stringify(waiting.place) === JSON.stringify(figure.place) ? waiting : undefined,
    typed(said: PassageWords, caption: string, figure: FigureSaid) {
      if (!fresh) return;
      waiting = { place: fresh.place, said, caption, figure };
      drafts.keep(name, waiting);
    },
    throwAway() {
      waiting = undefined;
      drafts.drop(name);
    },
  };
}
