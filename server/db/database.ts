import { Sequelize } from "sequelize";
import { SequelizeStorage, Umzug } from "umzug";
import * as foundations from "./migrations/001-foundations.ts";
import * as partsAndBuilds from "./migrations/002-parts-builds.ts";
import * as store from "./migrations/003-store.ts";
import * as sheets from "./migrations/004-sheets.ts";
import { initModels } from "./models.ts";

/** All migrations, oldest first. A landed one is never changed: the next is a new file and a new line. */
const migrations = [foundations, partsAndBuilds, store, sheets];

/** Opens the pool and describes the tables; touches no schema. */
export function openDatabase(url: string): Sequelize {
  const sequelize = new Sequelize(url.replace(/^mysql:/, "mariadb:"), {
    dialect: "mariadb",
    logging: false,
    pool: { max: 10, acquire: 20_000 },
    timezone: "+00:00",
    dialectOptions: { connectTimeout: 5000, allowPublicKeyRetrieval: true },
  });
  initModels(sequelize);
  return sequelize;
}

/** Brings the schema up to date. */
export async function migrate(sequelize: Sequelize): Promise<void> {
  const umzug = new Umzug({
    migrations: migrations.map(({ name, up, down }) => ({
      name,
      up: () => up(sequelize.getQueryInterface()),
      down: () => down(sequelize.getQueryInterface()),
    })),
    storage: new SequelizeStorage({ sequelize, tableName: "migrations" }),
    logger: undefined,
  });
  await umzug.up();
}
