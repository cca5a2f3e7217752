import { useState } from "react";
import { Dialog } from "../../../ui/Dialog.tsx";
import { messages } from "../messages.ts";
import { CARD_MM } from "../trueSize.ts";

/** Once for every screen: a bank card says how many of its dots make a millimetre. */
export function Calibrate({
  pxPerMm,
  onDone,
  onClose,
}: {
  pxPerMm: number;
  onDone: (pxPerMm: number) => void;
  onClose: () => void;
}) {
  const [px, setPx] = useState(Math.round(pxPerMm * CARD_MM.width));
  const t = messages.calibrate;
  return (
    <Dialog title={t.title} wide onClose={onClose}>
      <p className="py-2">{t.hold}</p>
      <div
        className="rounded-lg border-2 border-accent"
        style={{ width: px, height: (px * CARD_MM.height) / CARD_MM.width }}
      />
      <label className="mt-3 block text-sm">
        {t.width}
        <input
          type="range"
          className="range range-sm w-full"
          min={160}
          max={700}
          value={px}
          onChange={(event) => setPx(Number(event.target.value))}
        />
      </label>
      <button type="button" className="btn btn-neutral btn-sm mt-3" onClick={() => onDone(px / CARD_MM.width)}>
        {t.done}
      </button>
    </Dialog>
  );
}
