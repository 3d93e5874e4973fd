import { ApiProperty, ApiPropertyOptional } from '@nestjs/swagger';
import { Type } from 'class-transformer';
import { ArrayMaxSize, IsArray, IsInt, IsOptional, IsString, Length, Matches, Max, MaxLength, Min } from 'class-validator';

const ID = /^[a-z0-9][a-z0-9-]{0,63}$/;
const idMessage = (what: string) => ({ message: `${what} is not an id: use a–z, 0–9 and hyphens, at most 64 of them` });
const MOST_PARTS = 4000;

export class ChangeRequest {
  @ApiProperty({ description: 'Id of the change set. Sending the same one twice is harmless.', example: 'c-8f14e45f' })
  @Matches(ID, idMessage('id')) id: string;

  @ApiProperty({ description: 'Revision of the rig that the change was made on.' })
  @IsInt({ message: 'base is not a whole number: send the revision that the change was made on' }) @Min(0) @Max(2 ** 31) base: number;

  @ApiProperty({ description: 'What the person did, in their words.' })
  @IsString() @Length(1, 200) label: string;

  @ApiProperty({ description: 'Parts as they shall be (docs/rig-file.schema.json).', type: 'array', items: { type: 'object' } })
  @IsArray({ message: 'put is not a list of parts' }) @ArrayMaxSize(MOST_PARTS) put: unknown[];

  @ApiProperty({ description: 'Ids of parts to take away.', type: [String] })
  @IsArray({ message: 'remove is not a list of ids' }) @ArrayMaxSize(MOST_PARTS) @IsString({ each: true }) @MaxLength(80, { each: true }) remove: string[];
}

export class NewRigRequest {
  @ApiProperty() @Matches(ID, idMessage('id')) id: string;
  @ApiProperty({ description: 'Id of the change that makes it, so that asking twice is harmless.' }) @Matches(ID, idMessage('change')) change: string;
  @ApiPropertyOptional({ description: 'Name of an empty rig.' }) @IsOptional() @IsString() @Length(1, 120) name?: string;
  @ApiPropertyOptional({ description: 'A whole rig file as text; without it the rig begins empty.' }) @IsOptional() @IsString() file?: string;
}

export class JournalQuery {
  @ApiPropertyOptional() @IsOptional() @Type(() => Number) @IsInt({ message: 'after is not a revision' }) @Min(0) after?: number;
  @ApiPropertyOptional() @IsOptional() @Type(() => Number) @IsInt({ message: 'before is not a revision' }) @Min(1) before?: number;
  @ApiPropertyOptional() @IsOptional() @Type(() => Number) @IsInt() @Min(1) @Max(500) most?: number;
}
