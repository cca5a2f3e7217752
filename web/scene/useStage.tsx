/** React's hold on the stage: made once per place in the page, told what to show. */
import { createContext, type ReactNode, useContext, useEffect, useMemo, useRef, useState } from "react";
import { StageListening } from "./listening.ts";
import { Stage } from "./Stage.ts";

export interface StageHold {
  readonly stage: Stage | null;
  /** Whoever wants to know what is done on the stage listens here, and stops when it goes. */
  readonly listen: StageListening["listen"];
}

const StageContext = createContext<StageHold>({ stage: null, listen: () => () => {} });

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
  /** What has the middle of the page; the stage then stands small in its corner, until it is enlarged. */
  middle?: ReactNode;
}) {
  const [large, setLarge] = useState(false);
  const small = middle !== null && !large;
  // Whoever comes back finds the middle as it is meant to be.
  useEffect(() => {
    if (middle === null) setLarge(false);
  }, [middle]);
  const host = useRef<HTMLDivElement>(null);
  const [listening] = useState(() => new StageListening());
  const [stage, setStage] = useState<Stage | null>(null);
  const hold = useMemo(
    (): StageHold => ({ stage, listen: (to, listener) => listening.listen(to, listener) }),
    [stage, listening],
  );
  const [missing, setMissing] = useState(false);
  useEffect(() => {
    const place = host.current;
    if (!place) return;
    let made: Stage | null = null;
    // Its size is told once the page is laid out: asked for before, the page would be laid out in one task with its making.
    const laidOut = new ResizeObserver(() => {
      laidOut.disconnect();
      try {
        made = new Stage(place, {
          onHandle: (...told) => listening.tell("onHandle", ...told),
          onPick: (...told) => listening.tell("onPick", ...told),
          onLineHandle: (...told) => listening.tell("onLineHandle", ...told),
          onPaint: (...told) => listening.tell("onPaint", ...told),
          onMissing: () => {
            setMissing(true);
            // What needs the stage is greyed out.
            setStage(null);
          },
        });
        setStage(made);
      } catch {
        setMissing(true);
      }
    });
    laidOut.observe(place);
    return () => {
      laidOut.disconnect();
      made?.end();
    };
  }, [listening]);
  useEffect(() => stage?.setNight(night), [stage, night]);
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
              {large ? "Back" : "Enlarge"}
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
