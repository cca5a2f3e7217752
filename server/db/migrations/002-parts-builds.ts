import { randomUUID } from "node:crypto";
import { DataTypes, type QueryInterface, QueryTypes } from "sequelize";

/**
 * Pieces have parts, each with its scan and its plan; plans know their member; rates belong to the workshop; plans are
 * frozen as builds; uploads and results know their times, so that abandoned and unused ones can be cleared.
 */
export const name = "002-parts-builds";

const uuid = { type: DataTypes.UUID, allowNull: false };
const to = (model: string, column = "id") => ({ ...uuid, references: { model, key: column }, onDelete: "CASCADE" });
const key = { ...uuid, primaryKey: true };
const workshop = to("workshops");
const member = {
  type: DataTypes.UUID,
  allowNull: true,
  references: { model: "members", key: "id" },
  onDelete: "SET NULL",
};
const text = (length: number) => ({ type: DataTypes.STRING(length), allowNull: false });
const whole = { type: DataTypes.INTEGER, allowNull: false };
const json = { type: DataTypes.JSON, allowNull: false };
const time = { type: DataTypes.DATE(3), allowNull: false };
const options = { engine: "InnoDB", charset: "utf8mb4", collate: "utf8mb4_unicode_ci" };

interface Row {
  readonly [column: string]: unknown;
}

/**
 * The database commits at every change of a table: a start that is killed half way goes on at the next. So every step can
 * be taken again, and what is replaced is dropped last.
 */
export async function up(q: QueryInterface): Promise<void> {
  await createTables(q);
  await carryPlans(q);
  await carrySettings(q);
  const column = "DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3)";
  await q.sequelize.query(`ALTER TABLE blobs ADD COLUMN IF NOT EXISTS created_at ${column}`);
  await q.sequelize.query(`ALTER TABLE results ADD COLUMN IF NOT EXISTS used_at ${column}`);
  await q.sequelize.query(
    "ALTER TABLE results ADD INDEX IF NOT EXISTS results_workshop_id_used_at (workshop_id, used_at)",
  );
  await q.dropTable("plan_revisions");
  await q.dropTable("plans");
  const names = await rows(
    q,
    "SELECT CONSTRAINT_NAME AS name FROM information_schema.KEY_COLUMN_USAGE WHERE TABLE_SCHEMA = DATABASE() AND TABLE_NAME = 'pieces' AND COLUMN_NAME = 'scan_id' AND REFERENCED_TABLE_NAME IS NOT NULL",
  );
  for (const { name: constraint } of names)
    await q.sequelize.query(`ALTER TABLE pieces DROP FOREIGN KEY IF EXISTS \`${constraint}\``);
  await q.sequelize.query("ALTER TABLE pieces DROP COLUMN IF EXISTS scan_id");
}

async function createTables(q: QueryInterface): Promise<void> {
  await q.createTable(
    "parts",
    { id: key, piece_id: to("pieces"), workshop_id: workshop, scan_id: to("scans"), name: text(120), position: whole },
    options,
  );
  await q.createTable(
    "part_plans",
    {
      part_id: { ...to("parts"), primaryKey: true },
      ...{ workshop_id: workshop, revision: whole, document: json, updated_by_id: member, updated_at: time },
    },
    options,
  );
  await q.createTable(
    "part_plan_revisions",
    {
      part_id: { ...to("parts"), primaryKey: true },
      revision: { ...whole, primaryKey: true },
      ...{ workshop_id: workshop, document: json, updated_by_id: member, created_at: time },
    },
    options,
  );
  await q.createTable("workshop_settings", { workshop_id: { ...workshop, primaryKey: true }, document: json }, options);
  const blob = {
    type: DataTypes.UUID,
    allowNull: true,
    references: { model: "blobs", key: "id" },
    onDelete: "SET NULL",
  };
  await q.createTable(
    "builds",
    {
      ...{ id: key, part_id: to("parts"), workshop_id: workshop, name: text(120), revision: whole },
      ...{ document: json, rates: json, figures: json, blob_id: blob, made_by_id: member, made_at: time },
    },
    options,
  );
}

