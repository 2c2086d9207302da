/** What the edges of a panel are called where it stands: a side of a cabinet has a top and a bottom. */
import { type Frame, scale, type Vec3 } from "../geometry";
import { PANEL_EDGES, type PanelEdge } from "../job";

export type StandingEdge = "front" | "back" | "left" | "right" | "top" | "bottom";

/** Which way each edge looks, in the panel's own axes. */
const OUTWARDS: Readonly<Record<PanelEdge, (frame: Frame) => Vec3>> = {
  front: ({ y }) => scale(y, -1),
  back: ({ y }) => y,
  left: ({ x }) => scale(x, -1),
  right: ({ x }) => x,
};

/** Nearer to an axis of its home than this, an edge looks that way: cos 45° with room for two edges that look alike. */
const CLEARLY = 0.75;

function wordOf([x, y, z]: Vec3): StandingEdge | null {
  if (Math.abs(z) > CLEARLY) return z > 0 ? "top" : "bottom";
  if (Math.abs(x) > CLEARLY) return x > 0 ? "right" : "left";
  if (Math.abs(y) > CLEARLY) return y > 0 ? "back" : "front";
  return null;
}

/**
 * The words for the four edges of a panel as it stands in its home (width to the right, depth to the back, height to the top); null
 * where one of them looks no way clearly, so that its own names have to do.
 */
export function standingEdges(frame: Frame): Readonly<Record<PanelEdge, StandingEdge>> | null {
  const words = PANEL_EDGES.map((edge) => [edge, wordOf(OUTWARDS[edge](frame))] as const);
  if (words.some(([, word]) => word === null)) return null;
  return Object.fromEntries(words) as Record<PanelEdge, StandingEdge>;
}
