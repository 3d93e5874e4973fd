import type { Kind } from '@yunta/core/rig/ids';
import { Column, Entity, Index, JoinColumn, ManyToOne, PrimaryColumn, type Relation } from 'typeorm';
import { RigEntity } from './rig.entity.js';

/** What every part's row has: whose rig, its id, the format it was written in, and the open-ended rest as JSON. */
abstract class PartRow {
  @PrimaryColumn({ type: 'varchar', length: 64 }) rig: string;
  @PrimaryColumn({ type: 'varchar', length: 80 }) id: string;
  @Column({ type: 'smallint', unsigned: true }) format: number;
  @Column({ type: 'json' }) rest: Record<string, unknown>;
}

const belongsToRig = { onDelete: 'RESTRICT' } as const;

@Entity('about')
export class AboutRow extends PartRow {
  @ManyToOne(() => RigEntity, belongsToRig) @JoinColumn({ name: 'rig' }) owner: Relation<RigEntity>;
  @Column({ type: 'varchar', length: 120 }) name: string;
}

@Entity('device')
export class DeviceRow extends PartRow {
  @ManyToOne(() => RigEntity, belongsToRig) @JoinColumn({ name: 'rig' }) owner: Relation<RigEntity>;
  @Column({ type: 'varchar', length: 4 }) code: string;
  @Column({ type: 'varchar', length: 120 }) name: string;
  @Column({ type: 'varchar', length: 16 }) zone: string;
}

@Entity('program')
@Index('program_place', ['rig', 'device', 'memory', 'number'])
export class ProgramRow extends PartRow {
  @Column({ type: 'varchar', length: 80 }) device: string;
  @ManyToOne(() => DeviceRow, belongsToRig)
  @JoinColumn([
    { name: 'rig', referencedColumnName: 'rig' },
    { name: 'device', referencedColumnName: 'id' },
  ])
  box: Relation<DeviceRow>;
  @Column({ type: 'varchar', length: 64 }) memory: string;
  @Column({ type: 'smallint', unsigned: true }) number: number;
  @Column({ type: 'varchar', length: 120 }) name: string;
}

@Entity('hookup')
export class HookupRow extends PartRow {
  @ManyToOne(() => RigEntity, belongsToRig) @JoinColumn({ name: 'rig' }) owner: Relation<RigEntity>;
  @Column({ type: 'varchar', length: 120 }) name: string;
}

@Entity('cable')
export class CableRow extends PartRow {
  @Column({ type: 'varchar', length: 80 }) hookup: string;
  @ManyToOne(() => HookupRow, belongsToRig)
  @JoinColumn([
    { name: 'rig', referencedColumnName: 'rig' },
    { name: 'hookup', referencedColumnName: 'id' },
  ])
  wiring: Relation<HookupRow>;
}

@Entity('sound')
export class SoundRow extends PartRow {
  @ManyToOne(() => RigEntity, belongsToRig) @JoinColumn({ name: 'rig' }) owner: Relation<RigEntity>;
  @Column({ type: 'varchar', length: 120 }) name: string;
  @Column({ type: 'varchar', length: 16 }) role: string;
  /** Place in the sheet. */
  @Column({ type: 'double' }) at: number;
}

@Entity('move')
export class MoveRow extends PartRow {
  @ManyToOne(() => RigEntity, belongsToRig) @JoinColumn({ name: 'rig' }) owner: Relation<RigEntity>;
  @Column({ type: 'varchar', length: 120 }) name: string;
}

@Entity('song')
export class SongRow extends PartRow {
  @ManyToOne(() => RigEntity, belongsToRig) @JoinColumn({ name: 'rig' }) owner: Relation<RigEntity>;
  @Column({ type: 'varchar', length: 120 }) title: string;
  @Column({ type: 'double', nullable: true }) bpm: number | null;
}

@Entity('engagement')
export class EngagementRow extends PartRow {
  @ManyToOne(() => RigEntity, belongsToRig) @JoinColumn({ name: 'rig' }) owner: Relation<RigEntity>;
  @Column({ type: 'varchar', length: 120 }) name: string;
}

@Entity('set_list')
export class SetListRow extends PartRow {
  @ManyToOne(() => RigEntity, belongsToRig) @JoinColumn({ name: 'rig' }) owner: Relation<RigEntity>;
  @Column({ type: 'varchar', length: 120 }) name: string;
}

