/** Arrows point inward: checks the rules of who may import whom, and that the check itself saw the code. */
import { cruise, type ICruiseResult, type IForbiddenRuleType } from "dependency-cruiser";

/**
 * All folders of the core, the plainest first: each knows those before it, and none after it. Folders of a row know nothing
 * of each other.
 */
const CORE_ORDER: readonly (readonly string[])[] = [
  ["units", "space", "job", "schedule"],
  ["mesh", "materials/entries"],
  ["materials"],
  ["materials/touching"],
  ["mesh/io", "field", "shell/kinds", "parting/graph"],
  ["survey", "shell"],
  ["jacket", "display", "parting/lines"],
  ["parting/layout", "parting/search", "release"],
  ["walls"],
  ["flange"],
  ["patterns", "casting", "keys", "ribs"],
  ["foot"],
  ["solids"],
  ["export"],
  ["parting/seam", "plan/document"],
  ["takeoff"],
  ["plan/proof"],
  ["plan/stages"],
  ["plan/results"],
  ["plan/advice"],
  ["plan"],
  [""],
];

/** Files of one folder, without those of the folders in it. */
const inFolder = (folder: string) => `^core/${folder ? `${folder}/` : ""}[^/]+$`;

const forbidden: IForbiddenRuleType[] = [
  { name: "no-circles", severity: "error", from: {}, to: { circular: true } },
  {
    name: "core-is-pure",
    severity: "error",
    from: { path: "^core/", pathNot: "\\.test\\.ts$|^core/testing/" },
    to: { dependencyTypes: ["core"] },
  },
  {
    name: "core-knows-nobody",
    severity: "error",
    from: { path: "^core/" },
    to: { path: "^(contract|server|web|demo|scripts)/" },
  },
  {
    name: "core-without-hosts",
    severity: "error",
    from: { path: "^core/" },
    to: { path: "node_modules/(three|react|express|sequelize|zod|comlink)/" },
  },
  {
    name: "contract-over-core",
    severity: "error",
    from: { path: "^contract/" },
    to: { path: "^(server|web|demo|scripts)/" },
  },
  {
    name: "web-and-server-never-meet",
    severity: "error",
    from: { path: "^web/" },
    // The demo piece is made in the page for a shelf that is empty; the demo workshop is the server's.
    to: { path: "^(server|scripts)/|^demo/(?!pieces/)" },
  },
  { name: "server-and-web-never-meet", severity: "error", from: { path: "^server/" }, to: { path: "^(web|demo)/" } },
  {
    name: "stations-apart",
    severity: "error",
    from: { path: "^web/stations/([^/]+)/" },
    to: { path: "^web/stations/([^/]+)/", pathNot: "^web/stations/$1/" },
  },
  {
    name: "three-only-in-scene",
    severity: "error",
    from: { path: "^web/", pathNot: "^web/scene/" },
    to: { path: "node_modules/(@types/)?three/" },
  },
  // Inside the core, a folder knows neither later ones nor those beside it.
  ...CORE_ORDER.flatMap((row, k) =>
    row.map((folder): IForbiddenRuleType => {
      const others = [...row.filter((beside) => beside !== folder), ...CORE_ORDER.slice(k + 1).flat()];
      return {
        name: `core-${folder || "top"}-knows-no-later`,
        severity: "error",
        from: { path: inFolder(folder), pathNot: "\\.test\\.ts$" },
        to: { path: others.map(inFolder).join("|") || "^$" },
      };
    }),
  ),
];

const { output } = await cruise(
  ["core", "contract", "server", "web", "demo"],
  {
    ruleSet: { forbidden },
    validate: true,
    tsPreCompilationDeps: true,
    doNotFollow: { path: "node_modules" },
    enhancedResolveOptions: { extensions: [".ts", ".tsx", ".js", ".json"] },
  },
  { extensions: [".ts", ".tsx", ".js"] } as never,
);
const { summary, modules } = output as ICruiseResult;
const imports = summary.totalDependenciesCruised ?? 0;
const own = modules.filter((module) => /^(core|contract|server|web|demo)\//.test(module.source)).length;
if (own < 80 || imports < 200) {
  process.stderr.write(
    `The dependency check saw only ${own} modules and ${imports} imports: it is not looking at the code.\n`,
  );
  process.exit(1);
}
const known = new Set(CORE_ORDER.flat());
const unknown = modules
  .map(({ source }) => /^core\/(?:(.*)\/)?[^/]+$/.exec(source)?.[1])
  .filter((folder): folder is string => folder !== undefined && folder !== "testing" && !known.has(folder));
if (unknown.length > 0) {
  process.stderr.write(
    `The dependency check does not know these folders of the core: ${[...new Set(unknown)].join(", ")}.\n`,
  );
  process.exit(1);
}
for (const violation of summary.violations)
  process.stderr.write(`${violation.rule.name}: ${violation.from} -> ${violation.to}\n`);
process.stdout.write(`${own} modules, ${imports} imports, ${summary.violations.length} against the rules.\n`);
process.exit(summary.violations.length > 0 ? 1 : 0);
