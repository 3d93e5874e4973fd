import {
  Column,
  CreateDateColumn,
  Entity,
  Index,
  JoinColumn,
  ManyToOne,
  PrimaryColumn,
  UpdateDateColumn,
  type Relation,
} from 'typeorm';
import { Person } from '../people/person.entity.js';

@Entity('rig')
@Index('rig_owner', ['owner'])
export class RigEntity {
  @PrimaryColumn({ type: 'varchar', length: 64 }) id: string;
  @Column({ type: 'varchar', length: 64 }) owner: string;
  @ManyToOne(() => Person, { onDelete: 'RESTRICT' }) @JoinColumn({ name: 'owner' }) person: Relation<Person>;
  /** As its about part says it; kept here for lists. */
  @Column({ type: 'varchar', length: 120 }) name: string;
  @Column({ type: 'int', unsigned: true, default: 0 }) revision: number;
  /** It shipped with the program and can be put back. */
  @Column({ type: 'boolean', default: false }) demo: boolean;
  /** Put away by its person, with all its history; it can be brought back. */
  @Column({ type: 'datetime', precision: 6, nullable: true }) removed: Date | null;
  @CreateDateColumn() created: Date;
  @UpdateDateColumn() changed: Date;
}
