import { DataTypes, type QueryInterface } from "sequelize";

/** Data sheets and photos are kept with the materials of a store. */
export const name = "004-sheets";

const OPTIONS = { engine: "InnoDB", charset: "utf8mb4", collate: "utf8mb4_unicode_ci" };
const uuid = { type: DataTypes.UUID, allowNull: false };
const to = (model: string) => ({ ...uuid, references: { model, key: "id" }, onDelete: "CASCADE" });
const text = (length: number) => ({ type: DataTypes.STRING(length), allowNull: false });

export async function up(q: QueryInterface): Promise<void> {
  await q.createTable(
    "sheets",
    {
      id: { ...uuid, primaryKey: true },
      workshop_id: to("workshops"),
      blob_id: to("blobs"),
      material: text(60),
      name: text(160),
      type: text(40),
      created_at: { type: DataTypes.DATE(3), allowNull: false },
    },
    OPTIONS,
  );
  await q.addIndex("sheets", ["workshop_id", "material"]);
}

export async function down(q: QueryInterface): Promise<void> {
  await q.dropTable("sheets");
}
