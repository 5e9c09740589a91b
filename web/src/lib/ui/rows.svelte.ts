/** Rows of a long list that are in sight, by a headless virtualizer. Rows are of one height. */
import {
  elementScroll,
  observeElementOffset,
  observeElementRect,
  type VirtualItem,
  Virtualizer,
} from '@tanstack/virtual-core';

/** Rows kept above and below the window. */
const SPARE = 6;

export class Rows {
  /** In sight, and a few more. */
  items = $state.raw<readonly VirtualItem[]>([]);
  /** Height of all of them, px. */
  height = $state(0);
  private virtualizer: Virtualizer<HTMLElement, HTMLElement> | undefined;

  /** Follows an element that scrolls over `count` rows of `row_px`; gives what ends it. */
  follow(element: HTMLElement, count: number, row_px: number): () => void {
    const virtualizer = new Virtualizer<HTMLElement, HTMLElement>({
      count,
      getScrollElement: () => element,
      estimateSize: () => row_px,
      overscan: SPARE,
      scrollToFn: elementScroll,
      observeElementRect,
      observeElementOffset,
      initialOffset: element.scrollTop,
      initialRect: { width: element.offsetWidth, height: element.offsetHeight },
      onChange: () => this.look(),
    });
    this.virtualizer = virtualizer;
    const end = virtualizer._didMount();
    virtualizer._willUpdate();
    this.look();
    return end;
  }
  private look(): void {
    if (!this.virtualizer) return;
    this.items = this.virtualizer.getVirtualItems();
    this.height = this.virtualizer.getTotalSize();
  }
  /** Brings a row into sight. */
  show(index: number): void {
    this.virtualizer?.scrollToIndex(index, { align: 'auto' });
  }
}
