import { Column, CreateDateColumn, Entity, PrimaryColumn } from 'typeorm';

/** Somebody who owns rigs. One local person for now. */
@Entity('person')
export class Person {
  @PrimaryColumn({ type: 'varchar', length: 64 }) id: string;
  @Column({ type: 'varchar', length: 120 }) name: string;
  @CreateDateColumn() created: Date;
}
