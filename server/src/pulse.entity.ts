import { Column, Entity, PrimaryColumn } from 'typeorm';

/** One row that is written to whenever somebody asks whether all is well. */
@Entity('pulse')
export class Pulse {
  @PrimaryColumn({ type: 'tinyint', unsigned: true }) id: number;
  @Column({ type: 'int', unsigned: true }) beats: number;
}
