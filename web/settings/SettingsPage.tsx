import { zodResolver } from "@hookform/resolvers/zod";
import { useEffect } from "react";
import { useForm } from "react-hook-form";
import { Link } from "react-router";
import { useSaveSettings, useSession } from "../lib/queries.ts";
import { MONEY, settingsForm, shown } from "./settingsForm.ts";

const PLAIN = [
  ["coatMinPerM2", "Brushing one coat", "min/m²"],
  ["layerMinPerM2", "Laying one layer of shell", "min/m²"],
  ["wallMinPerM", "Building a metre of parting wall", "min/m"],
  ["sectionSetupMin", "Setting up one more section", "min"],
  ["finishMinPerM", "Finishing a metre of seam, every cast", "min/m"],
  ["liftMin", "Lifting the piece in its mould, all hands", "min"],
  ["cutOffMin", "Cutting a limb off and dressing its joint", "min"],
  ["fillMinPerL", "Laying a litre of clay or plugs as fill", "min"],
  ["keepClearWeight", "Line through a zone to keep clear counts", "times"],
] as const;
export function SettingsPage() {
  const { data } = useSession();
  const save = useSaveSettings();
  const { register, handleSubmit, reset, formState } = useForm({ resolver: zodResolver(settingsForm) });
  useEffect(() => {
    if (data) reset(shown(data.settings));
  }, [data, reset]);
  const submit = handleSubmit((read) => save.mutate(read));
  if (!data) return <p className="p-8">Fetching the settings…</p>;
  const errors = formState.errors;
  return (
    <main className="min-h-full bg-base-200">
      <form className="mx-auto max-w-2xl px-8 py-8" onSubmit={submit}>
        <header className="mb-6 flex items-end justify-between">
          <div>
            <Link to="/" className="font-stencil text-xl tracking-wide">
              RIMEFELL
            </Link>
            <h1 className="text-2xl font-semibold">Settings</h1>
          </div>
          <Link to="/" className="btn btn-ghost">
            Back to the shelf
          </Link>
        </header>
        <Group title="You and the page">
          <Row label="Your name" problem={errors.memberName?.message}>
            <input className="input w-64" {...register("memberName")} />
          </Row>
          <Row label="Units">
            <select className="select w-64" {...register("units")}>
              <option value="metric">Metric</option>
              <option value="imperial">Imperial</option>
              <option value="both">Both</option>
            </select>
          </Row>
          <Row label="Page">
            <select className="select w-64" {...register("theme")}>
              <option value="day">Light, plaster</option>
              <option value="night">Dark, slate</option>
            </select>
          </Row>
          <Row label="Plans are worked out">
            <select className="select w-64" {...register("fineness")}>
              <option value="quick">Quickly, for a slow machine</option>
              <option value="usual">As usual</option>
              <option value="fine">Finely, for one that can wait</option>
            </select>
          </Row>
        </Group>
        <Group
          title="What things cost in this workshop"
          note="For everybody in the workshop. Typical figures to start from; put in your own. They decide how many sections pay and what the tally says."
        >
          <Row label="Currency mark" problem={errors.rates?.currency?.message}>
            <input className="input w-24" {...register("rates.currency")} />
          </Row>
          {MONEY.map(([key, label]) => (
            <Row key={key} label={label} problem={errors.rates?.[key]?.message}>
              <input
                type="number"
                step="0.01"
                min="0"
                className="input w-36 text-right"
                {...register(`rates.${key}`, { valueAsNumber: true })}
              />
            </Row>
          ))}
          {PLAIN.map(([key, label, unit]) => (
            <Row key={key} label={label} problem={errors.rates?.[key]?.message}>
              <label className="input w-36">
                <input
                  type="number"
                  step="1"
                  min="0"
                  className="text-right"
                  {...register(`rates.${key}`, { valueAsNumber: true })}
                />
                <span className="quiet text-xs">{unit}</span>
              </label>
            </Row>
          ))}
        </Group>
        <div className="mt-6 flex items-center justify-end gap-4">
          <span role="status" className="quiet">
            {save.isPending ? "Saving…" : save.isSuccess && !formState.isDirty ? "Saved" : ""}
          </span>
          {save.error && <span className="text-error">{save.error.message}</span>}
          <button type="submit" className="btn btn-primary">
            Save
          </button>
        </div>
      </form>
    </main>
  );
}

function Group({ title, note, children }: { title: string; note?: string; children: React.ReactNode }) {
  return (
    <section className="mb-4 bg-base-100 px-6 py-4">
      <h2 className="mb-2 font-semibold">{title}</h2>
      {note && <p className="quiet mb-2 text-sm">{note}</p>}
      {children}
    </section>
  );
}

function Row({ label, problem, children }: { label: string; problem?: string; children: React.ReactNode }) {
  return (
    <div className="border-t border-base-300 py-2 first-of-type:border-t-0">
      {/* biome-ignore lint/a11y/noLabelWithoutControl: the control is the child. */}
      <label className="flex items-center justify-between gap-4">
        <span>{label}</span>
        {children}
      </label>
      {problem && <p className="text-right text-sm text-error">{problem}</p>}
    </div>
  );
}
