import type { Device } from '@yunta/core/rig/device';
import { Column, Entity, JoinColumn, ManyToOne, PrimaryColumn, UpdateDateColumn, type Relation } from 'typeorm';
import { Person } from '../people/person.entity.js';

/** A box that a person keeps for other rigs. It belongs to no rig. */
@Entity('shelf_box')
export class ShelfBox {
  @PrimaryColumn({ type: 'varchar', length: 64 }) owner: string;
  @PrimaryColumn({ type: 'varchar', length: 64 }) key: string;
  @ManyToOne(() => Person, { onDelete: 'RESTRICT' }) @JoinColumn({ name: 'owner' }) person: Relation<Person>;
  @Column({ type: 'varchar', length: 120 }) name: string;
  @Column({ type: 'smallint', unsigned: true }) format: number;
  @Column({ type: 'json' }) box: Device;
  @UpdateDateColumn() changed: Date;
}
