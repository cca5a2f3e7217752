/** Makes the demo workshop where there is none yet, then serves. What makes it is only read in then: a second start is quick. */
import { readConfig } from "../server/config.ts";
import { migrate, openDatabase } from "../server/db/database.ts";
import { PieceRow } from "../server/db/models.ts";

const config = readConfig(process.env);
const sequelize = openDatabase(config.databaseUrl);
await migrate(sequelize);
if ((await PieceRow.count()) === 0) {
  process.stdout.write("Making the demo workshop; this takes about a minute the first time...\n");
  const { makeDemoWorkshop } = await import("./workshop.ts");
  await makeDemoWorkshop(sequelize, config.scanLimitBytes, (piece) => process.stdout.write(`  ${piece}\n`));
}
await sequelize.close();
await import("../server/main.ts");
