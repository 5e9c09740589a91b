/** A person who traces a photo: looks for things in the picture, moves the pointer there, clicks, types. */
import { applyHomography, fitPhoto, type Homography, invertHomography, type Side } from '@orthos/core/board';
import type { Page } from '@playwright/test';

/** Pixels of the corners in the rendered photos, from the upper left clockwise (see e2e/scripts/photo.ts). */
export const CORNERS_PX: [number, number][] = [
  [168, 96],
  [1628, 118],
  [1606, 1256],
  [190, 1238],
];

/**
 * Seconds that people take for such actions (keystroke-level model, Card, Moran & Newell 1980): a key of an average
 * typist, pointing with a mouse, a button down or up, making up one's mind.
 */
const SECONDS = { key: 0.28, point: 1.1, button: 0.1, mind: 1.35 };

export class Tracer {
  seconds = 0;
  private readonly page: Page;
  private readonly toPixel: Homography;

  constructor(page: Page, size: [number, number], side: Side = 'top') {
    this.page = page;
    const [w, h] = size;
    const corners = [
      [0, 0],
      [w, 0],
      [w, h],
      [0, h],
    ] as [number, number][];
    // seen from below, the picture's left is the board's right
    const mm = side === 'top' ? corners : corners.map(([x, y]): [number, number] => [w - x, y]);
    const fit = fitPhoto(
      CORNERS_PX.map((px, i) => ({ px, mm: mm[i] })),
      side,
    );
    if (!fit) throw new Error('the corners make no frame');
    this.toPixel = invertHomography(fit.toBoard);
  }

  /** Where a pixel of the photo is on the screen. */
  async screen([u, v]: readonly [number, number]): Promise<[number, number]> {
    return this.page.evaluate(
      ([x, y]) => {
        const image = document.querySelector<HTMLImageElement>('[role=application] img');
        if (!image?.parentElement) throw new Error('no photo');
        const box = (image.closest('[role=application]') as HTMLElement).getBoundingClientRect();
        const p = new DOMMatrix(getComputedStyle(image).transform).transformPoint(new DOMPoint(x, y));
        return [box.left + p.x / p.w, box.top + p.y / p.w] as [number, number];
      },
      [u, v] as const,
    );
  }
  /** Where something that stands at (x, y) mm is seen in the photo. */
  seen(x: number, y: number): [number, number] {
    return applyHomography(this.toPixel, x, y);
  }
  async clickPixel(px: readonly [number, number]): Promise<void> {
    await this.page.mouse.click(...(await this.screen(px)));
    this.seconds += SECONDS.point + 2 * SECONDS.button;
  }
  async clickAt(x: number, y: number): Promise<void> {
    await this.clickPixel(this.seen(x, y));
  }
  async drag(x0: number, y0: number, x1: number, y1: number): Promise<void> {
    await this.page.mouse.move(...(await this.screen(this.seen(x0, y0))));
    await this.page.mouse.down();
    await this.page.mouse.move(...(await this.screen(this.seen(x1, y1))), { steps: 4 });
    await this.page.mouse.up();
    this.seconds += 2 * SECONDS.point + 2 * SECONDS.button;
  }
  async key(key: string): Promise<void> {
    await this.page.keyboard.press(key);
    this.seconds += SECONDS.key;
  }
  async type(text: string): Promise<void> {
    await this.page.keyboard.type(text);
    this.seconds += SECONDS.key * text.length;
  }
  think(times = 1): void {
    this.seconds += SECONDS.mind * times;
  }
  /** Another panel. */
  async panel(name: string): Promise<void> {
    await this.page.getByRole('tablist', { name: 'Panel' }).getByRole('tab', { name }).click();
    this.seconds += SECONDS.mind + SECONDS.point + 2 * SECONDS.button;
  }
  /** Arms a package by typing it. */
  async arm(text: string): Promise<void> {
    this.think();
    await this.key('a');
    await this.page.getByRole('combobox', { name: 'Package' }).waitFor();
    await this.type(text);
    await this.page.getByRole('option').first().waitFor();
    await this.key('Enter');
  }
}
