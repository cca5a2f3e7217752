/** The tables as classes. Columns stand in `migrations/`; these only describe them to the code. */
import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from "sequelize";

// Sequelize writes into the definitions it is given: each column gets its own.
const id = () => ({ type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 });
const uuid = () => ({ type: DataTypes.UUID, allowNull: false });
const maybe = () => ({ type: DataTypes.UUID, allowNull: true });

export class Workshop extends Model<InferAttributes<Workshop>, InferCreationAttributes<Workshop>> {
  declare id: CreationOptional<string>;
  declare name: string;
}

export class Member extends Model<InferAttributes<Member>, InferCreationAttributes<Member>> {
  declare id: CreationOptional<string>;
  declare workshopId: string;
  declare name: string;
}

export class Blob extends Model<InferAttributes<Blob>, InferCreationAttributes<Blob>> {
  declare id: CreationOptional<string>;
  declare workshopId: string;
  declare sha256: string;
  declare bytes: number;
  declare chunks: number;
  declare createdAt: CreationOptional<Date>;
}

export class BlobChunk extends Model<InferAttributes<BlobChunk>, InferCreationAttributes<BlobChunk>> {
  declare blobId: string;
  declare workshopId: string;
  declare seq: number;
  declare data: Buffer;
}

export class ScanRow extends Model<InferAttributes<ScanRow>, InferCreationAttributes<ScanRow>> {
  declare id: CreationOptional<string>;
  declare workshopId: string;
  declare blobId: string;
  declare name: string;
}

export class PieceRow extends Model<InferAttributes<PieceRow>, InferCreationAttributes<PieceRow>> {
  declare id: CreationOptional<string>;
  declare workshopId: string;
  declare name: string;
  declare station: string;
  declare summary: string;
  declare away: boolean;
  declare createdAt: CreationOptional<Date>;
  declare updatedAt: CreationOptional<Date>;
}

/** What of a piece has its own scan and plan; most pieces have one. */
export class PartRow extends Model<InferAttributes<PartRow>, InferCreationAttributes<PartRow>> {
  declare id: CreationOptional<string>;
  declare pieceId: string;
  declare workshopId: string;
  declare scanId: string;
  declare name: string;
  declare position: number;
}

export class Cover extends Model<InferAttributes<Cover>, InferCreationAttributes<Cover>> {
  declare pieceId: string;
  declare workshopId: string;
  declare image: Buffer;
}

export class PlanRow extends Model<InferAttributes<PlanRow>, InferCreationAttributes<PlanRow>> {
  declare partId: string;
  declare workshopId: string;
  declare revision: number;
  declare document: object;
  declare updatedById: string | null;
  declare updatedAt: CreationOptional<Date>;
}

export class PlanRevision extends Model<InferAttributes<PlanRevision>, InferCreationAttributes<PlanRevision>> {
  declare partId: string;
  declare workshopId: string;
  declare revision: number;
  declare document: object;
  declare updatedById: string | null;
  declare createdAt: CreationOptional<Date>;
}

/** A plan as it stood on the day it was built from. Nothing changes it. */
export class BuildRow extends Model<InferAttributes<BuildRow>, InferCreationAttributes<BuildRow>> {
  declare id: CreationOptional<string>;
  declare partId: string;
  declare workshopId: string;
  declare name: string;
  declare revision: number;
  declare document: object;
  declare rates: object;
  declare figures: object;
  declare blobId: string | null;
  declare madeById: string | null;
  declare madeAt: CreationOptional<Date>;
}

export class Result extends Model<InferAttributes<Result>, InferCreationAttributes<Result>> {
  declare workshopId: string;
  declare resultKey: string;
  declare blobId: string;
  declare usedAt: CreationOptional<Date>;
}

export class SettingsRow extends Model<InferAttributes<SettingsRow>, InferCreationAttributes<SettingsRow>> {
  declare memberId: string;
  declare workshopId: string;
  declare document: object;
}

/** What a workshop shares: its rates. */
export class WorkshopSettingsRow extends Model<
  InferAttributes<WorkshopSettingsRow>,
  InferCreationAttributes<WorkshopSettingsRow>
> {
  declare workshopId: string;
  declare document: object;
}

/** A workshop's store. */
export class StoreRow extends Model<InferAttributes<StoreRow>, InferCreationAttributes<StoreRow>> {
  declare workshopId: string;
  declare revision: number;
  declare document: object;
  declare updatedAt: CreationOptional<Date>;
}

