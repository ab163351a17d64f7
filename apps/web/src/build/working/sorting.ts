import type { DraggableAttributes } from '@dnd-kit/core';
import type { useSortable } from '@dnd-kit/sortable';
import type { Id } from '@yperkine/demonstration';
import { createContext, useContext } from 'react';
import { createStore, useStore, type StoreApi } from 'zustand';

/** What drag and drop gives a card: what its grip listens to, and where the card is while something is carried. */
export interface Carried {
  readonly attributes: DraggableAttributes;
  readonly listeners: ReturnType<typeof useSortable>['listeners'];
  readonly transform: string | undefined;
  readonly transition: string | undefined;
  readonly isDragging: boolean;
}

interface SortingState {
  /** Whether somebody is about to move a card: drag and drop is loaded then. */
  readonly isWanted: boolean;
  readonly carried: Readonly<Partial<Record<Id, Carried>>>;
}

/**
 * Where the cards of the working and drag and drop meet. The cards stand as they are, whether it is loaded or not: it
 * finds their elements here, and they find here how they lie.
 */
export class Sorting {
  readonly store: StoreApi<SortingState> = createStore(() => ({ isWanted: false, carried: {} }));
  readonly cards = new Map<Id, HTMLElement>();
  readonly grips = new Map<Id, HTMLElement>();
  /** The press or key for which drag and drop was not there yet. */
  private missed: { readonly id: Id; readonly event: Event } | null = null;

  want(): void {
    if (!this.store.getState().isWanted) this.store.setState({ isWanted: true });
  }

  /** Keeps a press or key at a grip until drag and drop is there. */
  miss(id: Id, event: Event): void {
    this.missed = { id, event };
    this.want();
  }

  /** A press that ended meant nothing yet. */
  forget(): void {
    this.missed = null;
  }

  bind(id: Id, carried: Carried | undefined): void {
    this.store.setState((state) => ({ carried: { ...state.carried, [id]: carried } }));
  }

  /** Gives a grip the press or key that came too early. */
  catchUp(id: Id): void {
    if (this.missed?.id !== id) return;
    const { event } = this.missed;
    this.missed = null;
    const again = event instanceof KeyboardEvent ? KeyboardEvent : PointerEvent;
    this.grips.get(id)?.dispatchEvent(new again(event.type, event));
  }
}

export const SortingContext = createContext(new Sorting());

export const useSorting = (): Sorting => useContext(SortingContext);

export const useCarried = (id: Id): Carried | undefined =>
  useStore(useSorting().store, ({ carried }) => carried[id]);
