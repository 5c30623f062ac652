const styles = [
  'fill',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'stroke-linecap',
  'stroke-linejoin',
  'opacity',
  'font-family',
  'font-size',
  'font-weight',
  'font-stretch',
  'font-variant-numeric',
  'text-anchor',
] as const;

const xmlns = 'http://www.w3.org/2000/svg';

/** A drawing as the text of an SVG file of its own: what it takes from the page's styles is written into it. */
export function svgText(drawing: SVGSVGElement): string {
  const copy = drawing.cloneNode(true) as SVGSVGElement;
  const [from, to] = [drawing.querySelectorAll('*'), copy.querySelectorAll('*')];
  from.forEach((element, i) => {
    const computed = getComputedStyle(element);
    const own = to[i]!;
    own.setAttribute(
      'style',
      styles
        .map((name) => [name, computed.getPropertyValue(name)] as const)
        .filter(([, value]) => value !== '')
        .map(([name, value]) => `${name}:${value}`)
        .join(';'),
    );
    for (const name of ['class', 'tabindex', 'data-testid']) own.removeAttribute(name);
  });
  copy.removeAttribute('class');
  copy.setAttribute('xmlns', xmlns);
  return `<?xml version="1.0" encoding="UTF-8"?>\n${new XMLSerializer().serializeToString(copy)}\n`;
}

/** A drawing as PNG, twice as fine as on screen. */
export async function pngOf(drawing: SVGSVGElement): Promise<Blob> {
  const fine = 2;
  const address = URL.createObjectURL(new Blob([svgText(drawing)], { type: 'image/svg+xml' }));
  try {
    const picture = new Image();
    picture.src = address;
    await picture.decode();
    const canvas = document.createElement('canvas');
    canvas.width = drawing.width.baseVal.value * fine;
    canvas.height = drawing.height.baseVal.value * fine;
    canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height);
    return await new Promise((resolve, reject) =>
      canvas.toBlob(
        (blob) => (blob ? resolve(blob) : reject(new Error('The picture could not be drawn.'))),
        'image/png',
      ),
    );
  } finally {
    URL.revokeObjectURL(address);
  }
}

/** Gives a file to the browser to keep. */
export function download(content: Blob, name: string) {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(content);
  link.download = name;
  link.click();
  // the browser needs a moment to begin with it
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
