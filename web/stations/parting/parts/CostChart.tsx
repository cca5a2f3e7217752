import { BarElement, CategoryScale, Chart, LinearScale, Tooltip } from "chart.js";
import { useContext } from "react";
import { Bar } from "react-chartjs-2";
import { COST_PARTS } from "../../../../core/parting/search/price.ts";
import { SettingsContext, useShow } from "../../../lib/show.ts";
import type { ShownOffer } from "../../../workers/geometry.ts";
import { messages } from "../messages.ts";
import { PARTS } from "./costParts.ts";

Chart.register(BarElement, CategoryScale, LinearScale, Tooltip);
Chart.defaults.font.family = getComputedStyle(document.documentElement).fontFamily;

/** Thousands apart, as everywhere on the page. */
const grouped = (value: string | number) => String(value).replace(/\B(?=(\d{3})+$)/g, "\u2009");

/** Cost against number of sections, its parts stacked. */
export default function CostChart({ plans }: { plans: readonly ShownOffer[] }) {
  const show = useShow();
  const { theme } = useContext(SettingsContext);
  const shade = theme === "night" ? "night" : "day";
  const ink = theme === "night" ? "#d9d3c6" : "#55636b";
  const used = COST_PARTS.filter((part) => plans.some((plan) => plan.parts[part] > 0));
  return (
    <figure className="mt-3">
      <div className="h-44">
        <Bar
          aria-label={messages.costChart.costs(
            plans.map((plan) => messages.costChart.plan(plan.sections.length, show.money(plan.cost))).join("; "),
          )}
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
              y: { stacked: true, ticks: { color: ink, maxTicksLimit: 5, callback: grouped } },
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
