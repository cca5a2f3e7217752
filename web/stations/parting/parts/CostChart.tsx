import { BarElement, CategoryScale, Chart, LinearScale, Tooltip } from "chart.js";
import { useContext } from "react";
import { Bar } from "react-chartjs-2";
import { COST_PARTS, type CostPart } from "../../../../core/parting/price.ts";
import { SettingsContext, useShow } from "../../../lib/show.ts";
import type { ShownOffer } from "../../../workers/geometry.ts";

Chart.register(BarElement, CategoryScale, LinearScale, Tooltip);

/** What the parts of the cost are called, and their shades by day and night. */
export const PARTS: Readonly<
  Record<CostPart, { readonly name: string; readonly day: string; readonly night: string }>
> = {
  fill: { name: "fill", day: "#b3401f", night: "#e2794f" },
  wall: { name: "parting wall", day: "#1e4e8c", night: "#7fa8dc" },
  finishing: { name: "finishing seams", day: "#8fb0c4", night: "#bcd3e2" },
  zones: { name: "lines through zones", day: "#743655", night: "#c58aa6" },
  setup: { name: "setting up", day: "#6d6352", night: "#a8997f" },
  wait: { name: "waiting", day: "#c9bfa8", night: "#6f675a" },
  handling: { name: "handling", day: "#2f6b4f", night: "#74b594" },
};

/** Cost against number of sections, its parts stacked. */
export function CostChart({ plans }: { plans: readonly ShownOffer[] }) {
  const show = useShow();
  const { theme } = useContext(SettingsContext);
  const shade = theme === "night" ? "night" : "day";
  const ink = theme === "night" ? "#d9d3c6" : "#55636b";
  const used = COST_PARTS.filter((part) => plans.some((plan) => plan.parts[part] > 0));
  return (
    <figure className="mt-3">
      <div className="h-44">
        <Bar
          aria-label={`Cost of ${plans.map((plan) => `${plan.sections.length} sections: ${show.money(plan.cost)}`).join("; ")}`}
          role="img"
          data={{
            labels: plans.map((plan) => String(plan.sections.length)),
            datasets: used.map((part) => ({
              label: PARTS[part].name,
              data: plans.map((plan) => plan.parts[part] / 100),
              backgroundColor: PARTS[part][shade],
              barPercentage: 0.7,
            })),
          }}
          options={{
            animation: false,
            maintainAspectRatio: false,
            scales: {
              x: {
                stacked: true,
                grid: { display: false },
                ticks: { color: ink },
                title: { display: true, text: "sections", color: ink },
              },
              y: { stacked: true, ticks: { color: ink, maxTicksLimit: 5 } },
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
      <figcaption className="quiet flex flex-wrap gap-x-3 gap-y-0.5 text-xs">
        {used.map((part) => (
          <span key={part} className="flex items-center gap-1">
            <span className="inline-block h-2.5 w-2.5" style={{ background: PARTS[part][shade] }} />
            {PARTS[part].name}
          </span>
        ))}
      </figcaption>
    </figure>
  );
}
