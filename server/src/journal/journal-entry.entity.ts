import type { Part } from '@yunta/core/rig/rig';
import { Column, Entity, Index, JoinColumn, ManyToOne, PrimaryColumn, type Relation } from 'typeorm';
import { RigEntity } from '../rigs/rig.entity.js';

export type StoredDelta = readonly { readonly id: string; readonly before: Part | null; readonly after: Part | null }[];

/** One change of a rig: what each touched part was and became, by whom and when. Never altered, never removed. */
@Entity('journal_entry')
@Index('journal_change', ['rig', 'change'], { unique: true })
export class JournalEntry {
  @PrimaryColumn({ type: 'varchar', length: 64 }) rig: string;
  @ManyToOne(() => RigEntity, { onDelete: 'RESTRICT' }) @JoinColumn({ name: 'rig' }) owner: Relation<RigEntity>;
  /** The revision that it made. */
  @PrimaryColumn({ type: 'int', unsigned: true }) revision: number;
  /** Id of the change set; the same one never enters twice. */
  @Column({ type: 'varchar', length: 64 }) change: string;
  @Column({ type: 'varchar', length: 200 }) label: string;
  /** Who sat at the keyboard, as they called themselves; the owner's id where nobody said. */
  @Column({ type: 'varchar', length: 64 }) who: string;
  @Column({ type: 'datetime', precision: 3 }) when: Date;
  @Column({ type: 'smallint', unsigned: true }) format: number;
  @Column({ type: 'json' }) delta: StoredDelta;
  /** How many parts it touched, and how long the delta is as text, for whoever does not read it. */
  @Column({ type: 'int', unsigned: true, default: 0 }) parts: number;
  @Column({ type: 'int', unsigned: true, default: 0 }) bytes: number;
}
