import { polygonOf } from '@wick/core/geometry/arcs';
import { boundsOf, type Point } from '@wick/core/geometry/polygon';
import type { BagReading } from '../infusion/live-clock.ts';
import type { LaidJob } from '../job/laid.ts';
import type { Finding } from './findings.ts';

/** Colours of the program by day, for paper. */
const INK = '#1E2A2F';
const RESIN = '#C77700';
const TIDE = '#1F6F78';
const EMBER = '#B3261E';
const RULE = '#B9B3A4';

const at = ({ x, y }: Point) => `${x.toFixed(1)},${y.toFixed(1)}`;
const pathOf = (points: readonly Point[], isClosed: boolean) =>
  `M${points.map(at).join('L')}${isClosed ? 'Z' : ''}`;

/** The plan with numbered findings as an SVG. @param width of the picture, points; its height follows, 320 at most */
export function planPicture(job: LaidJob, findings: readonly Finding[], width: number): string {
  const outline = polygonOf(job.part.outline);
  const { minX, minY, maxX, maxY } = boundsOf(outline);
  const margin = 14;
  const scale = Math.min((width - 2 * margin) / (maxX - minX), (320 - 2 * margin) / (maxY - minY));
  const height = scale * (maxY - minY) + 2 * margin;
  // Up is up on the plan, and down in a picture.
  const put = ({ x, y }: Point): Point => ({
    x: margin + scale * (x - minX),
    y: height - margin - scale * (y - minY),
  });
  const drawn = (points: readonly Point[], isClosed: boolean, style: string) =>
    `<path d="${pathOf(points.map(put), isClosed)}" ${style}/>`;
  const parts = [
    drawn(outline, true, `fill="#F6F3EC" stroke="${INK}" stroke-width="1.2"`),
    ...job.part.holes.map((hole) =>
      drawn(polygonOf(hole.outline), true, `fill="#FFFFFF" stroke="${INK}" stroke-width="0.8"`),
    ),
    ...job.zones.map((zone) =>
      drawn(polygonOf(zone.outline), true, `fill="none" stroke="${RULE}" stroke-width="0.8"`),
    ),
    ...job.lines
      .filter(({ kind }) => kind !== 'race')
      .map(({ points, kind }) =>
        drawn(points, false, `fill="none" stroke="${kind === 'feed' ? RESIN : TIDE}" stroke-width="2"`),
      ),
    ...findings.flatMap((finding, n) => [
      ...(finding.form === 'pin'
        ? []
        : [
            drawn(
              finding.path,
              finding.form === 'area',
              `fill="${finding.form === 'area' ? EMBER : 'none'}" fill-opacity="0.15" stroke="${EMBER}" stroke-width="1.2"`,
            ),
          ]),
      numbered(put(finding.place), n + 1),
    ]),
  ];
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height.toFixed(1)}" viewBox="0 0 ${width} ${height.toFixed(1)}">${parts.join('')}</svg>`;
}

const numbered = ({ x, y }: Point, n: number) =>
  `<circle cx="${x.toFixed(1)}" cy="${y.toFixed(1)}" r="7" fill="#FFFFFF" stroke="${EMBER}" stroke-width="1.4"/>` +
  `<text x="${x.toFixed(1)}" y="${(y + 3).toFixed(1)}" font-size="9" text-anchor="middle" fill="${EMBER}">${n}</text>`;

const HEIGHT = 120;
const LEFT = 44;
const BOTTOM = 18;

/**
 * Pressure in the bag over the minutes of a run as an SVG, with what was done marked under it.
 * @param readings ascending, at least two  @param show a pressure in the workshop's unit
 */
export function pressurePicture(
  readings: readonly BagReading[],
  events: readonly { readonly at: number; readonly label: string }[],
  { width, show }: { width: number; show: (pressure: number) => string },
): string | null {
  if (readings.length < 2) return null;
  const [first, last] = [readings[0]!.at, readings[readings.length - 1]!.at];
  const most = Math.max(...readings.map(({ pressure }) => pressure));
  const top = niceAbove(most);
  const x = (time: number) => LEFT + ((width - LEFT - 8) * (time - first)) / Math.max(1, last - first);
  const y = (pressure: number) => 8 + (HEIGHT - BOTTOM - 8) * (1 - pressure / top);
  const minutes = (last - first) / 60_000;
  const step = stepFor(minutes);
  const ticks = Array.from({ length: Math.floor(minutes / step) + 1 }, (_, n) => n * step);
  const line = readings
    .map(({ at: time, pressure }) => `${x(time).toFixed(1)},${y(pressure).toFixed(1)}`)
    .join(' ');
  const text = (px: number, py: number, words: string, anchor: 'start' | 'middle' | 'end') =>
    `<text x="${px.toFixed(1)}" y="${py.toFixed(1)}" font-size="7" text-anchor="${anchor}" fill="${INK}">${words}</text>`;
  const rules = [0, 0.5, 1].map(
    (share) =>
      `<line x1="${LEFT}" x2="${width - 8}" y1="${y(share * top).toFixed(1)}" y2="${y(share * top).toFixed(1)}" stroke="${RULE}" stroke-width="0.5"/>${text(LEFT - 4, y(share * top) + 2, escaped(show(share * top)), 'end')}`,
  );
  const marks = events
    .filter(({ at: time }) => time >= first && time <= last)
    .map(
      ({ at: time, label }) =>
        `<line x1="${x(time).toFixed(1)}" x2="${x(time).toFixed(1)}" y1="8" y2="${HEIGHT - BOTTOM}" stroke="${RESIN}" stroke-width="0.6"/>${text(x(time) + 2, 14, escaped(label), 'start')}`,
    );
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${HEIGHT}" viewBox="0 0 ${width} ${HEIGHT}">${rules.join('')}${marks.join('')}<polyline points="${line}" fill="none" stroke="${TIDE}" stroke-width="1.2"/>${ticks.map((minute) => text(x(first + 60_000 * minute), HEIGHT - 6, `${minute} min`, 'middle')).join('')}</svg>`;
}

const escaped = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');
const STEPS = [1, 2, 5, 10, 15, 30, 60, 120, 240, 480, 1440];
const stepFor = (minutes: number) => STEPS.find((step) => minutes / step <= 10) ?? Math.ceil(minutes / 10);
/** 1, 2 or 5 times a power of ten above a value. */
function niceAbove(value: number): number {
  const power = 10 ** Math.floor(Math.log10(Math.max(value, 1)));
  return [1, 2, 5, 10].find((by) => by * power >= value)! * power;
}
