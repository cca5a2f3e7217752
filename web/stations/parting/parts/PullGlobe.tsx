import type { Leaving, PullRange } from "../../../../core/parting/search/pullRange.ts";
import { bearingAndElevation, type Direction, onGlobe, sameDirection } from "../../../../core/space/directions.ts";
import { messages } from "../messages.ts";

const SIZE = 220;
const RADIUS = 100;

/** Told apart by shape and by shade, not by colour alone. */
const MARKS: Record<Leaving, { name: string; className: string; radius: number }> = {
  free: { name: "free", className: "fill-success stroke-success", radius: 7 },
  fill: { name: messages.pullGlobe.withAFill, className: "fill-transparent stroke-success", radius: 5 },
  locked: { name: "locked", className: "fill-transparent stroke-base-content/40", radius: 1.5 },
};

/** A small globe seen along a section's pull: where on it the section leaves free, with a fill, or not at all. */
export function PullGlobe({
  range,
  pull,
  onPull,
}: {
  range: PullRange;
  pull: Direction;
  onPull: (pull: Direction) => void;
}) {
  const free = range.directions.filter(({ leaving }) => leaving === "free").length;
  return (
    <figure>
      <svg
        viewBox={`${-SIZE / 2} ${-SIZE / 2} ${SIZE} ${SIZE}`}
        className="mx-auto w-56"
        role="img"
        aria-label={messages.pullGlobe.title(free, range.directions.length)}
      >
        <circle r={RADIUS} className="fill-base-200 stroke-base-300" />
        {range.directions.map(({ pull: direction, leaving }) => {
          const place = onGlobe(direction, pull);
          if (!place) return null;
          const { name, className, radius } = MARKS[leaving];
          const { bearingDeg, elevationDeg } = bearingAndElevation(direction);
          return (
            // biome-ignore lint/a11y/noStaticElementInteractions: the fields above set any pull by keyboard.
            <circle
              key={direction.join()}
              cx={RADIUS * place.x}
              cy={-RADIUS * place.y}
              r={radius}
              strokeWidth={1.5}
              className={`${className} cursor-pointer`}
              onClick={() => onPull(direction)}
            >
              <title>{messages.pullGlobe.pull(Math.round(bearingDeg), Math.round(elevationDeg), name)}</title>
            </circle>
          );
        })}
        <Mark at={pull} about={pull} />
        {!sameDirection(range.best, pull) && <Mark at={range.best} about={pull} best />}
      </svg>
      <figcaption className="quiet flex justify-center gap-4 text-xs">
        {(Object.keys(MARKS) as Leaving[]).map((leaving) => (
          <span key={leaving} className="flex items-center gap-1">
            <svg viewBox="-8 -8 16 16" className="h-4 w-4" aria-hidden="true">
              <circle r={MARKS[leaving].radius} strokeWidth={1.5} className={MARKS[leaving].className} />
            </svg>
            {MARKS[leaving].name}
          </span>
        ))}
      </figcaption>
    </figure>
  );
}

/** A cross at the present pull, a star at the best. */
function Mark({ at, about, best = false }: { at: Direction; about: Direction; best?: boolean }) {
  const place = onGlobe(at, about);
  if (!place) return null;
  const path = best ? "M0-9 2-3 9-3 3.5 1.5 5.5 8.5 0 4.5-5.5 8.5-3.5 1.5-9-3-2-3Z" : "M-7 0H7M0-7V7";
  return (
    <path
      d={path}
      transform={`translate(${RADIUS * place.x} ${-RADIUS * place.y})`}
      className={best ? "fill-warning stroke-base-100" : "fill-none stroke-base-content"}
      strokeWidth={best ? 0.8 : 2.2}
    />
  );
}
