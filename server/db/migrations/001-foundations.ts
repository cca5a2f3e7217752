import { DataTypes, type QueryInterface } from "sequelize";

/** Workshops, members, content-addressed blobs, scans, pieces, plans with revisions, results, settings. */
export const name = "001-foundations";

const uuid = { type: DataTypes.UUID, allowNull: false };
const key = { ...uuid, primaryKey: true };
const workshop = { ...uuid, references: { model: "workshops", key: "id" }, onDelete: "CASCADE" };
const to = (model: string, column = "id") => ({ ...uuid, references: { model, key: column }, onDelete: "CASCADE" });
const text = (length: number) => ({ type: DataTypes.STRING(length), allowNull: false });
const whole = { type: DataTypes.INTEGER, allowNull: false };
const json = { type: DataTypes.JSON, allowNull: false };
const time = { type: DataTypes.DATE(3), allowNull: false };
const options = { engine: "InnoDB", charset: "utf8mb4", collate: "utf8mb4_unicode_ci" };

export async function up(q: QueryInterface): Promise<void> {
  await q.createTable("workshops", { id: key, name: text(120) }, options);
  await q.createTable("members", { id: key, workshop_id: workshop, name: text(80) }, options);
  await q.createTable(
    "blobs",
    {
      id: key,
      workshop_id: workshop,
      sha256: text(64),
      bytes: { type: DataTypes.BIGINT, allowNull: false },
      chunks: whole,
    },
    options,
  );
  await q.addIndex("blobs", ["workshop_id", "sha256"], { unique: true });
  await q.createTable(
    "blob_chunks",
    {
      blob_id: { ...to("blobs"), primaryKey: true },
      seq: { ...whole, primaryKey: true },
      workshop_id: workshop,
      data: { type: DataTypes.BLOB("long"), allowNull: false },
    },
    options,
  );
  await q.createTable("scans", { id: key, workshop_id: workshop, blob_id: to("blobs"), name: text(255) }, options);
  await q.createTable(
    "pieces",
    {
      id: key,
      workshop_id: workshop,
      scan_id: to("scans"),
      name: text(120),
      station: text(20),
      summary: text(200),
      away: { type: DataTypes.BOOLEAN, allowNull: false },
      created_at: time,
      updated_at: time,
    },
    options,
  );
  await q.createTable(
    "covers",
    {
      piece_id: { ...to("pieces"), primaryKey: true },
      workshop_id: workshop,
      image: { type: DataTypes.BLOB("medium"), allowNull: false },
    },
    options,
  );
  await q.createTable(
    "plans",
    {
      piece_id: { ...to("pieces"), primaryKey: true },
      workshop_id: workshop,
      revision: whole,
      document: json,
      updated_by: text(80),
      updated_at: time,
    },
    options,
  );
  await q.createTable(
    "plan_revisions",
    {
      piece_id: { ...to("pieces"), primaryKey: true },
      revision: { ...whole, primaryKey: true },
      workshop_id: workshop,
      document: json,
      updated_by: text(80),
      created_at: time,
    },
    options,
  );
  await q.createTable(
    "results",
    {
      workshop_id: { ...workshop, primaryKey: true },
      result_key: { ...text(64), primaryKey: true },
      blob_id: to("blobs"),
    },
    options,
  );
  await q.createTable(
    "settings",
    { member_id: { ...to("members"), primaryKey: true }, workshop_id: workshop, document: json },
    options,
  );
}

export async function down(q: QueryInterface): Promise<void> {
  for (const table of [
    "settings",
    "results",
    "plan_revisions",
    "plans",
    "covers",
    "pieces",
    "scans",
    "blob_chunks",
    "blobs",
    "members",
    "workshops",
  ])
    await q.dropTable(table);
}