@Entity('log_entry')
export class LogEntryRow extends PartRow {
  @ManyToOne(() => RigEntity, belongsToRig) @JoinColumn({ name: 'rig' }) owner: Relation<RigEntity>;
  @Column({ type: 'varchar', length: 40 }) when: string;
}

@Entity('standing_test')
export class StandingTestRow extends PartRow {
  @Column({ type: 'varchar', length: 80 }) hookup: string;
  @ManyToOne(() => HookupRow, belongsToRig)
  @JoinColumn([
    { name: 'rig', referencedColumnName: 'rig' },
    { name: 'hookup', referencedColumnName: 'id' },
  ])
  wiring: Relation<HookupRow>;
  @Column({ type: 'varchar', length: 120 }) name: string;
}

@Entity('acceptance')
export class AcceptanceRow extends PartRow {
  @Column({ type: 'varchar', length: 80 }) hookup: string;
  @ManyToOne(() => HookupRow, belongsToRig)
  @JoinColumn([
    { name: 'rig', referencedColumnName: 'rig' },
    { name: 'hookup', referencedColumnName: 'id' },
  ])
  wiring: Relation<HookupRow>;
  @Column({ type: 'varchar', length: 64 }) code: string;
}

@Entity('tick')
export class TickRow extends PartRow {
  @Column({ type: 'varchar', length: 80 }) device: string;
  @ManyToOne(() => DeviceRow, belongsToRig)
  @JoinColumn([
    { name: 'rig', referencedColumnName: 'rig' },
    { name: 'device', referencedColumnName: 'id' },
  ])
  box: Relation<DeviceRow>;
}

@Entity('dial_card')
export class DialCardRow extends PartRow {
  @ManyToOne(() => RigEntity, belongsToRig) @JoinColumn({ name: 'rig' }) owner: Relation<RigEntity>;
}

@Entity('pack_case')
export class PackCaseRow extends PartRow {
  @ManyToOne(() => RigEntity, belongsToRig) @JoinColumn({ name: 'rig' }) owner: Relation<RigEntity>;
  @Column({ type: 'varchar', length: 120 }) name: string;
}

@Entity('packing')
export class PackingRow extends PartRow {
  @ManyToOne(() => RigEntity, belongsToRig) @JoinColumn({ name: 'rig' }) owner: Relation<RigEntity>;
}

@Entity('house')
export class HouseRow extends PartRow {
  @ManyToOne(() => RigEntity, belongsToRig) @JoinColumn({ name: 'rig' }) owner: Relation<RigEntity>;
  @Column({ type: 'varchar', length: 120 }) name: string;
}

@Entity('photo')
export class PhotoRow extends PartRow {
  @ManyToOne(() => RigEntity, belongsToRig) @JoinColumn({ name: 'rig' }) owner: Relation<RigEntity>;
  @Column({ type: 'varchar', length: 40 }) when: string;
}

export type AnyRow = PartRow;

/** The table of each kind, and which of a part's fields have columns of their own; the rest is JSON. */
export const TABLES: Readonly<
  Record<Kind, { readonly entity: new () => AnyRow; readonly columns: readonly string[] }>
> = {
  about: { entity: AboutRow, columns: ['name'] },
  device: { entity: DeviceRow, columns: ['code', 'name', 'zone'] },
  program: { entity: ProgramRow, columns: ['device', 'memory', 'number', 'name'] },
  hookup: { entity: HookupRow, columns: ['name'] },
  cable: { entity: CableRow, columns: ['hookup'] },
  sound: { entity: SoundRow, columns: ['name', 'role', 'at'] },
  move: { entity: MoveRow, columns: ['name'] },
  song: { entity: SongRow, columns: ['title', 'bpm'] },
  engagement: { entity: EngagementRow, columns: ['name'] },
  setList: { entity: SetListRow, columns: ['name'] },
  logEntry: { entity: LogEntryRow, columns: ['when'] },
  standingTest: { entity: StandingTestRow, columns: ['hookup', 'name'] },
  acceptance: { entity: AcceptanceRow, columns: ['hookup', 'code'] },
  tick: { entity: TickRow, columns: ['device'] },
  dialCard: { entity: DialCardRow, columns: [] },
  packCase: { entity: PackCaseRow, columns: ['name'] },
  packing: { entity: PackingRow, columns: [] },
  house: { entity: HouseRow, columns: ['name'] },
  photo: { entity: PhotoRow, columns: ['when'] },
};

export const PART_ENTITIES = Object.values(TABLES).map((t) => t.entity);
