import { DataTypes, type QueryInterface } from "sequelize";

/** A workshop keeps a store: its lots, its own entries of the catalogue, and what it changed of the shipped ones. */
export const name = "003-store";

const OPTIONS = { engine: "InnoDB", charset: "utf8mb4", collate: "utf8mb4_unicode_ci" };

export async function up(q: QueryInterface): Promise<void> {
  await q.createTable(
    "stores",
    {
      workshop_id: {
        type: DataTypes.UUID,
        allowNull: false,
        primaryKey: true,
        references: { model: "workshops", key: "id" },
        onDelete: "CASCADE",
      },
      revision: { type: DataTypes.INTEGER, allowNull: false },
      document: { type: DataTypes.JSON, allowNull: false },
      updated_at: { type: DataTypes.DATE(3), allowNull: false },
    },
    OPTIONS,
  );
}

export async function down(q: QueryInterface): Promise<void> {
  await q.dropTable("stores");
}