const rows = (q: QueryInterface, sql: string) => q.sequelize.query<Row>(sql, { type: QueryTypes.SELECT });

async function insert(q: QueryInterface, table: string, values: object[]): Promise<void> {
  if (values.length > 0) await q.bulkInsert(table, values, { ignoreDuplicates: true } as never);
}

async function hasColumn(q: QueryInterface, table: string, column: string): Promise<boolean> {
  const sql = `SELECT COLUMN_NAME FROM information_schema.COLUMNS WHERE TABLE_SCHEMA = DATABASE() AND TABLE_NAME = '${table}' AND COLUMN_NAME = '${column}'`;
  return (await rows(q, sql)).length > 0;
}

/** Every piece gets one part with its scan; its plan and revisions go with that. */
async function carryPlans(q: QueryInterface): Promise<void> {
  if (!(await hasColumn(q, "pieces", "scan_id")) || !(await hasColumn(q, "plans", "piece_id"))) return;
  const without = await rows(
    q,
    "SELECT id, workshop_id, scan_id FROM pieces WHERE id NOT IN (SELECT piece_id FROM parts)",
  );
  await insert(
    q,
    "parts",
    without.map(({ id, workshop_id, scan_id }) => ({
      ...{ id: randomUUID(), piece_id: id, workshop_id, scan_id, name: "Whole", position: 0 },
    })),
  );
  const members = await rows(q, "SELECT id, workshop_id, name FROM members ORDER BY id");
  const memberNamed = (workshopId: unknown, called: unknown) => {
    const those = members.filter(({ workshop_id }) => workshop_id === workshopId);
    return (those.find((one) => one.name === called) ?? those[0])?.id ?? null;
  };
  // Revisions may be many, and large: a piece at a time.
  for (const { id: partId, piece_id } of await rows(q, "SELECT id, piece_id FROM parts")) {
    const carried = ({ workshop_id, revision, document, updated_by }: Row) => ({
      ...{ part_id: partId, workshop_id, revision, document: asText(document) },
      updated_by_id: memberNamed(workshop_id, updated_by),
    });
    const of = `WHERE piece_id = ${q.sequelize.escape(String(piece_id))}`;
    const plans = await rows(q, `SELECT * FROM plans ${of}`);
    await insert(
      q,
      "part_plans",
      plans.map((row) => ({ ...carried(row), updated_at: row.updated_at })),
    );
    const revisions = await rows(q, `SELECT * FROM plan_revisions ${of}`);
    await insert(
      q,
      "part_plan_revisions",
      revisions.map((row) => ({ ...carried(row), created_at: row.created_at })),
    );
  }
}

/** The rates a workshop goes by are those of its first member who set any; the rest stays the member's. */
async function carrySettings(q: QueryInterface): Promise<void> {
  const settings = await rows(q, "SELECT member_id, workshop_id, document FROM settings ORDER BY member_id");
  const first = new Map<unknown, string>();
  for (const { workshop_id, document } of settings) {
    const { rates } = asObject(document);
    if (rates && !first.has(workshop_id)) first.set(workshop_id, JSON.stringify({ rates }));
  }
  await insert(
    q,
    "workshop_settings",
    [...first].map(([workshop_id, document]) => ({ workshop_id, document })),
  );
  for (const { member_id, document } of settings) {
    const { rates: _rates, ...own } = asObject(document);
    await q.bulkUpdate("settings", { document: JSON.stringify(own) }, { member_id });
  }
}

/** JSON columns come back as text from some servers. */
function asText(document: unknown): string {
  return typeof document === "string" ? document : JSON.stringify(document);
}

function asObject(document: unknown): Record<string, unknown> {
  return JSON.parse(asText(document)) as Record<string, unknown>;
}

export async function down(): Promise<void> {
  throw new Error("Parts and builds cannot be taken out again; restore a dump made before.");
}
