/** What a shim is cut to: the base of the tailstock, as its machine card gives it. All mm, from the front left corner. */
export interface ShimOutline {
  readonly length: number;
  readonly width: number;
  /** Clamp bolts that pass through. */
  readonly bolts: readonly { readonly x: number; readonly y: number; readonly diameter: number }[];
  /** A lever or handle that needs room: a notch from the front edge. */
  readonly handle?: { readonly x: number; readonly width: number; readonly depth: number };
}

export interface Template {
  /** Corners of the outline, closed, mm. */
  readonly outline: readonly (readonly [number, number])[];
  readonly holes: readonly { readonly x: number; readonly y: number; readonly radius: number }[];
}

/** Room left round a bolt, mm on diameter, and how far the edge stays inside the casting, mm. */
export const BOLT_CLEARANCE = 2;
export const EDGE_CLEARANCE = 1;

/**
 * The shape of a shim: the base less an edge clearance, holes with clearance round the bolts and a
 * notch for the handle.
 *
 * @throws RangeError when a bolt or the handle does not lie within the base.
 */
export function shimTemplate({ length, width, bolts, handle }: ShimOutline): Template {
  if (!(length > 2 * EDGE_CLEARANCE) || !(width > 2 * EDGE_CLEARANCE)) throw new RangeError('the base needs a length and a width');
  const holes = bolts.map(({ x, y, diameter }) => ({ x, y, radius: (diameter + BOLT_CLEARANCE) / 2 }));
  for (const { x, y, radius } of holes) {
    const inside =
      x - radius >= EDGE_CLEARANCE &&
      y - radius >= EDGE_CLEARANCE &&
      x + radius <= length - EDGE_CLEARANCE &&
      y + radius <= width - EDGE_CLEARANCE;
    if (!inside) throw new RangeError(`the bolt at ${x}, ${y} mm does not lie within the base of ${length} × ${width} mm`);
  }
  const [left, right, front, rear] = [EDGE_CLEARANCE, length - EDGE_CLEARANCE, EDGE_CLEARANCE, width - EDGE_CLEARANCE];
  const outline: [number, number][] = [[left, front]];
  if (handle) {
    const [from, to] = [handle.x - handle.width / 2, handle.x + handle.width / 2];
    if (from <= left || to >= right || handle.depth <= 0 || front + handle.depth >= rear)
      throw new RangeError('the handle does not lie within the base');
    outline.push([from, front], [from, front + handle.depth], [to, front + handle.depth], [to, front]);
  }
  outline.push([right, front], [right, rear], [left, rear]);
  return { outline, holes };
}

const number = (value: number): string => String(Math.round(value * 1e4) / 1e4);

/** The template as an SVG drawing at 1:1: one user unit is one millimetre. */
export function templateSvg(template: Template, title: string): string {
  const width = Math.max(...template.outline.map(([x]) => x)) + EDGE_CLEARANCE;
  const height = Math.max(...template.outline.map(([, y]) => y)) + EDGE_CLEARANCE;
  const points = template.outline.map(([x, y]) => `${number(x)},${number(height - y)}`).join(' ');
  const circles = template.holes
    .map(({ x, y, radius }) => `<circle cx="${number(x)}" cy="${number(height - y)}" r="${number(radius)}"/>`)
    .join('');
  const safe = title.replace(/[<>&"]/g, (sign) => `&#${sign.charCodeAt(0)};`);
  return `<?xml version="1.0" encoding="UTF-8"?>\n<svg xmlns="http://www.w3.org/2000/svg" width="${number(width)}mm" height="${number(height)}mm" viewBox="0 0 ${number(width)} ${number(height)}"><title>${safe}</title><g fill="none" stroke="#000" stroke-width="0.2"><polygon points="${points}"/>${circles}</g></svg>\n`;
}

/** The template as a DXF drawing (release 12) in millimetres at 1:1, as lines and circles on layer SHIM. */
export function templateDxf(template: Template): string {
  const lines: (string | number)[] = [
    0,
    'SECTION',
    2,
    'HEADER',
    9,
    '$ACADVER',
    1,
    'AC1009',
    9,
    '$INSUNITS',
    70,
    4,
    0,
    'ENDSEC',
    0,
    'SECTION',
    2,
    'ENTITIES',
  ];
  template.outline.forEach(([x, y], i) => {
    const [x2, y2] = template.outline[(i + 1) % template.outline.length];
    lines.push(0, 'LINE', 8, 'SHIM', 10, number(x), 20, number(y), 30, 0, 11, number(x2), 21, number(y2), 31, 0);
  });
  for (const { x, y, radius } of template.holes)
    lines.push(0, 'CIRCLE', 8, 'SHIM', 10, number(x), 20, number(y), 30, 0, 40, number(radius));
  lines.push(0, 'ENDSEC', 0, 'EOF');
  return `${lines.join('\n')}\n`;
}
