import { LONGEST, LONGEST_LABEL, MOST_PARTS } from '@yunta/core/rig/limits';
import { ApiProperty, ApiPropertyOptional } from '@nestjs/swagger';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsISO8601,
  IsInt,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateBy,
  ValidateIf,
} from 'class-validator';

/** Ids of rigs, changes and boxes on a shelf. */
export const ID = /^[a-z0-9][a-z0-9-]{0,63}$/;
export const idMessage = (what: string) => ({
  message: `${what} is not an id: use a–z, 0–9 and hyphens, at most 64 of them`,
});
const LAST_REVISION = 2 ** 31;

/** Text that was cut in the middle of a character comes back as another. */
const IsWhole = () =>
  ValidateBy({
    name: 'isWhole',
    validator: {
      validate: (text) => typeof text === 'string' && text.isWellFormed(),
      defaultMessage: (on) => `${on?.property ?? 'text'} holds half a character`,
    },
  });

/** Left out, not null: what is there is checked. */
const MayBeLeftOut = () => ValidateIf((_, value) => value !== undefined);

export class RigPath {
  @ApiProperty({ example: 'island-run' }) @Matches(ID, idMessage('rig')) rig: string;
}

export class RevisionPath extends RigPath {
  @ApiProperty({ type: 'integer' })
  @Type(() => Number)
  @IsInt({ message: 'revision is not a whole number' })
  @Min(0)
  @Max(LAST_REVISION)
  revision: number;
}

export class ChangeRequest {
  @ApiProperty({ description: 'Id of the change set. Sending the same one twice is harmless.', example: 'c-8f14e45f' })
  @Matches(ID, idMessage('id'))
  id: string;

  @ApiProperty({ description: 'Revision of the rig that the change was made on.' })
  @IsInt({ message: 'base is not a whole number: send the revision that the change was made on' })
  @Min(0)
  @Max(LAST_REVISION)
  base: number;

  @ApiProperty({ description: 'What the person did, in their words.' })
  @IsString()
  @Length(1, LONGEST_LABEL)
  @IsWhole()
  label: string;

  @ApiProperty({
    description: 'Parts as they shall be (docs/rig-file.schema.json).',
    type: 'array',
    items: { type: 'object' },
  })
  @IsArray({ message: 'put is not a list of parts' })
  @ArrayMaxSize(MOST_PARTS)
  put: unknown[];

  @ApiProperty({ description: 'Ids of parts to take away.', type: [String] })
  @IsArray({ message: 'remove is not a list of ids' })
  @ArrayMaxSize(MOST_PARTS)
  @IsString({ each: true })
  @MaxLength(80, { each: true })
  remove: string[];
}

export class NewRigRequest {
  @ApiProperty() @Matches(ID, idMessage('id')) id: string;
  @ApiProperty({ description: 'Id of the change that makes it, so that asking twice is harmless.' })
  @Matches(ID, idMessage('change'))
  change: string;
  @ApiPropertyOptional({ description: 'Name of an empty rig.' })
  @MayBeLeftOut()
  @IsString()
  @Length(1, LONGEST.name)
  @IsWhole()
  name?: string;
  @ApiPropertyOptional({ description: 'How it came about, in the words of the history.' })
  @MayBeLeftOut()
  @IsString()
  @Length(1, LONGEST_LABEL)
  @IsWhole()
  label?: string;
  @ApiPropertyOptional({ description: 'A whole rig file as text; without it the rig begins empty.' })
  @MayBeLeftOut()
  @IsString()
  file?: string;
}

export class JournalQuery {
  @ApiPropertyOptional()
  @MayBeLeftOut()
  @Type(() => Number)
  @IsInt({ message: 'after is not a revision' })
  @Min(0)
  @Max(LAST_REVISION)
  after?: number;
  @ApiPropertyOptional()
  @MayBeLeftOut()
  @Type(() => Number)
  @IsInt({ message: 'before is not a revision' })
  @Min(1)
  @Max(LAST_REVISION)
  before?: number;
  @ApiPropertyOptional() @MayBeLeftOut() @Type(() => Number) @IsInt() @Min(1) @Max(500) most?: number;
  /** Only what was done by then. */
  @ApiPropertyOptional()
  @MayBeLeftOut()
  @IsISO8601({ strict: true }, { message: 'until is not a moment, such as 2026-05-31T23:59:59Z' })
  until?: string;
}
