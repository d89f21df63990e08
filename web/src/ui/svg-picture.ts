/** Properties that a picture taken out of the page has to carry itself. */
const CARRIED = [
  'fill',
  'fill-opacity',
  'fill-rule',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'stroke-linecap',
  'stroke-opacity',
  'opacity',
  'font-family',
  'font-size',
  'font-weight',
  'text-anchor',
  'paint-order',
];

/** A drawing on the screen as one that stands on its own: styles written into it, on a paper ground. */
export function standaloneSvg(svg: SVGSVGElement): string {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const originals = [svg, ...svg.querySelectorAll('*')];
  const copies = [copy, ...copy.querySelectorAll('*')];
  originals.forEach((original, i) => {
    const style = getComputedStyle(original);
    const own = copies[i]!;
    for (const name of CARRIED) own.setAttribute(name, style.getPropertyValue(name));
    for (const name of ['class', 'style', 'tabindex', 'role', 'aria-label']) own.removeAttribute(name);
  });
  const { width, height } = svg.getBoundingClientRect();
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('width', `${width}`);
  copy.setAttribute('height', `${height}`);
  copy.setAttribute('viewBox', `0 0 ${width} ${height}`);
  const ground = document.createElementNS('http://www.w3.org/2000/svg', 'rect');
  ground.setAttribute('width', '100%');
  ground.setAttribute('height', '100%');
  ground.setAttribute('fill', '#f6f3ec');
  copy.prepend(ground);
  return new XMLSerializer().serializeToString(copy);
}

/** Twice as many pixels as on the screen, so that it prints. */
export async function standalonePng(svg: SVGSVGElement): Promise<Blob> {
  const { width, height } = svg.getBoundingClientRect();
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(standaloneSvg(svg))}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [2 * width, 2 * height];
  canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve, reject) =>
    canvas.toBlob(
      (blob) => (blob ? resolve(blob) : reject(new Error('The picture could not be drawn.'))),
      'image/png',
    ),
  );
}
