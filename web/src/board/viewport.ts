import type { Bounds, Point } from '@wick/core/geometry/polygon';

/** Metres to pixels and back; y points up on the plan and down on the screen. */
export interface Viewport {
  readonly scale: number;
  readonly left: number;
  readonly bottom: number;
}

export function fitViewport(box: Bounds, size: { width: number; height: number }, margin = 42): Viewport {
  const width = Math.max(box.maxX - box.minX, 1e-3);
  const height = Math.max(box.maxY - box.minY, 1e-3);
  const scale = Math.max(
    1e-3,
    Math.min((size.width - 2 * margin) / width, (size.height - 2 * margin) / height),
  );
  return {
    scale,
    left: (size.width - scale * width) / 2 - scale * box.minX,
    bottom: (size.height + scale * height) / 2 + scale * box.minY,
  };
}

export const toScreen = (view: Viewport, p: Point): Point => ({
  x: view.left + view.scale * p.x,
  y: view.bottom - view.scale * p.y,
});
export const toPlan = (view: Viewport, p: Point): Point => ({
  x: (p.x - view.left) / view.scale,
  y: (view.bottom - p.y) / view.scale,
});

/** Zoom by a factor about a screen point. */
export function zoomAt(view: Viewport, at: Point, factor: number): Viewport {
  const scale = Math.max(5, Math.min(20_000, view.scale * factor));
  const plan = toPlan(view, at);
  return { scale, left: at.x - scale * plan.x, bottom: at.y + scale * plan.y };
}

export function pathOf(view: Viewport, points: readonly Point[], closed: boolean): string {
  const text = points
    .map((p) => toScreen(view, p))
    .map(({ x, y }, i) => `${i === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`);
  return text.join('') + (closed ? 'Z' : '');
}

/** Rings as flat coordinate lists, as isochrones give them. */
export function pathOfRings(view: Viewport, rings: readonly (readonly number[])[]): string {
  let path = '';
  for (const ring of rings) {
    for (let i = 0; i < ring.length; i += 2)
      path += `${i === 0 ? 'M' : 'L'}${(view.left + view.scale * ring[i]!).toFixed(1)} ${(view.bottom - view.scale * ring[i + 1]!).toFixed(1)}`;
    path += 'Z';
  }
  return path;
}

/** Round steps 1, 2, 5 x 10^n, near the wanted number of them over a span. */
export function niceStep(span: number, count: number): number {
  const raw = span / count;
  const power = 10 ** Math.floor(Math.log10(raw));
  return power * ([1, 2, 5, 10].find((step) => step * power >= raw) ?? 10);
}