/** A data sheet or a photo that is kept with a material. */
export class SheetRow extends Model<InferAttributes<SheetRow>, InferCreationAttributes<SheetRow>> {
  declare id: CreationOptional<string>;
  declare workshopId: string;
  declare blobId: string;
  declare material: string;
  declare name: string;
  declare type: string;
  declare createdAt: CreationOptional<Date>;
}

export function initModels(sequelize: Sequelize): void {
  const table = (tableName: string, timestamps: boolean | { createdAt: boolean; updatedAt: boolean } = false) => ({
    sequelize,
    tableName,
    underscored: true,
    ...(typeof timestamps === "boolean" ? { timestamps } : { timestamps: true, ...timestamps }),
  });
  const text = (length: number) => ({ type: DataTypes.STRING(length), allowNull: false });
  const whole = () => ({ type: DataTypes.INTEGER, allowNull: false });
  const json = () => ({ type: DataTypes.JSON, allowNull: false });
  const time = () => ({ type: DataTypes.DATE(3), allowNull: false });
  Workshop.init({ id: id(), name: text(120) }, table("workshops"));
  Member.init({ id: id(), workshopId: uuid(), name: text(80) }, table("members"));
  Blob.init(
    {
      id: id(),
      workshopId: uuid(),
      sha256: text(64),
      bytes: { type: DataTypes.BIGINT, allowNull: false },
      chunks: whole(),
      createdAt: time(),
    },
    table("blobs", { createdAt: true, updatedAt: false }),
  );
  BlobChunk.init(
    {
      blobId: { ...uuid(), primaryKey: true },
      seq: { ...whole(), primaryKey: true },
      workshopId: uuid(),
      data: { type: DataTypes.BLOB("long"), allowNull: false },
    },
    table("blob_chunks"),
  );
  ScanRow.init({ id: id(), workshopId: uuid(), blobId: uuid(), name: text(255) }, table("scans"));
  PieceRow.init(
    {
      id: id(),
      workshopId: uuid(),
      name: text(120),
      station: text(20),
      summary: text(200),
      away: { type: DataTypes.BOOLEAN, allowNull: false },
      createdAt: time(),
      updatedAt: time(),
    },
    table("pieces", true),
  );
  Cover.init(
    {
      pieceId: { ...uuid(), primaryKey: true },
      workshopId: uuid(),
      image: { type: DataTypes.BLOB("medium"), allowNull: false },
    },
    table("covers"),
  );
  PartRow.init(
    { id: id(), pieceId: uuid(), workshopId: uuid(), scanId: uuid(), name: text(120), position: whole() },
    table("parts"),
  );
  PlanRow.init(
    {
      partId: { ...uuid(), primaryKey: true },
      workshopId: uuid(),
      revision: whole(),
      document: json(),
      updatedById: maybe(),
      updatedAt: time(),
    },
    table("part_plans", { createdAt: false, updatedAt: true }),
  );
  PlanRevision.init(
    {
      partId: { ...uuid(), primaryKey: true },
      revision: { ...whole(), primaryKey: true },
      workshopId: uuid(),
      document: json(),
      updatedById: maybe(),
      createdAt: time(),
    },
    table("part_plan_revisions", { createdAt: true, updatedAt: false }),
  );
  BuildRow.init(
    {
      id: id(),
      partId: uuid(),
      workshopId: uuid(),
      name: text(120),
      revision: whole(),
      document: json(),
      rates: json(),
      figures: json(),
      blobId: maybe(),
      madeById: maybe(),
      madeAt: { ...time(), defaultValue: DataTypes.NOW },
    },
    table("builds"),
  );
  Result.init(
    {
      workshopId: { ...uuid(), primaryKey: true },
      resultKey: { ...text(64), primaryKey: true },
      blobId: uuid(),
      usedAt: { ...time(), defaultValue: DataTypes.NOW },
    },
    table("results"),
  );
  SettingsRow.init(
    { memberId: { ...uuid(), primaryKey: true }, workshopId: uuid(), document: json() },
    table("settings"),
  );
  WorkshopSettingsRow.init(
    { workshopId: { ...uuid(), primaryKey: true }, document: json() },
    table("workshop_settings"),
  );
  StoreRow.init(
    { workshopId: { ...uuid(), primaryKey: true }, revision: whole(), document: json(), updatedAt: time() },
    table("stores", { createdAt: false, updatedAt: true }),
  );
  SheetRow.init(
    {
      ...{ id: id(), workshopId: uuid(), blobId: uuid(), material: text(60), name: text(160), type: text(40) },
      createdAt: time(),
    },
    table("sheets", { createdAt: true, updatedAt: false }),
  );
}
