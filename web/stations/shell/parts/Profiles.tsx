import { PROFILE_PLANES, type ProfilePlane } from "../../../../core/patterns/profile.ts";
import { useShow } from "../../../lib/show.ts";
import { Choice, Part } from "../../../ui/fields.tsx";
import { messages } from "../messages.ts";
import { type ShownProfile, useProfileChoice } from "../useProfile.ts";

const t = messages.profiles;

/** A plane through the shell: its profile is drawn on the board and shown on the stage. */
export function Profiles({ profile }: { profile: ShownProfile | null }) {
  const show = useShow();
  const { shown, plane, share, set } = useProfileChoice();
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
          <p className="quiet text-xs">{profile?.ofSolids ? t.ofSolids : t.ofJacket}</p>
        </>
      )}
    </Part>
  );
}
