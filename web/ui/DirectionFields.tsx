import { bearingAndElevation, type Direction, directionFrom } from "../../core/space/directions.ts";
import { NumberField } from "./fields.tsx";

/** A direction by its bearing and elevation. */
export function DirectionFields({
  direction,
  leastElevationDeg,
  onChange,
}: {
  direction: Direction;
  leastElevationDeg: number;
  onChange: (direction: Direction) => void;
}) {
  const { bearingDeg, elevationDeg } = bearingAndElevation(direction);
  return (
    <>
      <NumberField
        label="Bearing"
        hint="clockwise from the front"
        unit="°"
        value={Math.round(bearingDeg)}
        least={0}
        most={360}
        step={5}
        onChange={(value) => onChange(directionFrom(value, elevationDeg))}
      />
      <NumberField
        label="Elevation"
        unit="°"
        value={Math.round(elevationDeg)}
        least={leastElevationDeg}
        most={90}
        step={5}
        onChange={(value) => onChange(directionFrom(bearingDeg, value))}
      />
    </>
  );
}
