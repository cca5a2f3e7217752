/** React's hold on the stage: made once per place in the page, told what to show. */
import { createContext, type ReactNode, useContext, useEffect, useRef, useState } from "react";
import type { Direction } from "../../core/space/directions.ts";
import type { Brush, Dab, Phase, Xyz } from "./pointer.ts";
import { Stage } from "./Stage.ts";

type HandleListener = (id: string, direction: Direction, phase: "drag" | "end") => void;
type PickListener = (point: Xyz) => void;
type LineHandleListener = (id: string, point: Xyz | null, phase: Phase) => void;
type PaintListener = (dabs: readonly Dab[], phase: Phase, brush: Brush) => void;

export interface StageHold {
  readonly stage: Stage | null;
  /** Set by whichever station is open. */
  readonly listeners: {
    handle: HandleListener | null;
    pick: PickListener | null;
    lineHandle: LineHandleListener | null;
    paint: PaintListener | null;
  };
}

const nobody = (): StageHold["listeners"] => ({ handle: null, pick: null, lineHandle: null, paint: null });

const StageContext = createContext<StageHold>({ stage: null, listeners: nobody() });

export const useStage = () => useContext(StageContext);

export function StageProvider({
  children,
  night,
  overlay,
  middle = null,
}: {
  children: ReactNode;
  night: boolean;
  overlay: ReactNode;
  /** What has the middle of the page; the stage then stands small in its corner, till it is enlarged. */
  middle?: ReactNode;
}) {
  const [large, setLarge] = useState(false);
  const small = middle !== null && !large;
  // Whoever comes back finds the middle as it is meant to be.
  useEffect(() => {
    if (middle === null) setLarge(false);
  }, [middle]);
  const host = useRef<HTMLDivElement>(null);
  const listeners = useRef<StageHold["listeners"]>(nobody());
  const [hold, setHold] = useState<StageHold>({ stage: null, listeners: listeners.current });
  const [missing, setMissing] = useState(false);
  useEffect(() => {
    const place = host.current;
    if (!place) return;
    let stage: Stage | null = null;
    // Its size is told once the page is laid out: asked for before, the page would be laid out in one task with its making.
    const laidOut = new ResizeObserver(() => {
      laidOut.disconnect();
      try {
        stage = new Stage(place, {
          onHandle: (id, direction, phase) => listeners.current.handle?.(id, direction, phase),
          onPick: (point) => listeners.current.pick?.(point),
          onLineHandle: (id, point, phase) => listeners.current.lineHandle?.(id, point, phase),
          onPaint: (dabs, phase, brush) => listeners.current.paint?.(dabs, phase, brush),
          onMissing: () => {
            setMissing(true);
            // What needs the stage is greyed out.
            setHold({ stage: null, listeners: listeners.current });
          },
        });
        setHold({ stage, listeners: listeners.current });
      } catch {
        setMissing(true);
      }
    });
    laidOut.observe(place);
    return () => {
      laidOut.disconnect();
      stage?.end();
    };
  }, []);
  useEffect(() => hold.stage?.setNight(night), [hold.stage, night]);
  return (
    <StageContext value={hold}>
      <div className="relative min-h-0 min-w-0 grow bg-base-200">
        {small && (
          <div className="absolute inset-0 overflow-y-auto bg-base-100" data-testid="middle">
            {middle}
          </div>
        )}
        <div
          className={
            small ? "absolute right-3 bottom-3 h-44 w-44 border border-base-300 bg-base-200 shadow" : "absolute inset-0"
          }
        >
          <div ref={host} data-testid="stage" className="stage absolute inset-0" />
          {middle !== null && (
            <button
              type="button"
              className="btn btn-xs absolute right-2 bottom-2 border-base-300 bg-base-100/90"
              onClick={() => setLarge(!large)}
            >
              {large ? "Back to the table" : "Enlarge"}
            </button>
          )}
        </div>
        {missing && (
          <p className="absolute inset-0 m-auto h-fit max-w-sm p-6">
            This browser shows no 3-D (WebGL is missing or switched off). The figures on the right and below still work.
          </p>
        )}
        {!small && overlay}
      </div>
      {children}
    </StageContext>
  );
}
