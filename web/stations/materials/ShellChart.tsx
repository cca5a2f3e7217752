/** What every shell costs on this piece: materials and hands, stacked. */
import { BarElement, CategoryScale, Chart, LinearScale, Tooltip } from "chart.js";
import { useContext } from "react";
import { Bar } from "react-chartjs-2";
import type { ComparedShell } from "../../../core/takeoff/compareShells.ts";
import { SettingsContext, useShow } from "../../lib/show.ts";
import { messages } from "./messages.ts";

Chart.register(BarElement, CategoryScale, LinearScale, Tooltip);
Chart.defaults.font.family = getComputedStyle(document.documentElement).fontFamily;

const t = messages.compare;
const COLOURS = {
  materials: { day: "#3f6f8f", night: "#7fb0cf" },
  hands: { day: "#c08a3e", night: "#e0b36a" },
} as const;

export default function ShellChart({ shells }: { shells: readonly ComparedShell[] }) {
  const show = useShow();
  const { theme } = useContext(SettingsContext);
  const shade = theme === "night" ? "night" : "day";
  const ink = theme === "night" ? "#d9d3c6" : "#55636b";
  const series = [
    { label: t.materials, of: ({ materialsMinor }: ComparedShell) => materialsMinor, colour: COLOURS.materials[shade] },
    { label: t.handsCost, of: ({ handsMinor }: ComparedShell) => handsMinor, colour: COLOURS.hands[shade] },
  ];
  return (
    <figure>
      <div className="h-56">
        <Bar
          role="img"
          aria-label={shells
            .map((shell) => `${shell.name}, ${show.money(shell.materialsMinor + shell.handsMinor)}`)
            .join("; ")}
          data={{
            labels: shells.map(({ name }) => name),
            datasets: series.map(({ label, of, colour }) => ({
              label,
              data: shells.map((shell) => of(shell) / 100),
              backgroundColor: colour,
              barPercentage: 0.7,
            })),
          }}
          options={{
            animation: false,
            indexAxis: "y",
            maintainAspectRatio: false,
            scales: {
              x: { stacked: true, ticks: { color: ink, maxTicksLimit: 6 } },
              y: { stacked: true, grid: { display: false }, ticks: { color: ink } },
            },
            plugins: {
              tooltip: {
                callbacks: {
                  label: (item) => `${item.dataset.label}: ${show.money(Math.round(Number(item.raw) * 100))}`,
                },
              },
            },
          }}
        />
      </div>
      <figcaption className="quiet flex gap-4 text-xs">
        {series.map(({ label, colour }) => (
          <span key={label} className="flex items-center gap-1">
            <span className="inline-block h-2.5 w-2.5" style={{ background: colour }} />
            {label}
          </span>
        ))}
      </figcaption>
    </figure>
  );
}
