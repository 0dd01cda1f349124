import { combine } from '@atlaskit/pragmatic-drag-and-drop/combine';
import { draggable, dropTargetForElements } from '@atlaskit/pragmatic-drag-and-drop/element/adapter';
import { setCustomNativeDragPreview } from '@atlaskit/pragmatic-drag-and-drop/element/set-custom-native-drag-preview';
import {
  attachInstruction,
  extractInstruction,
  type Operation,
} from '@atlaskit/pragmatic-drag-and-drop-hitbox/list-item';
import type { Action } from 'svelte/action';
import type { ItemKey } from '$lib/core/outline';
import { touchDrag } from './touching';

/** What is dragged: a section, sources, passages, or what stands in an outline. */
export type Dragged =
  | { kind: 'section'; id: string; projectId: string }
  | { kind: 'sources'; ids: string[] }
  | { kind: 'passages'; ids: string[] }
  | { kind: 'items'; items: ItemKey[] };

/** What an element does in dragging. */
export interface Dragging {
  /** What is dragged when one drags it, and in what words; nothing when it stays. */
  drag?: (() => { what: Dragged; words: string }) | undefined;
  /** What can be done with something dragged over it. */
  can?: (what: Dragged) => Operation[];
  /** Something is let go over it. */
  drop?: (what: Dragged, operation: Operation) => void;
}

/** Under which name what is dragged stands among the data of a drag. */
const DRAGGED = 'dragged';

/** Lets an element be dragged and dropped on, by mouse or finger. Where something would go is in its `data-drop`, for showing it. */
export const dragging: Action<HTMLElement, Dragging> = (element, given) => {
  let now = given;
  const end = combine(
    draggable({
      element,
      canDrag: () => Boolean(now.drag),
      getInitialData: () => ({ [DRAGGED]: now.drag!().what }),
      onGenerateDragPreview: ({ nativeSetDragImage }) =>
        setCustomNativeDragPreview({
          nativeSetDragImage,
          render: ({ container }) => {
            const label = document.createElement('div');
            label.className = 'drag-label';
            label.textContent = now.drag!().words;
            container.append(label);
          },
        }),
    }),
    dropTargetForElements({
      element,
      canDrop: ({ source }) => {
        const what = source.data[DRAGGED] as Dragged | undefined;
        return what !== undefined && source.element !== element && (now.can?.(what).length ?? 0) > 0;
      },
      getData: ({ input, source }) =>
        attachInstruction(
          {},
          {
            input,
            element,
            operations: Object.fromEntries(
              now.can!(source.data[DRAGGED] as Dragged).map((operation) => [operation, 'available']),
            ),
          },
        ),
      onDrag: ({ self }) => {
        element.dataset.drop = extractInstruction(self.data)?.operation ?? '';
      },
      onDragLeave: () => delete element.dataset.drop,
      onDrop: ({ self, source }) => {
        delete element.dataset.drop;
        const instruction = extractInstruction(self.data);
        if (instruction) now.drop?.(source.data[DRAGGED] as Dragged, instruction.operation);
      },
    }),
  );
  const endTouch = touchDrag(element, () => now);
  return {
    update: (next) => void (now = next),
    destroy: () => {
      end();
      endTouch();
    },
  };
};
