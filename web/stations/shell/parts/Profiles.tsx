import { PROFILE_PLANES, type ProfilePlane } from "../../../../core/patterns/profile.ts";
import { useShow } from "../../../lib/show.ts";
import { Choice, NumberField, Part } from "../../../ui/fields.tsx";
import { messages } from "../messages.ts";
import { type ShownProfile, useProfileChoice } from "../useProfile.ts";

const t = messages.profiles;

/** Just over the board: what is drawn there is what stands on it. */
const FOOT_SHARE = 0.005;

/** A plane through the shell: its profile is drawn on the board and shown on the stage. */
export function Profiles({ profile }: { profile: ShownProfile | null }) {
  const show = useShow();
  const { shown, plane, bearingDeg, leanDeg, share, set } = useProfileChoice();
  return (
    <Part title={t.title}>
      <p className="quiet text-sm">{t.what}</p>
      <label className="mt-1 flex items-center gap-2 text-sm">
        <input
          type="checkbox"
          className="checkbox checkbox-sm"
          checked={shown}
          onChange={(event) => set({ shown: event.target.checked })}
        />
        {t.show}
      </label>
      {shown && (
        <>
          <Choice<ProfilePlane>
            label={t.plane}
            value={plane}
            options={PROFILE_PLANES.map((value) => ({ value, name: t.planes[value] }))}
            onChange={(value) => set({ plane: value })}
          />
          {plane === "any" && (
            <>
              <NumberField
                label={t.bearing}
                unit="°"
                value={bearingDeg}
                least={-180}
                most={180}
                step={5}
                onChange={(value) => set({ bearingDeg: value })}
              />
              <NumberField
                label={t.lean}
                unit="°"
                value={leanDeg}
                least={-85}
                most={85}
                step={5}
                onChange={(value) => set({ leanDeg: value })}
              />
            </>
          )}
          <label className="mt-2 block text-sm">
            <span className="quiet">{t.where[plane](profile ? show.length(Math.round(profile.atMm)) : "")}</span>
            <input
              type="range"
              className="range range-sm w-full"
              min={0}
              max={1}
              step={0.005}
              value={share}
              onChange={(event) => set({ share: Number(event.target.value) })}
            />
          </label>
          <button type="button" className="btn btn-xs" onClick={() => set({ plane: "level", share: FOOT_SHARE })}>
            {t.footprint}
          </button>
          <p className="quiet mt-1 text-xs">{t.drag}</p>
          <p className="quiet mt-1 text-xs">{profile?.ofSolids ? t.ofSolids : t.ofJacket}</p>
        </>
      )}
    </Part>
  );
}
