export type Spot = [x: number, y: number];

/** Corners of an outline at most; the server takes no more. */
export const cornersMost = 200;

/** A tap is a place about as large as a thumb. */
const tapRadius = 32;

/** A stroke that goes less far than this, millimetres, was a tap. */
const tapReach = 25;

/** Millimetres that a corner may be off. */
const tolerance = 5;

/** What a finger drew, as a closed outline of few corners: x, y, x, y. */
export function outlineOf(stroke: Spot[]): number[] {
  const [first] = stroke;
  if (!first) return [];
  const reach = Math.max(...stroke.map(([x, y]) => Math.hypot(x - first[0], y - first[1])));
  const spots = reach < tapReach ? circle(first) : few(stroke);
  return spots.flatMap(([x, y]) => [Math.round(x), Math.round(y)]);
}

function circle([x, y]: Spot): Spot[] {
  return Array.from({ length: 16 }, (_, i): Spot => {
    const angle = (2 * Math.PI * i) / 16;
    return [x + tapRadius * Math.cos(angle), y + tapRadius * Math.sin(angle)];
  });
}

function few(stroke: Spot[]): Spot[] {
  let allowed = tolerance;
  let spots = straightened(stroke, allowed);
  while (spots.length > cornersMost) {
    allowed *= 2;
    spots = straightened(stroke, allowed);
  }
  return spots.length < 3 || areaOf(spots) < leastArea ? fattened(stroke) : spots;
}

/** A stroke that runs round less than this, square millimetres, was a line. */
const leastArea = 800;

function areaOf(spots: Spot[]) {
  const twice = spots.reduce((sum, [x, y], i) => {
    const [nextX, nextY] = spots[(i + 1) % spots.length]!;
    return sum + x * nextY - nextX * y;
  }, 0);
  return Math.abs(twice / 2);
}

/** A stroke there and back is a line: it is as wide as a finger. */
function fattened(stroke: Spot[]): Spot[] {
  const [a, b] = [
    stroke[0]!,
    stroke.reduce((far, s) => (away(s, stroke[0]!) > away(far, stroke[0]!) ? s : far)),
  ];
  const long = away(a, b) || 1;
  const [nx, ny] = [((b[1] - a[1]) / long) * 12, (-(b[0] - a[0]) / long) * 12];
  return [
    [a[0] + nx, a[1] + ny],
    [b[0] + nx, b[1] + ny],
    [b[0] - nx, b[1] - ny],
    [a[0] - nx, a[1] - ny],
  ];
}

const away = (a: Spot, b: Spot) => Math.hypot(a[0] - b[0], a[1] - b[1]);

/** Ramer, Douglas and Peucker. */
function straightened(stroke: Spot[], allowed: number): Spot[] {
  if (stroke.length < 3) return stroke;
  const [from, to] = [stroke[0]!, stroke.at(-1)!];
  let [far, at] = [0, 0];
  stroke.forEach((spot, i) => {
    const off = offLine(spot, from, to);
    if (off > far) [far, at] = [off, i];
  });
  if (far <= allowed) return [from, to];
  return [
    ...straightened(stroke.slice(0, at + 1), allowed).slice(0, -1),
    ...straightened(stroke.slice(at), allowed),
  ];
}

function offLine(spot: Spot, from: Spot, to: Spot) {
  const long = away(from, to);
  if (long === 0) return away(spot, from);
  return Math.abs((to[0] - from[0]) * (from[1] - spot[1]) - (from[0] - spot[0]) * (to[1] - from[1])) / long;
}

/** As an SVG path. */
export const pathOf = (outline: number[]) => `M${outline.join(" ")}Z`;
